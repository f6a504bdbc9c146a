import type { ReactNode } from 'react';
import { levelWords } from '../core/card/channels';
import type { BaseFinding } from '../core/card/contract';
import type { Cell } from '../core/card/layout';
import { gathered } from '../core/card/station';
import { mixColours } from '../core/color/mix';
import { burnedColourOf } from '../core/stock/families';
import { BenchFrame, Figures, TicketPart } from './BenchFrame';
import { CardDrawing } from './CardDrawing';
import { CardPhotos, CardPiece } from './CardPhotos';
import type { FindingProps } from './finding-props';
import { KeepPart, pressKeep } from './KeepPart';
import { Mat } from './Mat';
import { Notice } from './Notice';

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
}

/** A finding that is a number: the card on the mat, the answer with its picture on the ticket, and one button to keep it. */
export function FindingFrame(props: Props) {
  const { view, tabs, title, ladder, selected, onSelect, onKept, finding, rows, chart, caption, keep, ringed, words } =
    props;
  const { card, reading, kept } = view;
  const layout = gathered(card.layout);
  const { stock, machine } = card.madeFor;
  const burned = burnedColourOf(stock);
  const newest = kept[0];
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
          {chart && (
            <TicketPart title="What was seen">
              {chart}
              {caption && <p>{caption}</p>}
            </TicketPart>
          )}
          {keep !== null && finding.missing.length === 0 && (
            <KeepPart
              title="For the book"
              cardId={card.id}
              wish={null}
              choice={{}}
              kept={kept.length}
              words={newest ? `Keep again (is v${newest.version})` : keep}
              onKept={onKept}
            />
          )}
        </>
      }
      mat={
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
                  ...(ringed.includes(cell.index) ? { ring: 'proposed' as const } : {}),
                })}
                describe={(cell) =>
                  [...levelWords(cell.levels, machine.likedUnits), words(cell)].filter(Boolean).join(', ')
                }
              />
            </>
          )}
        </Mat>
      }
    />
  );
}
