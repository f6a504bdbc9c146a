import { useMemo, useState } from 'react';
import type { BenchView } from '../../../app/views';
import { BenchFrame, Figures, TicketPart } from '../../../components/BenchFrame';
import { Button } from '../../../components/Button';
import { CheckField, SelectField } from '../../../components/Field';
import { Ladder } from '../../../components/Ladder';
import { Notice, ProblemNotice } from '../../../components/Notice';
import { QuantityField } from '../../../components/QuantityField';
import { COUNT, quantityKinds } from '../../../components/quantity-kinds';
import {
  formatArealEnergy,
  formatDuration,
  formatPower,
  formatSpeed,
  plainNumber,
} from '../../../core/quantities/format';
import { send, useAction } from '../../../islands/api';
import { PairingTitle, ladderLinks } from '../../../islands/PairingTitle';
import { FATE_WORDS, PlanMat } from './PlanMat';
import { usePlan } from './usePlan';

/** The planning screen of a power x speed card. */
export default function GridPlanner({ view }: { view: BenchView }) {
  const { pairing, usedAreas } = view;
  const { machine } = pairing;
  const kinds = useMemo(() => quantityKinds(machine.likedUnits, machine.ratedPowerW), [machine]);
  const state = usePlan(view);
  const { plan, setPlan, drawn, errors, valid } = state;
  const [selected, setSelected] = useState<number | null>(null);
  // One key for one plan: a page that the browser brings back must not answer a new plan with the old card.
  const key = useMemo(() => crypto.randomUUID(), [plan, state.wantedPlace, state.sheetOnBed]);
  const action = useAction();
  const { constants } = plan;
  const setConstants = (change: Partial<typeof constants>): void =>
    setPlan({ ...plan, constants: { ...constants, ...change } });
  const { reasons } = view.proposal!;
  if (!drawn) return <Notice look="heat">{Object.values(errors).join(' ')}</Notice>;

  const { layout, estimate } = drawn;
  const burned = layout.cells.filter((cell) => !cell.leftOut);
  const failing = layout.cells.filter((cell) => cell.fate !== 'plain');
  const energies = burned.map((cell) => cell.arealEnergyJPerMm2);
  const cell = selected === null ? undefined : layout.cells[selected];
  const ready = valid && drawn.place !== null && drawn.placeIsFree && drawn.bed?.inside === true && burned.length > 0;

  const make = (): void =>
    action.run(async () => {
      const { id } = await send<{ id: number }>('/api/cards', {
        method: 'POST',
        key,
        json: { pairingId: pairing.id, kind: 'grid', plan, sheetPlace: drawn.place, sheetOnBed: state.sheetOnBed },
      });
      window.location.assign(`/cards/${id}`);
    });

  const ticket = (
    <>
      <TicketPart title="Power × speed card">
        <Figures
          rows={[
            ['Burn time', formatDuration(estimate.totalS)],
            ['Cells', `${burned.length} of ${plan.power.count} × ${plan.speed.count}`],
            [
              'Size',
              `${plainNumber(layout.widthMm)} × ${plainNumber(layout.heightMm)} mm, ${plainNumber((layout.widthMm * layout.heightMm) / 100)} cm²`,
            ],
            [
              'Energy per area',
              `${formatArealEnergy(Math.min(...energies))} to ${formatArealEnergy(Math.max(...energies))}`,
            ],
            [
              'Run-up, fastest row',
              `${plainNumber(Math.max(0, -estimate.reach.left, -estimate.reach.top))} mm each side`,
            ],
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
            No free place of this size is left on the sheet. Make the card smaller, or take a new sheet.
          </Notice>
        )}
        {drawn.place !== null && !drawn.placeIsFree && (
          <Notice look="heat">The card lies on an earlier one or leaves the sheet. Drag it to a free place.</Notice>
        )}
        {drawn.bed && !drawn.bed.inside && (
          <Notice look="heat" title="Head or run-up leaves the bed">
            {Object.entries(drawn.bed.beyondMm)
              .filter(([, mm]) => mm > 0)
              .map(([side, mm]) => `${plainNumber(mm)} mm at the ${side}`)
              .join(', ')}
            . Move the card or the sheet, or slow the fastest row.
          </Notice>
        )}
        {failing.length > 0 && (
          <CheckField
            label={`Leave out ${failing.length} cells bound to fail`}
            checked={plan.leaveOutFailing}
            onChange={(event) => setPlan({ ...plan, leaveOutFailing: event.target.checked })}
          />
        )}
        <ProblemNotice problem={action.problem} />
        <Button look="main" busy={action.busy} disabled={!ready} onClick={make}>
          {action.busy ? 'Making the card …' : 'Make this card'}
        </Button>
      </TicketPart>
      {cell && (
        <TicketPart title={`Cell ${cell.index + 1}`}>
          <Figures
            rows={[
              ['Power', `${formatPower(cell.settings.powerFraction)}, ${plainNumber(cell.deliveredW)} W`],
              ['Speed', formatSpeed(cell.settings.speedMmPerS, machine.likedUnits)],
              ['Energy per area', formatArealEnergy(cell.arealEnergyJPerMm2)],
              ['Energy per length', `${plainNumber(cell.lineEnergyJPerMm)} J/mm`],
              ['Burn time', formatDuration(estimate.cellsS[cell.index]!)],
              ['Turn', cell.leftOut ? 'left out' : `${layout.order.indexOf(cell.index) + 1} of ${layout.order.length}`],
              ...(cell.fate === 'plain' ? [] : [['Expected', FATE_WORDS[cell.fate]] as const]),
            ]}
          />
        </TicketPart>
      )}
      <TicketPart title="The same in every cell">
        <QuantityField
          label="Cell size"
          kind={kinds.length}
          value={plan.cellMm}
          onChange={(value) => setPlan({ ...plan, cellMm: value ?? NaN })}
          error={errors['cellMm']}
        />
        <QuantityField
          label="Gap"
          kind={kinds.length}
          value={plan.gapMm}
          onChange={(value) => setPlan({ ...plan, gapMm: value ?? NaN })}
          error={errors['gapMm']}
        />
        <QuantityField
          label="Line interval"
          kind={kinds.interval}
          value={constants.intervalMm}
          onChange={(value) => setConstants({ intervalMm: value ?? NaN })}
          error={errors['constants.intervalMm']}
          hint={reasons['constants.intervalMm']}
        />
        <QuantityField
          label="Passes"
          kind={COUNT}
          value={constants.passes}
          onChange={(value) => setConstants({ passes: value ?? NaN })}
          error={errors['constants.passes']}
        />
        <QuantityField
          label="Focus offset"
          kind={kinds.length}
          value={constants.focusOffsetMm}
          onChange={(value) => setConstants({ focusOffsetMm: value ?? NaN })}
          error={errors['constants.focusOffsetMm']}
        />
        <SelectField
          label="Air"
          value={constants.air}
          error={errors['constants.air']}
          hint={reasons['constants.air']}
          onChange={(event) => setConstants({ air: event.target.value as typeof constants.air })}
        >
          <option value="off">off</option>
          <option value="low">low</option>
          <option value="on">on</option>
        </SelectField>
        <SelectField
          label="Lines run"
          value={constants.direction}
          hint={reasons['constants.direction']}
          onChange={(event) => setConstants({ direction: event.target.value as typeof constants.direction })}
        >
          <option value="horizontal">left and right</option>
          <option value="vertical">to and fro</option>
        </SelectField>
        <CheckField
          label="Burn on the way back too"
          hint="halves the time of a fill"
          checked={constants.bothWays}
          onChange={(event) => setConstants({ bothWays: event.target.checked })}
        />
      </TicketPart>
      <TicketPart title="Where it lies">
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
      <TicketPart title="Markers and lettering">
        <QuantityField
          label="Marker power"
          kind={kinds.power}
          value={plan.markerSettings.powerFraction}
          onChange={(value) =>
            setPlan({ ...plan, markerSettings: { ...plan.markerSettings, powerFraction: value ?? NaN } })
          }
          error={errors['markerSettings.powerFraction']}
          hint={reasons['markerSettings']}
        />
        <QuantityField
          label="Marker speed"
          kind={kinds.speed}
          value={plan.markerSettings.speedMmPerS}
          onChange={(value) =>
            setPlan({ ...plan, markerSettings: { ...plan.markerSettings, speedMmPerS: value ?? NaN } })
          }
          error={errors['markerSettings.speedMmPerS']}
        />
        <QuantityField
          label="Lettering power"
          kind={kinds.power}
          value={plan.letteringSettings.powerFraction}
          onChange={(value) =>
            setPlan({ ...plan, letteringSettings: { ...plan.letteringSettings, powerFraction: value ?? NaN } })
          }
          error={errors['letteringSettings.powerFraction']}
          hint={reasons['letteringSettings']}
        />
        <QuantityField
          label="Lettering speed"
          kind={kinds.speed}
          value={plan.letteringSettings.speedMmPerS}
          onChange={(value) =>
            setPlan({ ...plan, letteringSettings: { ...plan.letteringSettings, speedMmPerS: value ?? NaN } })
          }
          error={errors['letteringSettings.speedMmPerS']}
        />
      </TicketPart>
      <TicketPart title="Why these ends">
        <ul>
          {(['power.from', 'power.to', 'speed.from', 'speed.to', 'size'] as const).map(
            (field) => reasons[field] && <li key={field}>{`${field.replace('.', ' ')}: ${reasons[field]}`}</li>,
          )}
        </ul>
        <Button onClick={() => setPlan(view.proposal!.plan)}>Back to the proposal</Button>
      </TicketPart>
    </>
  );

  return (
    <BenchFrame
      title={<PairingTitle pairing={pairing} />}
      ladder={<Ladder rungs={view.ladder} links={ladderLinks(view)} />}
      mat={
        <PlanMat
          pairing={pairing}
          usedAreas={usedAreas}
          plan={plan}
          onPlan={setPlan}
          drawn={drawn}
          errors={errors}
          kinds={kinds}
          onPlace={state.setWantedPlace}
          selected={selected}
          onSelect={setSelected}
        />
      }
      ticket={ticket}
    />
  );
}
