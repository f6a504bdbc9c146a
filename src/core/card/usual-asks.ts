import { wordOf, type Ask, type Seen } from './asks';

/** Grades of a cell, by digit. */
export const GRADE: Ask = {
  field: 'grade',
  by: 'eye',
  of: 'cell',
  question: 'How good is it?',
  options: [
    { id: '1', key: '1', name: '1' },
    { id: '2', key: '2', name: '2' },
    { id: '3', key: '3', name: '3' },
    { id: '4', key: '4', name: '4' },
    { id: '5', key: '5', name: '5' },
  ],
};

/** What happened to an engraved patch, by letter. */
export const OUTCOME: Ask = {
  field: 'outcome',
  by: 'eye',
  of: 'cell',
  question: 'What happened?',
  options: [
    { id: 'good', key: 'g', name: 'good' },
    { id: 'no-mark', key: 'n', name: 'no mark' },
    { id: 'charred', key: 'c', name: 'charred' },
    { id: 'burned-through', key: 'b', name: 'burned through' },
    { id: 'flare-up', key: 'f', name: 'flare-up' },
    { id: 'residue', key: 'r', name: 'residue stays' },
  ],
};

/** 1 (useless) to 5 (just right); null when the operator gave none. */
export function gradeOf(seen: Seen, cellIndex: number): number | null {
  const word = wordOf(seen, GRADE.field, cellIndex);
  return word === null ? null : Number(word);
}

const SPOILED: ReadonlySet<string | null> = new Set(['charred', 'burned-through', 'flare-up', 'no-mark']);

/** Whether the operator called a cell spoiled. */
export function isSpoiled(seen: Seen, cellIndex: number): boolean {
  return SPOILED.has(wordOf(seen, OUTCOME.field, cellIndex));
}
