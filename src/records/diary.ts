import type { DiaryEntry } from '../core/machine/diary';

/** An entry of a machine's diary as it is kept: never changed, but struck out where it was a mistake. */
export interface DiaryRecord extends DiaryEntry {
  readonly id: number;
  readonly struck: boolean;
}

/** A machine's diary, newest first, and how long it has burned. */
export interface DiaryView {
  readonly entries: readonly DiaryRecord[];
  /** Hours of logged burns: of all of them, and since the source was replaced last. */
  readonly hours: { readonly all: number; readonly ofSource: number };
}
