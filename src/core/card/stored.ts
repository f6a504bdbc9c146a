import { RECTANGLE } from '../stock/outline';
import { USUAL_GALVO, type Machine } from '../machine/machine';
import type { Point, Rect } from '../geometry/point';
import type { BasePlan, Pairing } from './contract';
import {
  LAYOUT_VERSION,
  type Cell,
  type Fate,
  type FrameSettings,
  type Layout,
  type Lettering,
  type MarkerPlace,
} from './layout';
import { boxOfShape, rectRing, type Burn } from './shape';
import { PLAIN_EXTRAS, upgradeSettings, type Air, type BurnSettings } from './settings';
import { UNSAID_SETUP } from './work-setup';

/** A cell as the first version of layouts held it. */
interface FirstCell extends Rect {
  readonly index: number;
  readonly settings: Omit<BurnSettings, keyof typeof PLAIN_EXTRAS>;
  readonly arealEnergyJPerMm2: number;
  readonly fate: Fate | 'plain';
  readonly leftOut: boolean;
}

interface FirstLayout {
  readonly kind: string;
  readonly cardNumber: number;
  readonly code: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly cells: readonly FirstCell[];
  readonly markers: readonly MarkerPlace[];
  readonly lettering: readonly (Omit<Lettering, 'strokes'> & { readonly strokes: readonly (readonly Point[])[] })[];
  readonly order: readonly number[];
  readonly constants: { readonly air: Air };
  readonly markerSettings: Layout['frame']['settings']['marker'];
  readonly letteringSettings: Layout['frame']['settings']['lettering'];
}

/** A layout of version 3: settings said nothing of how long dots are drawn. */
type ThirdLayout = Omit<Layout, 'version'>;

/** A layout of version 2: settings knew no angle, hatch and pulses, frames were lettered in full, each cell was filled by itself. */
type SecondLayout = Omit<ThirdLayout, 'together' | 'adopted'>;

const upgradeBurn = (burn: Burn): Burn => ({ ...burn, settings: upgradeSettings(burn.settings) });

const upgradeThird = (third: ThirdLayout): Layout => ({
  ...third,
  version: LAYOUT_VERSION,
  before: third.before.map(upgradeBurn),
  after: third.after.map(upgradeBurn),
  cells: third.cells.map(upgradeStoredCell),
});

const upgradeSecond = (second: SecondLayout): Layout =>
  upgradeThird({
    ...second,
    frame: { ...second.frame, settings: upgradeFrame(second.frame.settings) },
    together: [],
    adopted: false,
  });

/** A cell of an older layout, or one that a search added to such. */
export const upgradeStoredCell = <Stored extends Omit<Cell, 'index'>>(cell: Stored): Stored => ({
  ...cell,
  burns: cell.burns.map(upgradeBurn),
});

/** A frame's settings from before there was a choice of how much is lettered, and of cards without markers. */
const upgradeFrame = (stored: Omit<FrameSettings, 'words'>): FrameSettings => ({
  words: 'full',
  markers: 'burned',
  ...stored,
});

/** A plan as it was stored, whose settings, wherever it keeps them, may be from before they said how long dots are drawn. */
export function withDotLength<Plan extends object>(plan: Plan): Plan {
  const isOlder = (value: unknown): value is object =>
    typeof value === 'object' && value !== null && 'scanOffsetMm' in value && !('lengthenMm' in value);
  const entries = Object.entries(plan).map(([key, value]: [string, unknown]) => [
    key,
    isOlder(value) ? { ...value, lengthenMm: PLAIN_EXTRAS.lengthenMm } : value,
  ]);
  return Object.fromEntries(entries) as Plan;
}

/** What every plan has, of a plan from before set-ups were recorded. */
export function upgradeBase<Stored extends { readonly frame: Omit<FrameSettings, 'words'> }>(
  stored: Stored,
): Omit<Stored, 'frame'> & Pick<BasePlan, 'frame' | 'setup'> {
  return { setup: UNSAID_SETUP, ...stored, frame: upgradeFrame(stored.frame) };
}

/** Cells of the first version were filled squares that differed in power and speed alone. */
function upgradeCell(cell: FirstCell): Cell {
  const { x, y, width, height } = cell;
  const box = { x, y, width, height };
  const settings = upgradeSettings(cell.settings);
  return {
    index: cell.index,
    box,
    levels: { power: settings.powerFraction, speed: settings.speedMmPerS },
    burns: [{ shape: { do: 'sweep', area: [rectRing(box)] }, settings }],
    risk: cell.arealEnergyJPerMm2,
    expected: cell.fate === 'plain' ? null : cell.fate,
    leftOut: cell.leftOut,
  };
}

/**
 * A layout as it was stored, brought up to the version in use. Throws RangeError for a version that this program does not know.
 */
export function upgradeLayout(stored: object): Layout {
  const { version } = stored as { version?: number };
  if (version === LAYOUT_VERSION) return stored as Layout;
  if (version === 3) return upgradeThird(stored as ThirdLayout);
  if (version === 2) return upgradeSecond(stored as SecondLayout);
  if (version !== undefined) throw new RangeError(`unknown layout version: ${version}`);
  const first = stored as FirstLayout;
  return {
    version: LAYOUT_VERSION,
    kind: first.kind,
    cardNumber: first.cardNumber,
    code: first.code,
    widthMm: first.widthMm,
    heightMm: first.heightMm,
    frame: {
      markers: first.markers,
      lettering: first.lettering,
      settings: upgradeFrame({ marker: first.markerSettings, lettering: first.letteringSettings }),
      air: first.constants.air,
    },
    inner: boxOfShape({ do: 'follow', lines: first.cells.map(rectRing) }),
    before: [],
    after: [],
    cells: first.cells.map(upgradeCell),
    order: first.order,
    together: [],
    adopted: false,
  };
}

/**
 * Machine, lens and stock as they were stored with a card or fact, any of them; words that machines and lenses gained since have their
 * careful or usual value.
 */
export function upgradePairing<Stored extends Partial<Pairing>>(stored: Stored): Stored {
  const { machine, lens, stock } = stored;
  return {
    ...stored,
    ...(machine && { machine: upgradeMachine(machine) }),
    ...(stock && { stock: { ...stock, outline: stock.outline ?? RECTANGLE, blanks: stock.blanks ?? null } }),
    ...(lens && { lens: { ...lens, fieldMm: lens.fieldMm ?? null } }),
  };
}

function upgradeMachine(machine: Machine): Machine {
  const careful: Pick<Machine, 'rampPower' | 'addsRunUp' | 'zero' | 'xPlus' | 'yPlus' | 'galvo'> = {
    rampPower: 'constant',
    addsRunUp: false,
    zero: 'bed-front-left',
    xPlus: 'right',
    yPlus: 'away',
    galvo: machine.head === 'galvo' ? { ...USUAL_GALVO, jumpSpeedMmPerS: machine.topSpeedXMmPerS } : null,
  };
  return { ...careful, ...machine };
}
