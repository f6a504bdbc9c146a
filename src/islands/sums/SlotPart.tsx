import { Figures } from '../../components/BenchFrame';
import { SelectField } from '../../components/Field';
import { Notice } from '../../components/Notice';
import { QuantityField } from '../../components/QuantityField';
import page from '../../components/Page.module.css';
import {
  chancesAt,
  clearanceFor,
  FIT_WORDS,
  FITS,
  keptBounds,
  WANTED_FITS,
  type WantedFit,
} from '../../core/fit/fit-bounds';
import { looksLikeLabel, slotForSheet } from '../../core/joint/clearance';
import type { KeptFits } from '../../views/views';
import styles from '../SumsScreen.module.css';
import { Chances, keptOf } from './Chances';
import { drawnWords, staleWords, told, type SumsPartProps } from './sums-parts';

/** A sheet is within what was typed in 95 of 100 places. */
const sigmaOfSheet = (spread: number | null): number => (spread ?? 0) / 2;

/** A slot for a sheet on edge: by a fit that was felt and kept, or by kerf and clearance. */
export function SlotPart(props: SumsPartProps) {
  const { sums, length, fits, onSet, kinds, liked } = props;
  const { thickness } = sums;
  const kept = keptOf(props);
  return (
    <section className={page.group} aria-label="Slot for a sheet">
      <h2>Slot for a sheet</h2>
      {length('Thickness of the sheet, as measured', 'thickness')}
      {thickness !== null && looksLikeLabel(thickness) && (
        <Notice look="straw">
          {drawnWords(thickness, liked)} is what labels say. Sheets are mostly thinner: measure it in several places.
        </Notice>
      )}
      <QuantityField
        label="It varies by ±"
        kind={kinds.length}
        optional
        value={sums.spread}
        onChange={(value) => onSet({ spread: value })}
        hint="from place to place, and sheet to sheet; empty where it does not"
      />
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
      {kept ? <SlotByFit {...props} kept={kept.value} /> : <SlotByKerf {...props} />}
    </section>
  );
}

const WANTED: Readonly<Record<WantedFit, string>> = {
  press: 'pressed in',
  snug: 'snug by hand',
  slip: 'slipping in, no play',
};

/** How wide a slot is drawn for a fit, by slots that were tried, and what comes out of a hundred. */
function SlotByFit({ kept, sums, onSet, liked }: { kept: KeptFits[number]['value'] } & SumsPartProps) {
  const { thickness } = sums;
  const mm = (value: number): string => drawnWords(value, liked);
  const wanted = WANTED_FITS[sums.wanted ?? 1] ?? 'snug';
  const bounds = keptBounds(kept);
  const sigma = sigmaOfSheet(sums.spread);
  const { clearanceMm } = clearanceFor(bounds, wanted, sigma);
  const chances = chancesAt(bounds, clearanceMm, sigma);
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
      {sums.spread === null && <p>Of sheets that are as thick as typed everywhere; one that varies is less sure.</p>}
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

function SlotByKerf({ sums, fits, liked }: SumsPartProps) {
  const { thickness, clearance, kerf, kerfSigma } = sums;
  const ready = thickness !== null && clearance !== null && kerf !== null;
  const thicknessSigmaMm = sigmaOfSheet(sums.spread);
  const { told: slot, why } = told(() =>
    ready
      ? slotForSheet({
          thicknessMm: thickness,
          thicknessSigmaMm,
          clearanceMm: clearance,
          kerfMm: kerf,
          kerfSigmaMm: kerfSigma ?? 0,
        })
      : null,
  );
  const mm = (value: number): string => drawnWords(value, liked);
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
          <Chances fits={fits} sums={sums} clearanceMm={clearance} sigmaMm={slot.sigmaMm ?? 0} />
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
