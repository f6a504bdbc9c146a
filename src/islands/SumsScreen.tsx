import { useEffect, useMemo, useState } from 'react';
import { Figures, TicketPart } from '../components/BenchFrame';
import { SelectField } from '../components/Field';
import { Notice } from '../components/Notice';
import { QuantityField } from '../components/QuantityField';
import { COUNT, quantityKinds } from '../components/quantity-kinds';
import {
  chancesAt,
  clearanceFor,
  FITS,
  keptBounds,
  WANTED_FITS,
  type Fit,
  type WantedFit,
} from '../core/fit/fit-bounds';
import { jointBySchool, looksLikeLabel, slotForSheet, type School } from '../core/joint/clearance';
import { speedForEqualEnergy } from '../core/quantities/equal-energy';
import { DEFAULT_LIKED_UNITS, formatLength, formatSpeed } from '../core/quantities/format';
import type { Kerfs, KeptFits } from '../views/views';
import { addressOf, sumsOf, USUAL_SUMS, type Sums } from './sums/address';
import page from '../components/Page.module.css';
import styles from './SumsScreen.module.css';

const liked = DEFAULT_LIKED_UNITS;
const KINDS = quantityKinds(liked);
const mm = (value: number): string => formatLength(Math.round(value * 1e4) / 1e4, liked, 5);
const plusMinus = (sigmaMm: number | null): string =>
  sigmaMm === null ? '' : ` ± ${formatLength(2 * sigmaMm, liked, 2)}`;

const staleWords = (stale: readonly string[]): string => (stale.length === 0 ? '' : ` (stale: ${stale.join(', ')})`);

const SCHOOLS: Readonly<Record<School, string>> = {
  both: 'Both true to size',
  part: 'The part takes it all',
  hole: 'The hole takes it all',
  'part-alone': 'The part for its own cut alone',
  nobody: 'Nobody',
};

/** What a sum says, or why there is none. */
function told<Told>(sum: () => Told): { readonly told: Told | null; readonly why: string } {
  try {
    return { told: sum(), why: '' };
  } catch (error) {
    if (error instanceof RangeError) return { told: null, why: error.message };
    throw error;
  }
}

/** Sums that stand alone: joints and slots by their kerf, and equal energy. Nothing must be recorded for them; a kept kerf can be taken. */
export function SumsScreen({ kerfs, fits }: { kerfs: Kerfs; fits: KeptFits }) {
  const [sums, setSums] = useState<Sums>(USUAL_SUMS);
  useEffect(() => setSums(sumsOf(window.location.search)), []);
  const set = (change: Partial<Sums>): void => {
    const next = { ...sums, ...change };
    setSums(next);
    // What is on the page can be shared by its address.
    window.history.replaceState(null, '', addressOf(next));
  };
  const length = (label: string, name: keyof Sums, hint?: string) => (
    <QuantityField
      label={label}
      kind={KINDS.length}
      value={sums[name]}
      onChange={(value) => set({ [name]: value })}
      hint={hint}
    />
  );
  const { kerf, kerfSigma, clearance } = sums;
  return (
    <div className={page.page}>
      <h1>Sums</h1>
      <p className={page.lead}>
        Joints, slots and equal energy, typed in any unit: 3 mm, 1/8 in, 500 mm/min. Nothing must be recorded for them,
        and this page’s address holds what you typed.
      </p>
      <div className={styles.sums}>
        <div className={styles.column}>
          <section className={page.group} aria-label="The cut">
            <h2>The cut</h2>
            {kerfs.length > 0 && (
              <SelectField
                label="Kerf from the book"
                value=""
                onChange={(event) => {
                  const kept = kerfs.find(({ factId, axis }) => `${factId} ${axis}` === event.target.value);
                  if (kept) set({ kerf: Math.round(kept.kerfMm * 1e4) / 1e4, kerfSigma: kept.sigmaMm });
                }}
              >
                <option value="">choose one, or type it below</option>
                {kerfs.map(({ factId, axis, stock, machine, kerfMm, sigmaMm, stale }) => (
                  <option key={`${factId} ${axis}`} value={`${factId} ${axis}`}>
                    {stock}, {machine}, along {axis}: {formatLength(kerfMm, liked, 3)}
                    {plusMinus(sigmaMm)}
                    {staleWords(stale)}
                  </option>
                ))}
              </SelectField>
            )}
            <QuantityField
              label="Kerf, full width"
              kind={KINDS.length}
              value={kerf}
              onChange={(value) => set({ kerf: value, kerfSigma: null })}
              hint={
                kerf === null
                  ? undefined
                  : `${mm(kerf / 2)} per side${kerfSigma === null ? '; how sure nobody said' : `, full width${plusMinus(kerfSigma)}`}`
              }
            />
            {length('Clearance wanted', 'clearance', '0 is flush, minus is pressed in')}
          </section>
          <EnergyPart sums={sums} onSet={set} />
        </div>
        <div className={styles.column}>
          <JointPart sums={sums} length={length} onSet={set} />
          <SlotPart sums={sums} length={length} fits={fits} onSet={set} />
        </div>
      </div>
      {clearance === null || kerf === null ? (
        <Notice look="straw">Type kerf and clearance for joints and slots.</Notice>
      ) : null}
    </div>
  );
}

