import { useMemo, useState } from 'react';
import { TicketPart } from '../../../components/BenchFrame';
import { SelectField } from '../../../components/Field';
import type { FindingProps } from '../../../components/finding-props';
import { FindingFrame } from '../../../components/FindingFrame';
import { FitChart } from '../../../components/FitChart';
import { QuantityField } from '../../../components/QuantityField';
import { quantityKinds } from '../../../components/quantity-kinds';
import { FIT_WORDS, thicknessBy, WANTED_FITS, type FitBounds } from '../../../core/fit/fit-bounds';
import { formatLength } from '../../../core/quantities/format';
import { findSlots, USUAL_SLOTS_WISH, type SlotsWish } from '../find';

const NAMES = { press: 'pressed in', snug: 'snug by hand', slip: 'slipping in, no play' } as const;
const BEGINS = { press: 'Pressed in from', snug: 'Snug from', slip: 'Slips in from', loose: 'Loose from' } as const;

/** What calipers show, and hands feel. */
const hundredth = (mm: number): number => Math.round(mm * 100) / 100;

/** How wide a slot is drawn for each fit, and where one fit ends and the next begins. */
export default function SlotsFindingScreen(props: FindingProps) {
  const { card, answers, known } = props.view;
  const { machine } = card.madeFor;
  const liked = machine.likedUnits;
  const kinds = useMemo(() => quantityKinds(liked, machine.ratedPowerW), [liked, machine]);
  const [wish, setWish] = useState<SlotsWish>(USUAL_SLOTS_WISH);
  const finding = useMemo(
    () => findSlots(card.layout, { readings: [], answers }, known, wish),
    [card, answers, known, wish],
  );
  const { slots, bounds, sheetMm, odd } = finding;
  const felt = new Map(slots.map((slot) => [slot.cellIndex, slot]));
  const mm = (value: number): string => formatLength(hundredth(value), liked, 3);
  const signed = (value: number): string => `${value > 0 ? '+' : ''}${mm(value)}`;
  const chosen = props.selected === null ? undefined : felt.get(props.selected);
  return (
    <FindingFrame
      {...props}
      finding={finding}
      keep="Keep these fits"
      ringed={[]}
      words={(cell) => {
        const slot = felt.get(cell.index);
        return slot ? `${FIT_WORDS[slot.fit]}${odd.includes(cell.index) ? ', against its neighbours' : ''}` : '';
      }}
      rows={[
        ['Sheet', formatLength(sheetMm, liked, 3)],
        ...(bounds
          ? (['press', 'snug', 'slip', 'loose'] as const).map((fit): [string, string] => [
              BEGINS[fit],
              `${signed(bounds.from[fit].atMm)} ± ${mm(2 * bounds.from[fit].sigmaMm)}, drawn ${mm(sheetMm + bounds.from[fit].atMm)}`,
            ])
          : []),
        ...(odd.length > 0
          ? [['Try again', odd.map((index) => `slot ${index + 1}`).join(', ')] as [string, string]]
          : []),
        ...(bounds && chosen ? gaugeRows(bounds, chosen.drawnMm, mm) : []),
      ]}
      wish={{
        value: wish,
        fields: (
          <TicketPart title="What is wanted">
            <SelectField
              label="The sheet shall be"
              value={wish.fit}
              onChange={(event) => setWish({ ...wish, fit: event.target.value as SlotsWish['fit'] })}
            >
              {WANTED_FITS.map((fit) => (
                <option key={fit} value={fit}>
                  {NAMES[fit]}
                </option>
              ))}
            </SelectField>
            <QuantityField
              label="Thickness of that sheet"
              kind={kinds.length}
              value={wish.thicknessMm ?? Math.round(sheetMm * 1000) / 1000}
              onChange={(value) => value !== null && value > 0 && setWish({ ...wish, thicknessMm: value })}
              hint="measured, with paint or masking if it has any by then"
            />
          </TicketPart>
        ),
      }}
      caption="Each point is one slot: how much wider than the sheet it was drawn, and how the sheet went in. The line is what is to be expected."
      chart={
        slots.length > 0 && (
          <FitChart
            label="How the sheet went into each slot"
            across="drawn wider than the sheet by, mm"
            tried={slots.map(({ clearanceMm, fit, cellIndex }) => ({ x: clearanceMm, fit, cellIndex }))}
            bounds={bounds}
            clearanceAt={(x) => x}
            selected={props.selected}
            onSelect={props.onSelect}
          />
        )
      }
    />
  );
}

/** What a sheet that goes into one of the slots like this is thick: the comb as a gauge. */
const gaugeRows = (bounds: FitBounds, drawnMm: number, mm: (value: number) => string): [string, string][] =>
  WANTED_FITS.map((fit) => {
    const { thicknessMm, sigmaMm } = thicknessBy(bounds, drawnMm, fit);
    return [`A sheet ${FIT_WORDS[fit]} here is`, `${mm(thicknessMm)} ± ${mm(2 * sigmaMm)} thick`];
  });
