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
  const [droppedAt, setDroppedAt] = useState<string | null>(null);
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
      {tap && <TapAtStop key={hand.text} {...tap} onDropped={() => setDroppedAt(hand.text)} />}
      <Button
        look={droppedAt === hand.text ? 'plain' : 'main'}
        busy={busy}
        disabled={asked !== null && offset === null}
        onClick={() => onDone(offset)}
      >
        Done, go on
      </Button>
    </TicketPart>
  );
}

/** The bench's hand at a stop between two passes, and what it found. */
function TapAtStop({
  view: { card, answers },
  onTapped,
  onDropped,
}: {
  view: StageProps['view'];
  onTapped: () => Promise<void>;
  onDropped: () => void;
}) {
  const [found, setFound] = useState<'dropped' | 'holds' | null>(null);
  const count = wordOf({ readings: [], answers }, COUNT.field, 0);
  if (found === 'dropped')
    return (
      <Notice look="straw" title="It has dropped" live>
        {count !== null && `It took ${count}. `}Stop here: more passes would only char its edge.
      </Notice>
    );
  // Of this burn or of an earlier one: nobody but who said it knows.
  if (count !== null)
    return (
      <Notice>
        What was said stands: {COUNT.question} {count}. If that was of an earlier burn, clear it in Look, and tap here.
      </Notice>
    );
  return (
    <>
      {found === 'holds' && <Notice live>It holds: go on.</Notice>}
      <TapSheet
        cardId={card.id}
        does="stop"
        onTapped={async (tapped) => {
          setFound(tapped === 0 ? 'holds' : 'dropped');
          if (tapped > 0) onDropped();
          await onTapped();
        }}
      />
    </>
  );
}
