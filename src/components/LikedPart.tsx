import type { ComponentProps } from 'react';
import { Figures, TicketPart } from './BenchFrame';
import { Button } from './Button';
import { ProblemNotice } from './Notice';
import { levelWords } from '../core/card/channels';
import type { Layout } from '../core/card/layout';
import { plainNumber, type LikedUnits } from '../core/quantities/format';
import type { LikedBest } from '../core/card/liked';
import styles from './Page.module.css';

interface Props {
  readonly liked: LikedBest | null;
  /** Rows instead of the ranking, where the question is not which cell. */
  readonly told?: readonly (readonly [string, string])[] | undefined;
  /** Cells that would be compared. */
  readonly candidates: readonly number[];
  /** Whether another comparison would tell more. */
  readonly more: boolean;
  readonly layout: Layout;
  readonly likedUnits: LikedUnits;
  /** What they are: "cells that meet the wish". */
  readonly are: string;
  /** What to do where there are fewer than two. */
  readonly tooFew: string;
  readonly problem: ComponentProps<typeof ProblemNotice>['problem'];
  readonly onCompare: () => void;
}

const SHOWN = 4;

/** What the eye prefers, two at a time: some questions are taste. */
export function LikedPart({
  liked,
  told,
  candidates,
  more,
  layout,
  likedUnits,
  are,
  tooFew,
  problem,
  onCompare,
}: Props) {
  const words = (cellIndex: number): string => levelWords(layout.cells[cellIndex]!.levels, likedUnits).join(', ');
  const ranking = (liked?.ranking ?? [])
    .slice(0, SHOWN)
    .map(({ cellIndex, best }) => [words(cellIndex), `best with ${plainNumber(100 * best, 2)} %`] as const);
  return (
    <TicketPart title="Which do you like best?">
      <ProblemNotice problem={problem} />
      {(told ?? ranking).length > 0 && <Figures rows={told ?? ranking} />}
      {candidates.length < 2 ? (
        <p className={styles.soft}>{tooFew}</p>
      ) : (
        <>
          <p className={styles.soft}>
            {more
              ? `Two at a time of the ${candidates.length} ${are}; a few quick choices rank them.`
              : 'Sure enough: another comparison would tell little.'}
          </p>
          {more && (
            <Button onClick={onCompare}>{(told ?? ranking).length > 0 ? 'Compare on' : 'Compare by eye'}</Button>
          )}
        </>
      )}
    </TicketPart>
  );
}
