import { useEffect, useState } from 'react';
import { Button } from '../components/Button';
import { SelectField } from '../components/Field';
import { Notice } from '../components/Notice';
import { QuantityField } from '../components/QuantityField';
import { quantityKinds } from '../components/quantity-kinds';
import page from '../components/Page.module.css';
import { DEFAULT_LIKED_UNITS, formatLength, type LikedUnits } from '../core/quantities/format';
import type { Kerfs, KeptFits, KeptJoints } from '../views/views';
import { addressOf, sumsOf, USUAL_SUMS, type Sums } from './sums/address';
import { BoxJointPart } from './sums/BoxJointPart';
import { EnergyPart } from './sums/EnergyPart';
import { JointPart } from './sums/JointPart';
import { SlotPart } from './sums/SlotPart';
import { drawnWords, plusMinus, staleWords, type SumsPartProps } from './sums/sums-parts';
import styles from './SumsScreen.module.css';

const INCHES: LikedUnits = { ...DEFAULT_LIKED_UNITS, length: 'in' };

/** Sums that stand alone: joints and slots by their kerf, and equal energy. Nothing must be recorded for them; a kept kerf can be taken. */
interface Props {
  readonly kerfs: Kerfs;
  readonly fits: KeptFits;
  readonly joints: KeptJoints;
}

export function SumsScreen({ kerfs, fits, joints }: Props) {
  const [sums, setSums] = useState<Sums>(USUAL_SUMS);
  useEffect(() => setSums(sumsOf(window.location.search)), []);
  const set = (change: Partial<Sums>): void => {
    const next = { ...sums, ...change };
    setSums(next);
    // What is on the page can be shared by its address.
    window.history.replaceState(null, '', addressOf(next));
  };
  const liked = sums.inches === 1 ? INCHES : DEFAULT_LIKED_UNITS;
  const kinds = quantityKinds(liked);
  const props: SumsPartProps = {
    sums,
    onSet: set,
    kinds,
    liked,
    fits,
    joints,
    length: (label, name, hint) => (
      <QuantityField
        label={label}
        kind={kinds.length}
        value={sums[name]}
        onChange={(value) => set({ [name]: value })}
        hint={hint}
      />
    ),
  };
  const { kerf, kerfSigma, clearance } = sums;
  return (
    <div className={page.page}>
      <h1>Sums</h1>
      <p className={page.lead}>
        Joints, slots and equal energy, typed in any unit: 3 mm, 1/8 in, 500 mm/min. Nothing must be recorded for them,
        and this page’s address holds what you typed.
      </p>
      <div className={styles.tools}>
        <SelectField
          label="Lengths are shown in"
          value={String(sums.inches ?? 0)}
          onChange={(event) => set({ inches: Number(event.target.value) })}
        >
          <option value="0">millimetres</option>
          <option value="1">inches</option>
        </SelectField>
        <Button onClick={() => window.print()}>Print</Button>
      </div>
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
                    {plusMinus(sigmaMm, liked)}
                    {staleWords(stale)}
                  </option>
                ))}
              </SelectField>
            )}
            <QuantityField
              label="Kerf, full width"
              kind={kinds.length}
              value={kerf}
              onChange={(value) => set({ kerf: value, kerfSigma: null })}
              hint={
                kerf === null
                  ? undefined
                  : `${drawnWords(kerf / 2, liked)} per side${kerfSigma === null ? '; how sure nobody said' : `, full width${plusMinus(kerfSigma, liked)}`}`
              }
            />
            {props.length('Clearance wanted', 'clearance', '0 is flush, minus is pressed in')}
          </section>
          <EnergyPart {...props} />
        </div>
        <div className={styles.column}>
          <JointPart {...props} />
          <SlotPart {...props} />
          <BoxJointPart {...props} />
        </div>
      </div>
      {clearance === null || kerf === null ? (
        <Notice look="straw">Type kerf and clearance for joints and slots.</Notice>
      ) : null}
    </div>
  );
}
