import { useState } from 'react';
import { TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { FocusSketch } from '../../components/FocusSketch';
import { Notice } from '../../components/Notice';
import { QuantityField } from '../../components/QuantityField';
import { quantityKinds } from '../../components/quantity-kinds';
import { wordOf } from '../../core/card/asks';
import { COUNT } from '../../core/card/usual-asks';
import type { BurnProgress } from '../../records/burn';
import type { StageProps } from './stage-props';
import { TapSheet } from './TapSheet';

/** A stop for a hand: what to do, and for the focus where it was left. */
export function HandPart({
  hand,
  busy,
  machine,
  tap,
  onDone,
}: {
  hand: NonNullable<BurnProgress['hand']>;
  busy: boolean;
  machine: StageProps['view']['card']['madeFor']['machine'];
  /** Of a card whose shape gets pass after pass: what was said of it, and what follows a tap. */
  tap?: { readonly view: StageProps['view']; readonly onTapped: () => Promise<void> };
  onDone: (focusOffsetMm: number | null) => void;
}) {
  const asked = hand.focusOffsetMm;
  const [offset, setOffset] = useState<number | null>(asked);
  const [askedFor, setAskedFor] = useState(asked);
  if (askedFor !== asked) {
    setAskedFor(asked);
    setOffset(asked);
  }
  return (
    <TicketPart title="Your hand is wanted">
      <Notice look="straw" title="The beam is off and the head is clear" live>
        {hand.text.charAt(0).toUpperCase() + hand.text.slice(1)}.
      </Notice>
      {asked !== null && (
        <>
          <FocusSketch offsetMm={offset ?? asked} liked={machine.likedUnits} />
          <QuantityField
            label="Where the focus is now"
            kind={quantityKinds(machine.likedUnits).length}
            value={offset}
            onChange={setOffset}
            hint="from the focus you set: plus is raised, minus is lowered"
          />
        </>
      )}
      {tap && <TapAtStop key={hand.text} {...tap} />}
      <Button
        look={tap && droppedAfter(tap.view) !== null ? 'plain' : 'main'}
        busy={busy}
        disabled={asked !== null && offset === null}
        onClick={() => onDone(offset)}
      >
        Done, go on
      </Button>
    </TicketPart>
  );
}

/** After how many passes the shape was said to have dropped; null where nobody said so. */
const droppedAfter = ({ answers }: StageProps['view']): string | null =>
  wordOf({ readings: [], answers }, COUNT.field, 0);

/** The bench's hand at a stop between two passes, and what it found. */
function TapAtStop({ view, onTapped }: { view: StageProps['view']; onTapped: () => Promise<void> }) {
  const [holds, setHolds] = useState(false);
  const count = droppedAfter(view);
  if (count !== null)
    return (
      <Notice look="straw" title="It has dropped" live>
        It took {count}: stop here. More passes would only char its edge.
      </Notice>
    );
  return (
    <>
      {holds && <Notice live>It holds: go on.</Notice>}
      <TapSheet
        cardId={view.card.id}
        does="stop"
        onTapped={async (tapped) => {
          setHolds(tapped === 0);
          await onTapped();
        }}
      />
    </>
  );
}
