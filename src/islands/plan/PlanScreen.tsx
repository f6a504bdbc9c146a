import { useMemo, useState } from 'react';
import { BenchFrame, Figures, TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { FATE_WORDS } from '../../components/fate-words';
import { Ladder } from '../../components/Ladder';
import { Notice, ProblemNotice } from '../../components/Notice';
import { PairingTitle } from '../../components/PairingTitle';
import { QuantityField } from '../../components/QuantityField';
import { COUNT, quantityKinds } from '../../components/quantity-kinds';
import { piecesOf } from '../../core/card/place';
import { levelWords } from '../../core/card/channels';
import { deliveredBy } from '../../core/card/energy';
import { mainBurn, type Cell } from '../../core/card/layout';
import { burnRunUpMm } from '../../core/card/path';
import { coverageOfBurn, isArea } from '../../core/card/shape';
import type { PlanField } from '../../core/card/plan-fields';
import { unusualConstants } from '../../core/card/unusual';
import { paceOf } from '../../core/book/motion-facts';
import { sureOfPace } from '../../core/motion/pace';
import { setupFields } from '../../core/card/work-setup';
import {
  formatArealEnergy,
  formatDuration,
  formatLength,
  formatPower,
  formatRunUp,
  plainNumber,
} from '../../core/quantities/format';
import type { PlanView } from '../../views/views';
import { RequestFailed, send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { useRequestKey } from '../../views/use-request-key';
import { FavouritesPart } from './FavouritesPart';
import { PlanFields } from './PlanFields';
import { PlanMat } from './PlanMat';
import { sizeWords } from './size-words';
import { usePlan } from './usePlan';
import styles from './PlanScreen.module.css';

const GROUPS = [
  ['cells', 'The cells'],
  ['same', 'The same in every cell'],
  ['setup', 'How it is set up'],
  ['frame', 'Markers and lettering'],
] as const satisfies readonly (readonly [PlanField['group'], string])[];

/** The planner of every kind of card: the drawn card with its axes at its edges, and what is the same in every cell on the ticket. */
export function PlanScreen({ view }: { view: PlanView }) {
  const { pairing } = view;
  const { machine, stock } = pairing;
  const kinds = useMemo(() => quantityKinds(machine.likedUnits, machine.ratedPowerW), [machine]);
  const state = usePlan(view);
  const { kind, plan, setPlan, drawn, errors, valid } = state;
  const [selected, setSelected] = useState<number | null>(null);
  const key = useRequestKey(plan, drawn?.place, drawn?.piece, state.sheetOnBed);
  const action = useAction();
  const { reasons } = view.proposal;
  if (!drawn) return <Notice look="heat">{Object.values(errors).join(' ')}</Notice>;

  const { layout, estimate } = drawn;
  const burned = layout.cells.filter((cell) => !cell.leftOut);
  const leftOut = layout.cells.filter((cell) => cell.leftOut).length;
  const failing = layout.cells.filter((cell) => cell.expected !== null).length - leftOut;
  const cell = selected === null ? undefined : layout.cells[selected];
  const searches = kind.next !== undefined && layout.cells.length === 0;
  const ready =
    valid && drawn.place !== null && drawn.placeIsFree && drawn.bed?.inside === true && (burned.length > 0 || searches);
  const fields = [...kind.fields(plan, pairing), ...setupFields(machine)];
  const describe = (one: Cell): string =>
    [
      ...levelWords(one.levels, machine.likedUnits),
      formatDuration(estimate.cellsS[one.index]!),
      ...(one.expected === null ? [] : [FATE_WORDS[one.expected]]),
    ].join(', ');

  const make = (): void =>
    action.run(async () => {
      const { id } = await send<{ id: number }>('/api/cards', {
        method: 'POST',
        key,
        json: {
          pairingId: pairing.id,
          kind: view.kind,
          plan,
          sheetPlace: drawn.place,
          piece: drawn.piece,
          sheetOnBed: state.sheetOnBed,
        },
      }).catch(async (fault: unknown) => {
        if (fault instanceof RequestFailed && fault.problem.code === 'does-not-fit') await state.lookAgain();
        throw fault;
      });
      window.location.assign(`/cards/${id}`);
    });

  /** The proposed place was taken since the page was opened, and the next free one is drawn. */
  const outOfTheWay = action.problem?.code === 'does-not-fit' && state.wantedPlace === null && ready;
  const why = Object.entries(reasons).filter(
    ([path]) => !fields.some((field) => field.path === path) && path !== 'size',
  );
  const runUp = Math.max(0, ...burned.flatMap((cell) => cell.burns.map((burn) => burnRunUpMm(burn, machine))));
  const fastest = Math.max(0, ...burned.flatMap((cell) => cell.burns.map((burn) => burn.settings.speedMmPerS)));
  const liked = pairing.machine.likedUnits;

  const unusual = unusualConstants(fields, plan, view.proposal, liked, view.before);
  const cells = (count: number): string => (count === 1 ? '1 cell is' : `${count} cells are`);

  const ticket = (
    <>
      <TicketPart title={kind.name}>
        <p className={styles.purpose}>{kind.purpose}</p>
        <Figures
          rows={[
            ['Burn time', searches ? 'a few seconds a step' : formatDuration(estimate.totalS)],
            ...(searches
              ? []
              : [
                  ['How sure', sureOfPace(paceOf(view.known.facts))] as const,
                  ['Of it the frame', formatDuration(estimate.frameS)] as const,
                ]),
            ['Cells', searches ? 'one at a time' : `${burned.length} of ${layout.cells.length}`],
            ['Size', sizeWords(layout, liked)],
            ...(machine.head === 'galvo' || runUp === 0
              ? []
              : [['Run-up, longest', formatRunUp(runUp, fastest, liked)] as const]),
            ...(estimate.handStops > 0 ? [['Stops for your hand', estimate.handStops] as const] : []),
          ]}
        />
        {Object.entries(errors).length > 0 && (
          <Notice look="heat" title="Not a plan yet" live>
            {[...new Set(Object.values(errors))].map((message) => (
              <p key={message}>{message}</p>
            ))}
          </Notice>
        )}
        {drawn.place === null && (
          <Notice look="heat">
            {stock.blanks
              ? `No free place of this size is left on the ${stock.blanks.count} blanks. Make the card smaller, or record new ones.`
              : 'The card is larger than the sheet. Make it smaller.'}
          </Notice>
        )}
        {drawn.place !== null && !drawn.placeIsFree && (
          <Notice look="heat">The card lies on an earlier one or leaves the stock. Drag it to a free place.</Notice>
        )}
        {drawn.bed && !drawn.bed.inside && (
          <Notice look="heat" title="Head or run-up leaves the bed">
            {Object.entries(drawn.bed.beyondMm)
              .filter(([, mm]) => mm > 0)
              .map(([side, mm]) => `${formatLength(mm, liked, 3)} at the ${side}`)
              .join(', ')}
            . Move the card or the sheet, or slow the fastest cells.
          </Notice>
        )}
        {failing > 0 && <Notice look="straw">{cells(failing)} bound to fail: dimmed on the card.</Notice>}
        {unusual.length > 0 && (
          <Notice look="straw" title="Far from the proposal">
            {unusual.map((words) => (
              <p key={words}>{words}</p>
            ))}
          </Notice>
        )}
        {leftOut > 0 && <Notice>{cells(leftOut)} bound to fail and left out.</Notice>}
        {outOfTheWay ? (
          <Notice look="straw" title="Another card was made there meanwhile" live>
            Nothing was made yet. This card lies on the next free place now: look where that is, then make it.
          </Notice>
        ) : (
          <ProblemNotice problem={action.problem} />
        )}
        <Button look="main" busy={action.busy} disabled={!ready} onClick={make}>
          {action.busy ? 'Making the card …' : 'Make this card'}
        </Button>
      </TicketPart>
      {cell && (
        <TicketPart title={`Cell ${cell.index + 1}: ${levelWords(cell.levels, machine.likedUnits).join(', ')}`}>
          <Figures rows={cellFigures(cell, view, layout.order, estimate.cellsS[cell.index]!)} />
        </TicketPart>
      )}
      {GROUPS.map(([group, title]) => {
        const own = fields.filter((field) => field.group === group);
        if (own.length === 0) return null;
        return (
          <TicketPart key={group} title={title}>
            <PlanFields
              fields={own}
              plan={plan}
              onPlan={(next, path) => setPlan(kind.follow?.(next, path, plan, pairing) ?? next)}
              kinds={kinds}
              errors={errors}
              reasons={reasons}
            />
          </TicketPart>
        );
      })}
      <TicketPart title="Where it lies">
        <QuantityField
          label={stock.blanks ? `Blank, 1 to ${stock.blanks.count}` : 'Sheet'}
          kind={COUNT}
          value={drawn.piece}
          onChange={(value) =>
            value !== null &&
            Number.isInteger(value) &&
            value >= 1 &&
            value <= piecesOf(stock) &&
            state.setWantedPiece(value)
          }
        />
        <QuantityField
          label="From the sheet’s left"
          kind={kinds.length}
          value={drawn.place?.xMm ?? null}
          onChange={(value) => value !== null && state.setWantedPlace({ xMm: value, yMm: drawn.place?.yMm ?? 0 })}
        />
        <QuantityField
          label="From the sheet’s rear"
          kind={kinds.length}
          value={drawn.place?.yMm ?? null}
          onChange={(value) => value !== null && state.setWantedPlace({ xMm: drawn.place?.xMm ?? 0, yMm: value })}
        />
        <QuantityField
          label="Sheet from the bed’s left"
          kind={kinds.length}
          value={state.sheetOnBed.leftMm}
          onChange={(value) => value !== null && state.setSheetOnBed({ ...state.sheetOnBed, leftMm: value })}
        />
        <QuantityField
          label="Sheet from the bed’s rear"
          kind={kinds.length}
          value={state.sheetOnBed.rearMm}
          onChange={(value) => value !== null && state.setSheetOnBed({ ...state.sheetOnBed, rearMm: value })}
        />
        {state.wantedPlace && <Button onClick={() => state.setWantedPlace(null)}>Back to the first free place</Button>}
      </TicketPart>
      <TicketPart title="Why this card">
        <ul className={styles.why}>
          {[...why, ...(reasons['size'] ? [['size', reasons['size']] as const] : [])].map(([path, reason]) => (
            <li key={path}>{`${path.replace('.', ' ')}: ${reason}`}</li>
          ))}
        </ul>
        <Button onClick={() => setPlan(view.proposal.plan)}>Back to the proposal</Button>
      </TicketPart>
      <FavouritesPart view={view} plan={plan} onPlan={setPlan} />
    </>
  );

  return (
    <BenchFrame
      title={<PairingTitle pairing={pairing} href={`/bench/${pairing.id}`} />}
      ladder={<Ladder rungs={view.ladder} />}
      mat={
        <PlanMat
          pairing={pairing}
          edges={kind.edges(plan)}
          usedAreas={drawn.onPiece}
          plan={plan}
          onPlan={setPlan}
          drawn={drawn}
          errors={errors}
          kinds={kinds}
          onPlace={state.setWantedPlace}
          selected={selected}
          onSelect={setSelected}
          describe={describe}
        />
      }
      ticket={ticket}
    />
  );
}

/** What one cell takes, with the words that tell it from the others. */
function cellFigures(cell: Cell, { pairing }: PlanView, order: readonly number[], burnS: number) {
  const { shape, settings } = mainBurn(cell);
  const { watts, lineJPerMm, arealJPerMm2 } = deliveredBy(settings, pairing);
  const turn = order.indexOf(cell.index) + 1;
  return [
    ['Power', `${formatPower(settings.powerFraction)}, ${plainNumber(watts)} W`],
    ...(isArea(shape)
      ? [['Energy per area', formatArealEnergy(arealJPerMm2 * coverageOfBurn(mainBurn(cell)))] as const]
      : []),
    ['Energy per length', `${plainNumber(lineJPerMm)} J/mm`],
    ['Burn time', formatDuration(burnS)],
    ['Turn', turn === 0 ? 'left out' : `${turn} of ${order.length}`],
    ...(cell.expected === null ? [] : [['Expected', FATE_WORDS[cell.expected]] as const]),
  ] as const;
}
