import type { Machine } from '../machine/machine';
import type { Point, Rect } from '../geometry/point';
import type { Pairing } from './contract';
import { LAYOUT_VERSION, type Cell, type Fate, type Layout, type Lettering, type MarkerPlace } from './layout';
import { boxOfShape, rectRing } from './shape';
import { upgradeSettings, type Air, type BurnSettings } from './settings';

/** A cell as the first version of layouts held it. */
interface FirstCell extends Rect {
  readonly index: number;
  readonly settings: Omit<BurnSettings, 'runUpMm' | 'scanOffsetMm'>;
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
      settings: { marker: first.markerSettings, lettering: first.letteringSettings },
      air: first.constants.air,
    },
    inner: boxOfShape({ do: 'follow', lines: first.cells.map(rectRing) }),
    before: [],
    after: [],
    cells: first.cells.map(upgradeCell),
    order: first.order,
  };
}

/** Machine, lens and stock as they were stored with a card or fact, any of them; words that machines gained since have their careful value. */
export function upgradePairing<Stored extends Partial<Pairing>>(stored: Stored): Stored {
  if (!stored.machine) return stored;
  const careful: Pick<Machine, 'rampPower' | 'addsRunUp'> = { rampPower: 'constant', addsRunUp: false };
  return { ...stored, machine: { ...careful, ...stored.machine } };
}
