import type { ComponentProps } from 'react';
import { Figures, TicketPart } from '../../../components/BenchFrame';
import { Button } from '../../../components/Button';
import { ProblemNotice } from '../../../components/Notice';
import { levelWords } from '../../../core/card/channels';
import type { Layout } from '../../../core/card/layout';
import { plainNumber, type LikedUnits } from '../../../core/quantities/format';
import type { LikedBest } from '../liked';
import styles from './Finding.module.css';

interface Props {
  readonly liked: LikedBest | null;
  /** Cells that would be compared. */
  readonly candidates: readonly number[];
  /** Whether another comparison would tell more. */
  readonly more: boolean;
  readonly layout: Layout;
  readonly likedUnits: LikedUnits;
  readonly problem: ComponentProps<typeof ProblemNotice>['problem'];
  readonly onCompare: () => void;
}

const SHOWN = 4;

/** What the eye prefers of cells that meet the wish, two at a time: some questions are taste. */
export function LikedPart({ liked, candidates, more, layout, likedUnits, problem, onCompare }: Props) {
  const words = (cellIndex: number): string => levelWords(layout.cells[cellIndex]!.levels, likedUnits).join(', ');
  return (
    <TicketPart title="Which do you like best?">
      <ProblemNotice problem={problem} />
      {liked && (
        <Figures
          rows={liked.ranking
            .slice(0, SHOWN)
            .map(({ cellIndex, best }) => [words(cellIndex), `best with ${plainNumber(100 * best, 2)} %`] as const)}
        />
      )}
      {candidates.length < 2 ? (
        <p className={styles.caption}>Fewer than two cells meet the wish: widen it to have some to compare.</p>
      ) : (
        <>
          <p className={styles.caption}>
            {more
              ? `Two at a time of the ${candidates.length} cells that meet the wish; a few quick choices rank them.`
              : 'Sure enough: another comparison would tell little.'}
          </p>
          {more && <Button onClick={onCompare}>{liked ? 'Compare on' : 'Compare by eye'}</Button>}
        </>
      )}
    </TicketPart>
  );
}
