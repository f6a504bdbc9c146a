import { useState, type ReactNode } from 'react';
import { levelWords } from '../core/card/channels';
import type { BaseFinding } from '../core/card/contract';
import type { Cell } from '../core/card/layout';
import type { LikedBest } from '../core/card/liked';
import { gathered } from '../core/card/station';
import { mixColours } from '../core/color/mix';
import { burnedColourOf } from '../core/stock/families';
import { BenchFrame, Figures, TicketPart } from './BenchFrame';
import { CardDrawing } from './CardDrawing';
import { CardPhotos, CardPiece } from './CardPhotos';
import { ComparePair } from './ComparePair';
import type { FindingProps } from './finding-props';
import { KeepPart, pressKeep } from './KeepPart';
import { LikedPart } from './LikedPart';
import { Mat } from './Mat';
import { Notice } from './Notice';
import { useComparing, type NextOf } from './use-comparing';

interface Props extends FindingProps {
  readonly finding: BaseFinding;
  /** What was found in numbers, each with how sure it is. */
  readonly rows: readonly (readonly [label: string, value: ReactNode])[];
  readonly chart?: ReactNode;
  readonly caption?: string;
  /** What keeping it is called, "Keep this floor"; null when there is nothing to keep. */
  readonly keep: string | null;
  /** The cells that the answer rests on. */
  readonly ringed: readonly number[];
  /** What was seen of a cell, in words. */
  readonly words: (cell: Cell) => string;
  /** The ground of a cell, for kinds that show by it what became of it; none where left out. */
  readonly ground?: (cell: Cell) => string | undefined;
  /** What is drawn over the card, in its millimetres; nothing where left out. */
  readonly overlay?: ReactNode;
  /** What is wished, for kinds whose answer depends on it: its fields, and the wish that is kept with the answer. */
  readonly wish?: { readonly fields: ReactNode; readonly value: unknown };
  /** Comparisons by eye of two cells at a time, for kinds that ask for them. */
  readonly byEye?: ByEye;
}

/** What is compared by eye, two at a time. */
export interface ByEye {
  readonly candidates: readonly number[];
  readonly next: NextOf;
  readonly liked: LikedBest | null;
  /** What they are: "strips". */
  readonly are: string;
  /** What stands for a ranking of cells, where the question is another; the ranking where left out. */
  readonly told?: readonly (readonly [string, string])[];
}

const NONE: readonly number[] = [];
const NO_NEXT: NextOf = () => null;

/** A finding that is a number: the card on the mat, the answer with its picture on the ticket, and one button to keep it. */
export function FindingFrame(props: Props) {
  const { view, tabs, title, ladder, selected, onSelect, onKept, onAnswered } = props;
  const { finding, rows, chart, caption, keep, ringed, words, ground, overlay, wish, byEye } = props;
  const { card, reading, kept } = view;
  const layout = gathered(card.layout);
  const { stock, machine } = card.madeFor;
  const burned = burnedColourOf(stock);
  const newest = kept[0];
  const [comparesNow, setComparesNow] = useState(false);
  const comparing = useComparing(card.id, byEye?.candidates ?? NONE, byEye?.next ?? NO_NEXT, view, onAnswered);
  return (
    <BenchFrame
      cardFirst
      title={title}
      ladder={ladder}
      ticket={
        <>
          {tabs}
          <TicketPart title="What it says">
            {finding.missing.length > 0 ? (
              <Notice look="straw" title="Not enough for an answer">
                {finding.missing.join(' ')}
              </Notice>
            ) : (
              <Notice>{finding.says}</Notice>
            )}
            {rows.length > 0 && <Figures rows={rows} />}
          </TicketPart>
          {wish?.fields}
          {chart && (
            <TicketPart title="What was seen">
              {chart}
              {caption && <p>{caption}</p>}
            </TicketPart>
          )}
          {byEye && (
            <LikedPart
              liked={byEye.liked}
              told={byEye.told}
              candidates={comparing.candidates}
              are={byEye.are}
              tooFew="There are fewer than two to compare."
              more={comparing.pair !== null}
              layout={layout}
              likedUnits={machine.likedUnits}
              problem={comparing.problem}
              onCompare={() => setComparesNow(true)}
            />
          )}
          {keep !== null && finding.missing.length === 0 && (
            <KeepPart
              title="For the book"
              cardId={card.id}
              wish={wish?.value ?? null}
              choice={{}}
              kept={kept.length}
              words={newest ? `Keep again (is v${newest.version})` : keep}
              onKept={onKept}
            />
          )}
        </>
      }
      mat={
        comparesNow && comparing.pair ? (
          <ComparePair
            layout={layout}
            question="Which is better?"
            pair={comparing.pair}
            photo={reading ? `/api/photos/${reading.photoId}/images/straightened` : null}
            stockColour={stock.colour}
            wordsOf={(cell) => levelWords(cell.levels, machine.likedUnits).join(', ')}
            busy={comparing.busy}
            onAnswer={comparing.answer}
            onUndo={comparing.undo}
            onClose={() => setComparesNow(false)}
          />
        ) : (
          <Mat
            label="The card and what was seen of it"
            ruled={!layout.stations}
            extent={{ x: -2, y: -2, width: layout.widthMm + 4, height: layout.heightMm + 4 }}
            onKeyDown={(event) => {
              const onCell = (event.target as Element).hasAttribute('data-cell');
              if (event.key.toLowerCase() === 'k' || (event.key === 'Enter' && onCell)) pressKeep();
              if (event.key === 'Escape') onSelect(null);
            }}
          >
            {() => (
              <>
                {(!reading || layout.stations) && <CardPiece layout={layout} colour={stock.colour} />}
                {reading && <CardPhotos layout={layout} shown={reading.shown} />}
                <CardDrawing
                  layout={layout}
                  marksVisible={!reading}
                  markColour={burned}
                  selected={selected}
                  onSelect={onSelect}
                  look={(cell) => ({
                    fill: reading ? 'transparent' : mixColours(stock.colour, burned, 0.35),
                    ground: ground?.(cell),
                    ...(ringed.includes(cell.index) ? { ring: 'proposed' as const } : {}),
                  })}
                  describe={(cell) =>
                    [...levelWords(cell.levels, machine.likedUnits), words(cell)].filter(Boolean).join(', ')
                  }
                />
                {overlay}
              </>
            )}
          </Mat>
        )
      }
    />
  );
}