interface PartProps {
  readonly sums: Sums;
  readonly length: (label: string, name: keyof Sums, hint?: string) => React.ReactNode;
}

/** A hole and the part that goes into it. */
function JointPart({ sums, length, onSet }: PartProps & { onSet: (change: Partial<Sums>) => void }) {
  const { size, clearance, kerf, kerfSigma, partKerf } = sums;
  const ready = size !== null && clearance !== null && kerf !== null;
  const { told: schools, why } = useMemo(
    () =>
      told(() =>
        ready
          ? jointBySchool({
              sizeMm: size,
              clearanceMm: clearance,
              holeKerfMm: kerf,
              partKerfMm: partKerf ?? kerf,
              kerfSigmaMm: kerfSigma,
            })
          : null,
      ),
    [ready, size, clearance, kerf, kerfSigma, partKerf],
  );
  return (
    <section className={page.group} aria-label="Part and hole">
      <h2>Part and hole, both cut</h2>
      {length('The part shall measure', 'size')}
      <QuantityField
        label="Kerf of the part’s stock, where another"
        kind={KINDS.length}
        optional
        value={partKerf}
        onChange={(value) => onSet({ partKerf: value })}
      />
      {why !== '' && <Notice look="heat">{why}</Notice>}
      {schools && (
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">Compensated</th>
              <th scope="col">Draw the hole</th>
              <th scope="col">Draw the part</th>
              <th scope="col">Between them</th>
            </tr>
          </thead>
          <tbody>
            {schools.map(({ school, holeMm, partMm, clearanceMm, sigmaMm }) => (
              <tr
                key={school}
                data-school={school}
                className={Math.abs(clearanceMm - clearance!) < 1e-9 ? undefined : styles.off}
              >
                <th scope="row">{SCHOOLS[school]}</th>
                <td>{mm(holeMm)}</td>
                <td>{mm(partMm)}</td>
                <td>
                  {mm(clearanceMm)}
                  {plusMinus(sigmaMm)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

interface SlotProps extends PartProps {
  readonly fits: KeptFits;
  readonly onSet: (change: Partial<Sums>) => void;
}

/** A slot for a sheet on edge: by a fit that was felt and kept, or by kerf and clearance. */
function SlotPart({ sums, length, fits, onSet }: SlotProps) {
  const { thickness } = sums;
  const kept = fits.find(({ factId }) => factId === sums.fit);
  return (
    <section className={page.group} aria-label="Slot for a sheet">
      <h2>Slot for a sheet</h2>
      {length('Thickness of the sheet, as measured', 'thickness')}
      {thickness !== null && looksLikeLabel(thickness) && (
        <Notice look="straw">
          {mm(thickness)} is what labels say. Sheets are mostly thinner: measure it in several places.
        </Notice>
      )}
      {fits.length > 0 && (
        <SelectField
          label="Drawn by"
          value={String(kept?.factId ?? '')}
          onChange={(event) => onSet({ fit: event.target.value === '' ? null : Number(event.target.value) })}
        >
          <option value="">kerf and clearance</option>
          {fits.map(({ factId, stock, machine, stale }) => (
            <option key={factId} value={String(factId)}>
              slots that were tried: {stock}, {machine}
              {staleWords(stale)}
            </option>
          ))}
        </SelectField>
      )}
      {kept && kept.stale.length > 0 && (
        <Notice look="straw">These slots may hold no longer: {kept.stale.join(', ')}. Try a new comb.</Notice>
      )}
      {kept ? <SlotByFit kept={kept.value} sums={sums} onSet={onSet} /> : <SlotByKerf sums={sums} />}
    </section>
  );
}

const WANTED: Readonly<Record<WantedFit, string>> = {
  press: 'pressed in',
  snug: 'snug by hand',
  slip: 'slipping in, no play',
};
const FIT_WORDS: Readonly<Record<Fit, string>> = { ...WANTED, no: 'not going in', loose: 'loose' };

/** How wide a slot is drawn for a fit, by slots that were tried, and what comes out of a hundred. */
function SlotByFit({ kept, sums, onSet }: { kept: KeptFits[number]['value'] } & Pick<SlotProps, 'sums' | 'onSet'>) {
  const { thickness } = sums;
  const wanted = WANTED_FITS[sums.wanted ?? 1] ?? 'snug';
  const bounds = keptBounds(kept);
  const { clearanceMm } = clearanceFor(bounds, wanted);
  const chances = chancesAt(bounds, clearanceMm);
  const drawnMm = (thickness ?? NaN) + clearanceMm;
  return (
    <>
      <SelectField
        label="The sheet shall be"
        value={wanted}
        onChange={(event) => onSet({ wanted: WANTED_FITS.indexOf(event.target.value as WantedFit) })}
      >
        {WANTED_FITS.map((fit) => (
          <option key={fit} value={fit}>
            {WANTED[fit]}
          </option>
        ))}
      </SelectField>
      {drawnMm > 0 && (
        <Figures
          rows={[
            ['Draw the slot', mm(Math.round(drawnMm * 100) / 100)],
            ['Tabs as high as', mm(thickness!)],
            ...FITS.flatMap((fit): [string, string][] => {
              const share = Math.round(100 * chances[fit]);
              return share < 1 ? [] : [[`Of 100, ${FIT_WORDS[fit]}`, String(share)]];
            }),
          ]}
        />
      )}
      <p>Of sheets that are as thick as typed everywhere; one that varies is less sure.</p>
      {thickness !== null && drawnMm <= 0 && (
        <Notice look="heat">One cut alone is wider than this slot: it cannot be drawn.</Notice>
      )}
      {thickness !== null && Math.abs(thickness / kept.thicknessMm - 1) > OTHER_SHEET && (
        <Notice look="straw">
          The slots were tried with a sheet of {mm(Math.round(kept.thicknessMm * 1000) / 1000)}: of another thickness
          both the cut and the feel may differ.
        </Notice>
      )}
    </>
  );
}

/** A sheet that differs by more than this from the one that was tried is another. */
const OTHER_SHEET = 0.1;

function SlotByKerf({ sums }: { sums: Sums }) {
  const { thickness, clearance, kerf, kerfSigma } = sums;
  const ready = thickness !== null && clearance !== null && kerf !== null;
  const { told: slot, why } = told(() =>
    ready
      ? slotForSheet({
          thicknessMm: thickness,
          thicknessSigmaMm: null,
          clearanceMm: clearance,
          kerfMm: kerf,
          kerfSigmaMm: kerfSigma,
        })
      : null,
  );
  return (
    <>
      {why !== '' && <Notice look="heat">{why}</Notice>}
      {slot && ready && (
        <>
          <Figures
            rows={[
              ['Draw the slot', mm(slot.drawnMm)],
              ['Tabs as high as', mm(thickness)],
              ['Drawn as thick as the sheet, it would be', `${mm(kerf)} looser`],
            ]}
          />
          {slot.drawnMm < 60 && <SlotDrawing drawnMm={slot.drawnMm} kerfMm={kerf} />}
        </>
      )}
    </>
  );
}

/** A slot as it is drawn, and as it is once it was cut, at its true size. */
function SlotDrawing({ drawnMm, kerfMm }: { drawnMm: number; kerfMm: number }) {
  const [width, height] = [drawnMm + 12, 16];
  const cutMm = drawnMm + kerfMm;
  return (
    <figure className={styles.drawing}>
      <svg
        width={`${width}mm`}
        height={`${height}mm`}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label="The slot at its true size"
      >
        <rect width={width} height={height} className={styles.sheet} />
        <rect x={6 - kerfMm / 2} y={0} width={cutMm} height={11 + kerfMm / 2} className={styles.gone} />
        <path d={`M6 0V11H${6 + drawnMm}V0`} className={styles.line} />
      </svg>
      <figcaption>At its true size: the dashed line is drawn, the dark is gone once it is cut.</figcaption>
    </figure>
  );
}

/** Another power, other passes or lines, at the same energy. */
function EnergyPart({ sums, onSet }: { sums: Sums; onSet: (change: Partial<Sums>) => void }) {
  const { power, speed, passes, interval, newPower, newPasses, newInterval } = sums;
  const ready = power !== null && speed !== null && passes !== null && newPower !== null && newPasses !== null;
  const { told: newSpeed, why } = told(() =>
    ready
      ? speedForEqualEnergy(
          { powerFraction: power, speedMmPerS: speed, passes, intervalMm: interval },
          {
            powerFraction: newPower,
            passes: newPasses,
            intervalMm: interval === null ? null : (newInterval ?? interval),
          },
        )
      : null,
  );
  const field = (label: string, name: keyof Sums, kind: typeof KINDS.power, optional = false) => (
    <QuantityField
      label={label}
      kind={kind}
      optional={optional}
      value={sums[name]}
      onChange={(value) => onSet({ [name]: value })}
    />
  );
  return (
    <section className={page.group} aria-label="Equal energy">
      <h2>Equal energy</h2>
      <div className={styles.pair}>
        <div>
          {field('Power that works', 'power', KINDS.power)}
          {field('Speed', 'speed', KINDS.speed)}
          {field('Passes', 'passes', COUNT)}
          {field('Line interval, for fills', 'interval', KINDS.interval, true)}
        </div>
        <div>
          {field('Power now', 'newPower', KINDS.power)}
          {field('Passes now', 'newPasses', COUNT)}
          {interval !== null && field('Line interval now', 'newInterval', KINDS.interval, true)}
        </div>
      </div>
      {why !== '' && <Notice look="heat">{why}</Notice>}
      {newSpeed !== null && (
        <TicketPart>
          <Figures
            rows={[
              ['Speed now', `${formatSpeed(newSpeed, liked)}, ${formatSpeed(newSpeed, { ...liked, speed: 'mm/min' })}`],
            ]}
          />
          <Notice look="straw">
            A first guess: equal energy cuts and engraves about alike, but no setting carries over surely. Burn a small
            card.
          </Notice>
        </TicketPart>
      )}
    </section>
  );
}
