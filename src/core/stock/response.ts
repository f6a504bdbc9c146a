import type { SourceKind } from '../machine/machine';
import { FAMILIES, familyOf, type Basis, type EngravingEnergies, type FamilyId } from './families';
import { SEE_THROUGH } from './see-through';

/** Bands of wavelength that stock tells apart. */
export type Band = 'ultraviolet' | 'blue' | 'near-infrared' | 'far-infrared';

export interface Suitability {
  readonly verdict: 'works' | 'badly' | 'no';
  readonly reason: string;
  /** Share of the energy that does work, relative to a CO2 source on the same stock; divides the family's energies. */
  readonly absorption: number;
  /** Areal energies of this band where they are known for themselves, delivered J/mm² at the usual interval. */
  readonly energies?: EngravingEnergies;
  /** False where the face is marked but what lies under it is not cut. */
  readonly cuts?: boolean;
  readonly basis: Basis;
}

/** How a stock takes a source: whether it may be tried, why, and the areal energies to try, as delivered. */
export interface Response {
  readonly verdict: Suitability['verdict'];
  readonly reason: string;
  /** Share of the energy that does work in a cut, relative to a CO2 source; 0 where nothing is to be burned. */
  readonly absorption: number;
  /** J/mm² as delivered by this source. Not to be used where the verdict is no. */
  readonly energies: EngravingEnergies;
  /** Whether this source cuts it at all, which is another question than whether it marks it. */
  readonly cuts: boolean;
  readonly basis: Basis;
}

const BAND_OF_SOURCE: Readonly<Record<SourceKind, Band>> = {
  'blue-diode': 'blue',
  'co2-glass': 'far-infrared',
  'co2-rf': 'far-infrared',
  fibre: 'near-infrared',
  uv: 'ultraviolet',
};

export function bandOf(source: SourceKind): Band {
  return BAND_OF_SOURCE[source];
}

const works = (absorption: number, reason = 'absorbs it well', basis: Basis = 'common practice'): Suitability => ({
  verdict: 'works',
  reason,
  absorption,
  basis,
});
const badly = (absorption: number, reason: string, basis: Basis = 'common practice'): Suitability => ({
  verdict: 'badly',
  reason,
  absorption,
  basis,
});
const no = (reason: string): Suitability => ({ verdict: 'no', reason, absorption: 0, basis: 'common practice' });

/** The band's own energies instead of the family's over its absorption. */
const at = (suitability: Suitability, energies: EngravingEnergies): Suitability => ({ ...suitability, energies });

/** Marks the face only. */
const faceOnly = (suitability: Suitability): Suitability => ({ ...suitability, cuts: false });

const FIBRE_ORGANIC = 'wood and fibre hardly absorb 1 µm: it scorches in spots or passes through';

type Row = Readonly<Record<Band, Suitability>>;

const organic = (blue: Suitability): Row => ({
  ultraviolet: badly(0.6, 'marks finely, but a few watts make it very slow'),
  blue,
  'near-infrared': badly(0.15, FIBRE_ORGANIC),
  'far-infrared': works(1),
});

const ACRYLIC: Row = {
  ultraviolet: works(0.8, 'marks finely just under the face'),
  blue: badly(0.4, 'absorbs blue by its colour only: test this colour'),
  'near-infrared': no('acrylic lets 1 µm through to whatever lies under it'),
  'far-infrared': works(1),
};

