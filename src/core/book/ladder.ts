import type { Pairing } from '../card/contract';
import { assessPairing } from '../stock/assess';
import { thicknessOf } from '../stock/stock';
import { formatDuration, formatPower, formatSpeed, plainNumber, type LikedUnits } from '../quantities/format';
import { stalenessReasons } from './staleness';

export type RungState = 'empty' | 'predicted' | 'measured' | 'stale' | 'stopped';

/** One rung of a pairing's ladder, as the drawing shows it. */
export interface LadderRung {
  readonly rung: 'stock' | 'safety' | 'range' | 'grid' | 'book';
  readonly name: string;
  readonly question: string;
  readonly state: RungState;
  /** The number that stands on it. */
  readonly value: string;
  /** Why it is stale or stopped; empty otherwise. */
  readonly reason: string;
}

export interface LadderFacts {
  readonly pairing: Pairing;
  readonly likedUnits: LikedUnits;
  /** What the range would be, from the proposal; null when the pairing is stopped. */
  readonly range: {
    readonly powerFrom: number;
    readonly powerTo: number;
    readonly speedFrom: number;
    readonly speedTo: number;
  } | null;
  /** The newest card that was read. */
  readonly readCard: { readonly code: string; readonly cells: number; readonly madeFor: Pairing } | null;
  /** The newest kept version. */
  readonly kept: {
    readonly version: number;
    readonly powerFraction: number;
    readonly speedMmPerS: number;
    readonly madeFor: Pairing;
  } | null;
}

/** The rungs from the ground up: the common step (stock, safety), then the engraving side. */
export function ladderOf({ pairing, likedUnits, range, readCard, kept }: LadderFacts): LadderRung[] {
  const { machine, stock } = pairing;
  const remarks = assessPairing(machine, stock);
  const stop = remarks.find((remark) => remark.severity === 'stop');
  const thickness = thicknessOf(stock);
  const gridStale = readCard ? stalenessReasons(readCard.madeFor, pairing) : [];
  const keptStale = kept ? stalenessReasons(kept.madeFor, pairing) : [];
  const warnings = remarks.filter((remark) => remark.severity === 'warning').length;
  return [
    {
      rung: 'stock',
      name: 'Stock',
      question: 'What is it, and how thick really?',
      state: thickness.origin === 'measured' ? 'measured' : 'predicted',
      value:
        thickness.origin === 'measured'
          ? `${plainNumber(thickness.meanMm)} mm${thickness.spreadMm === null ? '' : ` ± ${plainNumber(thickness.spreadMm, 2)}`}`
          : `${plainNumber(thickness.meanMm)} mm by label`,
      reason: '',
    },
    {
      rung: 'safety',
      name: 'Safety',
      question: 'May it be burned at all?',
      state: stop ? 'stopped' : 'measured',
      value: stop ? 'not to be burned' : warnings > 0 ? `may burn, ${warnings} to mind` : 'may burn',
      reason: stop?.text ?? '',
    },
    {
      rung: 'range',
      name: 'Range',
      question: 'What can this machine plausibly do here?',
      state: range ? 'predicted' : 'empty',
      value: range
        ? `${formatPower(range.powerFrom)}–${formatPower(range.powerTo)}, ${formatSpeed(range.speedFrom, likedUnits)}–${formatSpeed(range.speedTo, likedUnits)}`
        : '',
      reason: '',
    },
    {
      rung: 'grid',
      name: 'Grid',
      question: 'Which power and speed engrave it well?',
      state: !readCard ? 'empty' : gridStale.length > 0 ? 'stale' : 'measured',
      value: readCard ? `${readCard.cells} cells, ${readCard.code}` : '',
      reason: gridStale.join(', '),
    },
    {
      rung: 'book',
      name: 'Book',
      question: 'Which setting is used from now on?',
      state: !kept ? 'empty' : keptStale.length > 0 ? 'stale' : 'measured',
      value: kept
        ? `v${kept.version}: ${formatPower(kept.powerFraction)}, ${formatSpeed(kept.speedMmPerS, likedUnits)}`
        : '',
      reason: keptStale.join(', '),
    },
  ];
}

/** What to do next on a pairing, with its cost. */
export interface NextStep {
  readonly action: 'stop' | 'plan' | 'read' | 'pick' | 'rest';
  readonly text: string;
  readonly cost: string;
}

export function nextStepOf(
  rungs: readonly LadderRung[],
  card: { burnS: number; widthMm: number; heightMm: number } | null,
): NextStep {
  const state = (name: LadderRung['rung']): RungState => rungs.find((rung) => rung.rung === name)!.state;
  const cost = card
    ? `${formatDuration(card.burnS)}, ${plainNumber(card.widthMm)} × ${plainNumber(card.heightMm)} mm`
    : '';
  if (state('safety') === 'stopped') return { action: 'stop', text: 'Not to be burned', cost: '' };
  if (state('grid') === 'empty' || state('grid') === 'stale')
    return { action: 'plan', text: 'Power × speed card', cost };
  if (state('book') === 'empty' || state('book') === 'stale')
    return { action: 'pick', text: 'Pick a cell of the grid and keep it', cost: 'nothing to burn' };
  return { action: 'rest', text: 'Engraving is settled', cost: `another grid would take ${cost}` };
}
