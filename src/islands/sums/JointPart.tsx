import { Figures } from '../../components/BenchFrame';
import { SelectField } from '../../components/Field';
import { Notice } from '../../components/Notice';
import { QuantityField } from '../../components/QuantityField';
import page from '../../components/Page.module.css';
import { clearanceFor, FIT_WORDS, WANTED_FITS } from '../../core/fit/fit-bounds';
import { jointBySchool, type School } from '../../core/joint/clearance';
import styles from '../SumsScreen.module.css';
import { Chances, trueBounds } from './Chances';
import { drawnWords, plusMinus, staleWords, told, type SumsPartProps } from './sums-parts';

const SCHOOLS: Readonly<Record<School, string>> = {
  both: 'Both true to size',
  part: 'The part takes it all',
  hole: 'The hole takes it all',
  'part-alone': 'The part for its own cut alone',
  nobody: 'Nobody',
};

/** A hole and the part that goes into it. */
export function JointPart({ sums, length, onSet, kinds, liked, fits, joints }: SumsPartProps) {
  const joint = joints.find(({ factId }) => factId === sums.joint);
  const { size, clearance, kerf, kerfSigma, partKerf } = sums;
  const { told: schools, why } = told(() =>
    size !== null && clearance !== null && kerf !== null
      ? jointBySchool({
          sizeMm: size,
          clearanceMm: clearance,
          holeKerfMm: kerf,
          partKerfMm: partKerf ?? kerf,
          kerfSigmaMm: kerfSigma,
        })
      : null,
  );
  const mm = (value: number): string => drawnWords(value, liked);
  return (
    <section className={page.group} aria-label="Part and hole">
      <h2>Part and hole, both cut</h2>
      {length('The part shall measure', 'size')}
      <QuantityField
        label="Kerf of the part’s stock, where another"
        kind={kinds.length}
        optional
        value={partKerf}
        onChange={(value) => onSet({ partKerf: value })}
        hint="an inlay: its own kerf counts on its own side"
      />
      {joints.length > 0 && (
        <SelectField
          label="Chances by"
          value={String(joint?.factId ?? '')}
          onChange={(event) => onSet({ joint: event.target.value === '' ? null : Number(event.target.value) })}
        >
          <option value="">{fits.length > 0 ? 'the slots above, or what is usual' : 'what is usual'}</option>
          {joints.map(({ factId, stock, machine, stale }) => (
            <option key={factId} value={String(factId)}>
              holes and parts that were tried: {stock}, {machine}
              {staleWords(stale)}
            </option>
          ))}
        </SelectField>
      )}
      {joint && (
        <Figures
          rows={WANTED_FITS.map((fit) => [
            `For ${FIT_WORDS[fit]}`,
            `clearance ${mm(Math.round(clearanceFor(trueBounds(joint.value), fit).clearanceMm * 1e3) / 1e3)}`,
          ])}
        />
      )}
      {why !== '' && <Notice look="heat">{why}</Notice>}
      {schools && (
        <>
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
                    {plusMinus(sigmaMm, liked)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Chances fits={fits} sums={sums} joint={joint} clearanceMm={clearance!} sigmaMm={2 * (kerfSigma ?? 0)} />
        </>
      )}
    </section>
  );
}