/** Family x band. Absorption shares are rough, they only shape the range to test. Basis: common practice unless said. */
const TABLE: Readonly<Record<FamilyId, Row>> = {
  plywood: organic(works(0.75)),
  hardwood: organic(works(0.8)),
  softwood: organic(works(0.7)),
  'light-wood': organic(works(0.7, 'absorbs it well', 'from memory')),
  bamboo: organic(works(0.8, 'absorbs it well', 'from memory')),
  veneer: organic(works(0.8, 'absorbs it well', 'from memory')),
  mdf: organic(works(0.85)),
  cork: organic(works(0.85)),
  'leather-vegetable': organic(works(0.85)),
  felt: organic(works(0.7, 'absorbs it by colour: test each colour')),
  fleece: organic(badly(0.5, 'absorbs it by colour only, and melts', 'from memory')),
  cloth: organic(badly(0.55, 'pale cloth reflects blue: only dark colours mark evenly')),
  card: organic(works(0.6, 'pale card needs more than kraft')),
  corrugated: organic(works(0.65, 'kraft absorbs it, white board less', 'from memory')),
  rubber: { ...organic(works(0.7)), 'near-infrared': badly(0.3, 'melts before it clears') },
  foam: organic(badly(0.5, 'only dark foam absorbs blue evenly', 'from memory')),
  'acrylic-cast': ACRYLIC,
  'acrylic-extruded': { ...ACRYLIC, 'far-infrared': badly(1, 'melts rather than frosts: low contrast') },
  'coated-clear': {
    ultraviolet: works(0.8, 'the coat absorbs it', 'from memory'),
    blue: works(0.6, 'a dark coat absorbs it', 'from memory'),
    'near-infrared': works(0.5, 'a dark coat absorbs it', 'from memory'),
    'far-infrared': works(1, 'coat and sheet both absorb it', 'from memory'),
  },
  'solid-surface': {
    ultraviolet: badly(0.5, 'marks, but slowly', 'from memory'),
    blue: badly(0.3, 'pale sheet reflects blue', 'from memory'),
    'near-infrared': badly(0.3, 'pale sheet lets much of it through', 'from memory'),
    'far-infrared': works(1, 'absorbs it well: judged by depth', 'from memory'),
  },
  leatherette: {
    ultraviolet: works(0.7),
    blue: works(0.8),
    // 0.36 J/mm² at lines of 0.02 mm, 0.15 at 0.05 mm, common practice: `deep` lies between, at the usual interval of such a fine spot.
    'near-infrared': faceOnly(
      at(works(1, 'the face absorbs it; its paper or glue backing is not cut by it'), {
        faint: 0.06,
        deep: 0.3,
        over: 0.7,
      }),
    ),
    'far-infrared': works(1),
  },
  slate: {
    ultraviolet: badly(0.5, 'marks, but slowly'),
    // Everyday work at 3.6 to 4.7 J/mm² and 0.1 mm.
    blue: at(works(0.3, 'everyday work, slower than a tube'), { faint: 0.6, deep: 4.2, over: 11 }),
    'near-infrared': works(0.8),
    'far-infrared': works(1),
  },
  tile: {
    ultraviolet: badly(0.4, 'most coats are made for blue or far infrared'),
    blue: works(1, 'coats for blue light absorb it well'),
    'near-infrared': badly(0.5, 'few coats absorb it'),
    'far-infrared': works(1, 'the glaze itself absorbs it: coat and glaze both heat'),
  },
  glass: {
    ultraviolet: works(0.6, 'marks finely, in small steps', 'from memory'),
    blue: no('bare glass lets blue light through: it marks the bed, not the glass'),
    'near-infrared': no('bare glass lets 1 µm through'),
    'far-infrared': works(1, 'frosts the face by fine cracks', 'from memory'),
  },
  'light-stone': {
    ultraviolet: badly(0.5, 'marks, but slowly', 'from memory'),
    blue: badly(0.25, 'pale stone reflects blue: low contrast without a coat', 'from memory'),
    'near-infrared': badly(0.5, 'marks granite in spots', 'from memory'),
    'far-infrared': works(1, 'marks paler; low contrast on pale stone', 'from memory'),
  },
  'two-layer': {
    ultraviolet: works(0.8),
    blue: badly(0.6, 'depends on the colour of the upper layer'),
    'near-infrared': faceOnly(
      at(works(1, 'coated plastics made for it absorb it in the upper layer'), {
        faint: 0.06,
        deep: 0.3,
        over: 0.8,
      }),
    ),
    'far-infrared': works(1),
  },
};

/** Where colour or make-up decides, by words of the type: the first that fits counts. Common practice unless said. */
interface TypeRule {
  readonly families: readonly FamilyId[];
  readonly words: RegExp;
  readonly bands: Partial<Row>;
}

const ACRYLICS: readonly FamilyId[] = ['acrylic-cast', 'acrylic-extruded'];

const TYPE_RULES: readonly TypeRule[] = [
  {
    families: ACRYLICS,
    words: /black/i,
    bands: { blue: works(0.7, 'black sheet absorbs blue, whether it looks clear at its edge or not') },
  },
  {
    families: ACRYLICS,
    words: /(transparent|see-through|translucent|tinted).*red|red.*(transparent|see-through|translucent|tinted)/i,
    bands: { blue: badly(0.5, 'red sheet absorbs blue though you can see through it', 'from memory') },
  },
  {
    families: ACRYLICS,
    words: SEE_THROUGH,
    bands: { blue: no('see-through sheet lets blue light through: it marks the bed, not the sheet') },
  },
  {
    families: ACRYLICS,
    words: /light|white|pale/i,
    bands: { blue: no('pale sheet throws blue light back or lets it through') },
  },
  {
    families: ['coated-clear'],
    words: /far/i,
    bands: {
      ultraviolet: no('the clear sheet absorbs it before it reaches the coat'),
      'far-infrared': no('the clear sheet absorbs it before it reaches the coat'),
    },
  },
  {
    families: ['two-layer'],
    words: /light over dark/i,
    bands: { blue: badly(0.3, 'a pale upper layer throws most blue light back', 'from memory') },
  },
];

function suitabilityOf(family: string, source: SourceKind, type: string): Suitability {
  const row = TABLE[family as FamilyId];
  if (!row) throw new RangeError(`unknown family: ${family}`);
  const band = bandOf(source);
  const rule = TYPE_RULES.find(
    ({ families, words }) => (families as readonly string[]).includes(family) && words.test(type),
  );
  return rule?.bands[band] ?? row[band];
}

/**
 * How a stock takes a source. The stock's type refines the family where colour or make-up decides: see-through acrylic passes blue
 * light, so that pair is a plain no. Throws RangeError for an unknown family.
 */
export function responseOf(
  stock: { readonly family: string; readonly type: string },
  { sourceKind }: { readonly sourceKind: SourceKind },
): Response {
  const { verdict, reason, absorption, energies, cuts, basis } = suitabilityOf(stock.family, sourceKind, stock.type);
  const family = familyOf(stock.family);
  // Where nothing is absorbed nothing is burned: the verdict says no, and the energies mean nothing.
  const delivered = (energy: number): number => energy / (absorption || 1);
  return {
    verdict,
    reason,
    absorption,
    energies: energies ?? {
      faint: delivered(family.energies.faint),
      deep: delivered(family.energies.deep),
      over: delivered(family.energies.over),
    },
    cuts: verdict !== 'no' && cuts !== false,
    basis: basis === 'from memory' || (!energies && family.basis === 'from memory') ? 'from memory' : basis,
  };
}

/** The whole table, for the page that shows it. */
export function suitabilityTable(): { family: string; name: string; bands: Row }[] {
  return FAMILIES.map((family) => ({ family: family.id, name: family.name, bands: TABLE[family.id] }));
}
