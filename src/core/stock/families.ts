import type { MarkDirection } from '../reading/mark-direction';

/** Where a number comes from that has no published source. */
export type Basis = 'common practice' | 'from memory';

/**
 * Areal energies in J/mm² as starting points for a range to test, never settings; for a spot about 0.1 mm wide. `faint` is where a mark
 * begins to show, `deep` where it stops getting stronger in a useful way, `over` where the sheet is spoiled.
 */
export interface EngravingEnergies {
  readonly faint: number;
  readonly deep: number;
  readonly over: number;
}

/** One type of a family, with what is different about it. */
export interface StockType {
  readonly name: string;
  /** Which way its marks go, where that is not the family's. What a photo shows counts for more. */
  readonly mark?: MarkDirection;
  readonly bareColour?: string;
  readonly burnedColour?: string;
  readonly bareLightness?: number;
}

export interface Family {
  readonly id: string;
  readonly name: string;
  readonly types: readonly StockType[];
  /** What a burn usually does to the face: expected until a photo shows it. */
  readonly mark: MarkDirection;
  readonly bareColour: string;
  readonly burnedColour: string;
  readonly bareLightness: number;
  /** For a CO2 source; other bands are in `response.ts`. */
  readonly energies: EngravingEnergies;
  /** Whether the energies are numbers that shops pass on, or ours from memory. */
  readonly basis: Basis;
  /** Usual distance of lines, in mm. */
  readonly intervalMm: number;
  /** How much wider than the spot a line's mark is, in mm, where heat spreads in the stock; ultraviolet light leaves none. */
  readonly heatSpreadMm: number;
  /** What tells a good engraving: its tone, or its depth (rubber for stamps), which no photo shows. */
  readonly judgedBy: 'tone' | 'depth';
  readonly air: 'off' | 'low' | 'on';
  readonly airReason: string;
  /** Shares in a caution of its own: resinous flare-ups, dust, glare. */
  readonly cautions: readonly string[];
  /** True when grain matters and should be recorded. */
  readonly grained: boolean;
  /** Dust that needs a caution of its own. */
  readonly dust?: 'silica';
  /** Whether the face itself throws part of the beam back. */
  readonly reflects?: boolean;
}

const WOOD_AIR = 'from the family: air keeps smoke off the face';

export const FAMILIES = [
  {
    id: 'plywood',
    name: 'Plywood',
    types: [{ name: 'birch ply' }, { name: 'poplar ply' }, { name: 'beech ply' }],
    mark: 'darker',
    bareColour: '#d9bf94',
    burnedColour: '#3a2618',
    bareLightness: 78,
    energies: { faint: 0.14, deep: 1.1, over: 2.6 },
    basis: 'common practice',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Glue pockets and knots flare: watch the strong cells.'],
    grained: true,
  },
  {
    id: 'hardwood',
    name: 'Hardwood',
    types: [{ name: 'alder' }, { name: 'oak' }, { name: 'maple' }, { name: 'walnut' }, { name: 'cherry' }],
    mark: 'darker',
    bareColour: '#c79b6c',
    burnedColour: '#38220f',
    bareLightness: 67,
    energies: { faint: 0.16, deep: 1.2, over: 3 },
    basis: 'common practice',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Dense or oily woods char before they darken evenly.'],
    grained: true,
  },
  {
    id: 'softwood',
    name: 'Softwood',
    types: [{ name: 'pine' }, { name: 'spruce' }, { name: 'cedar' }],
    mark: 'darker',
    bareColour: '#dec193',
    burnedColour: '#40291a',
    bareLightness: 79,
    energies: { faint: 0.12, deep: 1, over: 2.4 },
    basis: 'common practice',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Resin pockets flare up.'],
    grained: true,
  },
  {
    id: 'mdf',
    name: 'MDF',
    types: [{ name: 'MDF' }, { name: 'HDF' }],
    mark: 'darker',
    bareColour: '#b3906a',
    burnedColour: '#2f2015',
    bareLightness: 62,
    energies: { faint: 0.15, deep: 1.1, over: 2.8 },
    basis: 'common practice',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['MDF fumes carry formaldehyde: strong extraction.'],
    grained: false,
  },
  {
    id: 'cork',
    name: 'Cork',
    types: [{ name: 'cork sheet' }, { name: 'cork tile' }],
    mark: 'darker',
    bareColour: '#c39a6b',
    burnedColour: '#31200f',
    bareLightness: 66,
    energies: { faint: 0.09, deep: 0.7, over: 1.7 },
    basis: 'from memory',
    intervalMm: 0.14,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air lifts crumbs and fans embers',
    cautions: ['Cork smoulders after the burn: look again before you leave.'],
    grained: false,
  },
  {
    id: 'acrylic-cast',
    name: 'Acrylic, cast',
    types: [
      { name: 'clear' },
      { name: 'opaque black' },
      { name: 'opaque dark' },
      { name: 'opaque light' },
      { name: 'transparent red' },
      { name: 'tinted' },
    ],
    mark: 'brighter',
    bareColour: '#2f3a3c',
    burnedColour: '#c9d2d2',
    bareLightness: 24,
    energies: { faint: 0.1, deep: 0.7, over: 1.6 },
    basis: 'common practice',
    intervalMm: 0.1,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air blows melt across the frosted face',
    cautions: ['Acrylic vapour burns: never leave it, keep air across cuts.'],
    grained: false,
  },
  {
    id: 'acrylic-extruded',
    name: 'Acrylic, extruded',
    types: [{ name: 'clear' }, { name: 'opaque black' }, { name: 'opaque dark' }, { name: 'opaque light' }],
    mark: 'brighter',
    bareColour: '#30393e',
    burnedColour: '#aab5b8',
    bareLightness: 24,
    energies: { faint: 0.1, deep: 0.6, over: 1.3 },
    basis: 'from memory',
    intervalMm: 0.1,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air blows melt across the frosted face',
    cautions: ['Extruded sheet melts into strings: keep energies low.'],
    grained: false,
  },
  {
    id: 'leather-vegetable',
    name: 'Leather, vegetable-tanned',
    types: [
      { name: 'natural' },
      { name: 'dyed light' },
      { name: 'dyed dark', mark: 'brighter', bareColour: '#3b2a20', burnedColour: '#8d6f55', bareLightness: 19 },
    ],
    mark: 'darker',
    bareColour: '#c8a078',
    burnedColour: '#2b1a10',
    bareLightness: 69,
    energies: { faint: 0.08, deep: 0.55, over: 1.4 },
    basis: 'common practice',
    intervalMm: 0.085,
    heatSpreadMm: 0.04,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: low air gives a soft tone and keeps the grain side clean',
    cautions: ['Leather fumes are among the worst: extraction first.'],
    grained: false,
  },
  {
    id: 'leatherette',
    name: 'Leatherette, paper-backed',
    types: [
      { name: 'two-tone dark over light' },
      { name: 'two-tone dark over metal look' },
      {
        name: 'light over dark core',
        mark: 'darker',
        bareColour: '#b59a76',
        burnedColour: '#231b16',
        bareLightness: 65,
      },
    ],
    mark: 'brighter',
    bareColour: '#4a3a30',
    burnedColour: '#c0aa8c',
    bareLightness: 26,
    energies: { faint: 0.06, deep: 0.35, over: 0.8 },
    basis: 'common practice',
    intervalMm: 0.07,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'on',
    airReason: 'from the family: air carries the residue off',
    cautions: ['Only leatherette sold as free of chlorine: ask for the data sheet.'],
    grained: false,
  },
  {
    id: 'felt',
    name: 'Wool felt',
    types: [{ name: 'wool felt' }],
    mark: 'darker',
    bareColour: '#b9b4a6',
    burnedColour: '#3b2f25',
    bareLightness: 73,
    energies: { faint: 0.04, deep: 0.25, over: 0.6 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0.04,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air lifts loose cloth',
    cautions: ['Hold loose cloth flat; it can lift into the beam.'],
    grained: false,
  },
  {
    id: 'cloth',
    name: 'Cloth, natural fibre',
    types: [
      { name: 'linen' },
      { name: 'cotton' },
      { name: 'denim', mark: 'brighter', bareColour: '#3a4a63', burnedColour: '#b3bccb', bareLightness: 31 },
    ],
    mark: 'darker',
    bareColour: '#d8cdb4',
    burnedColour: '#59442d',
    bareLightness: 83,
    energies: { faint: 0.03, deep: 0.2, over: 0.45 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0.04,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air lifts loose cloth',
    cautions: ['Hold loose cloth flat; it can lift into the beam.'],
    grained: true,
  },
  {
    id: 'slate',
    name: 'Slate',
    types: [{ name: 'roof slate' }, { name: 'coaster slate' }],
    mark: 'brighter',
    bareColour: '#4b5157',
    burnedColour: '#b7bbb9',
    bareLightness: 34,
    energies: { faint: 0.18, deep: 1.2, over: 3.4 },
    basis: 'common practice',
    intervalMm: 0.1,
    heatSpreadMm: 0.02,
    judgedBy: 'tone',
    air: 'off',
    airReason: 'from the family: nothing burns, so air changes little',
    cautions: ['Stone chips can fly and glow: eyewear and closed lid.'],
    grained: false,
    dust: 'silica',
  },
  {
    id: 'tile',
    name: 'Glazed tile with removable coat',
    types: [{ name: 'white glaze, dark-firing coat' }],
    mark: 'darker',
    bareColour: '#e4e3dd',
    burnedColour: '#23211f',
    bareLightness: 90,
    // White coats: first mark at about 1, good at 5 to 14, spoiled from about 18 J/mm².
    energies: { faint: 1, deep: 9, over: 18 },
    basis: 'common practice',
    intervalMm: 0.1,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'off',
    airReason: 'from the family: air would blow the coat off',
    cautions: ['Coat must be one whose data sheet allows lasers.'],
    grained: false,
    dust: 'silica',
    reflects: true,
  },
  {
    id: 'card',
    name: 'Card and paper',
    types: [{ name: 'grey board' }, { name: 'white card' }, { name: 'kraft card' }],
    mark: 'darker',
    bareColour: '#cdc2ab',
    burnedColour: '#4b3621',
    bareLightness: 79,
    energies: { faint: 0.03, deep: 0.18, over: 0.4 },
    basis: 'from memory',
    intervalMm: 0.1,
    heatSpreadMm: 0.04,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air lifts thin sheets',
    cautions: ['Paper catches fire at once: stay with a hand on stop.'],
    grained: false,
  },
  {
    id: 'rubber',
    name: 'Laser rubber',
    types: [{ name: 'grey laser rubber' }, { name: 'red laser rubber' }],
    mark: 'darker',
    bareColour: '#9f9a97',
    burnedColour: '#2d2a29',
    bareLightness: 64,
    energies: { faint: 0.5, deep: 6, over: 12 },
    basis: 'from memory',
    intervalMm: 0.08,
    heatSpreadMm: 0.02,
    judgedBy: 'depth',
    air: 'on',
    airReason: 'from the family: air clears the heavy dust',
    cautions: ['Rubber smoke is foul and heavy: extraction first. Only rubber sold for lasers.'],
    grained: false,
  },
  {
    id: 'two-layer',
    name: 'Two-layer engraving plastic',
    types: [
      { name: 'acrylic based, dark over light' },
      {
        name: 'acrylic based, light over dark',
        mark: 'darker',
        bareColour: '#e6e4da',
        burnedColour: '#26302b',
        bareLightness: 90,
      },
    ],
    mark: 'brighter',
    bareColour: '#26302b',
    burnedColour: '#e6e4da',
    bareLightness: 19,
    energies: { faint: 0.08, deep: 0.4, over: 0.9 },
    basis: 'common practice',
    intervalMm: 0.08,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'on',
    airReason: 'from the family: air carries dust off the cut',
    cautions: ['Only acrylic-based sheet: ABS cores are banned.'],
    grained: false,
  },
  {
    id: 'light-wood',
    name: 'Light wood',
    types: [{ name: 'basswood' }, { name: 'balsa', bareColour: '#e6d6b4', bareLightness: 86 }],
    mark: 'darker',
    bareColour: '#e0cba3',
    burnedColour: '#3f2a1a',
    bareLightness: 82,
    energies: { faint: 0.1, deep: 0.8, over: 2 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Light, dry wood takes fire easily: watch the strong cells.'],
    grained: true,
  },
  {
    id: 'bamboo',
    name: 'Bamboo',
    types: [{ name: 'bamboo board' }, { name: 'bamboo ply' }],
    mark: 'darker',
    bareColour: '#dcc08a',
    burnedColour: '#3b2714',
    bareLightness: 79,
    energies: { faint: 0.15, deep: 1.1, over: 2.8 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Glue lines between the strips char darker than the strips.'],
    grained: true,
  },
  {
    id: 'veneer',
    name: 'Veneer',
    types: [{ name: 'plain veneer' }, { name: 'paper-backed veneer' }],
    mark: 'darker',
    bareColour: '#cda777',
    burnedColour: '#38230f',
    bareLightness: 71,
    energies: { faint: 0.12, deep: 0.9, over: 1.8 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0.05,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air lifts thin sheets',
    cautions: ['It burns through soon: engrave well below what darkens a board.'],
    grained: true,
  },
  {
    id: 'corrugated',
    name: 'Corrugated board',
    types: [{ name: 'kraft, single wall' }, { name: 'white, single wall', bareColour: '#e8e6df', bareLightness: 91 }],
    mark: 'darker',
    bareColour: '#b99566',
    burnedColour: '#4b3621',
    bareLightness: 64,
    energies: { faint: 0.03, deep: 0.2, over: 0.45 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0.04,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: air in the flutes fans a flame',
    cautions: ['Flames run inside the flutes and show late: stay with a hand on stop.'],
    grained: false,
  },
  {
    id: 'fleece',
    name: 'Polyester fleece and felt',
    types: [{ name: 'polyester felt' }, { name: 'polyester fleece' }],
    mark: 'darker',
    bareColour: '#8f9aa3',
    burnedColour: '#4c555d',
    bareLightness: 63,
    energies: { faint: 0.03, deep: 0.15, over: 0.3 },
    basis: 'from memory',
    intervalMm: 0.12,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air lifts loose cloth',
    cautions: ['It melts: hot drops stick and burn. Keep energies low.'],
    grained: false,
  },
  {
    id: 'solid-surface',
    name: 'Solid surface, acrylic and mineral',
    types: [{ name: 'white' }, { name: 'dark', bareColour: '#3a3c3e', burnedColour: '#8d9092', bareLightness: 25 }],
    mark: 'brighter',
    bareColour: '#dfe0dc',
    burnedColour: '#f2f2f0',
    bareLightness: 89,
    energies: { faint: 0.3, deep: 2, over: 6 },
    basis: 'from memory',
    intervalMm: 0.1,
    heatSpreadMm: 0,
    judgedBy: 'depth',
    air: 'on',
    airReason: 'from the family: air clears the heavy dust',
    cautions: ['Fine mineral dust: extraction and a mask when it is wiped.'],
    grained: false,
  },
  {
    id: 'light-stone',
    name: 'Light stone',
    types: [{ name: 'marble' }, { name: 'granite', bareColour: '#7c7d80', burnedColour: '#b5b7b8', bareLightness: 52 }],
    mark: 'brighter',
    bareColour: '#cfcac0',
    burnedColour: '#efeeea',
    bareLightness: 82,
    energies: { faint: 0.5, deep: 2.5, over: 7 },
    basis: 'from memory',
    intervalMm: 0.1,
    heatSpreadMm: 0.02,
    judgedBy: 'tone',
    air: 'off',
    airReason: 'from the family: nothing burns, so air changes little',
    cautions: ['Stone chips can fly and glow: eyewear and closed lid.', 'Polished faces throw part of the beam back.'],
    grained: false,
    dust: 'silica',
    reflects: true,
  },
  {
    id: 'glass',
    name: 'Bare glass',
    types: [{ name: 'float glass' }, { name: 'bottle glass' }],
    mark: 'brighter',
    bareColour: '#59656a',
    burnedColour: '#cfd6d8',
    bareLightness: 42,
    energies: { faint: 0.6, deep: 2.2, over: 5 },
    basis: 'from memory',
    intervalMm: 0.1,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'off',
    airReason: 'from the family: nothing burns, and a cold jet cracks hot glass',
    cautions: ['Heat cracks it and splinters fly: low energy, eyewear, closed lid, gloves after.'],
    grained: false,
    dust: 'silica',
    reflects: true,
  },
  {
    id: 'coated-clear',
    name: 'Clear acrylic coated on one side',
    types: [{ name: 'coat on the near face' }, { name: 'coat on the far face' }],
    mark: 'brighter',
    bareColour: '#2c2f33',
    burnedColour: '#c4c9cc',
    bareLightness: 20,
    energies: { faint: 0.1, deep: 0.6, over: 1.5 },
    basis: 'from memory',
    intervalMm: 0.08,
    heatSpreadMm: 0,
    judgedBy: 'tone',
    air: 'low',
    airReason: 'from the family: strong air blows residue across the clear face',
    cautions: ['Know which face is up and what the coat is: its data sheet must allow lasers.'],
    grained: false,
  },
  {
    id: 'foam',
    name: 'Foam of a known make-up',
    types: [{ name: 'EVA foam' }, { name: 'polyethylene foam' }],
    mark: 'darker',
    bareColour: '#6c6f73',
    burnedColour: '#33363a',
    bareLightness: 47,
    energies: { faint: 0.03, deep: 0.2, over: 0.5 },
    basis: 'from memory',
    intervalMm: 0.15,
    heatSpreadMm: 0,
    judgedBy: 'depth',
    air: 'on',
    airReason: 'from the family: air keeps a flame off the melt',
    cautions: ['Foam flares and drips: only one whose make-up is on its data sheet, and never out of sight.'],
    grained: false,
  },
] as const satisfies readonly Family[];

export type FamilyId = (typeof FAMILIES)[number]['id'];

const BY_ID: ReadonlyMap<string, Family> = new Map(FAMILIES.map((family) => [family.id, family]));

/** The family of an id. Throws RangeError `unknown family: …`. */
export function familyOf(id: string): Family {
  const family = BY_ID.get(id);
  if (!family) throw new RangeError(`unknown family: ${id}`);
  return family;
}

/** The family's type that a stock is of, by its name; undefined for a name of the operator's own. */
function typeOf({ family, type }: { readonly family: string; readonly type: string }): StockType | undefined {
  return familyOf(family).types.find(({ name }) => name === type);
}

/** Colour that a burn is expected to leave on a stock. Throws RangeError for an unknown family. */
export function burnedColourOf(stock: { readonly family: string; readonly type: string }): string {
  return typeOf(stock)?.burnedColour ?? familyOf(stock.family).burnedColour;
}

/** Face of fresh stock of a type, until it is measured. Throws RangeError for an unknown family. */
export function bareFaceOf(stock: { readonly family: string; readonly type: string }): {
  readonly colour: string;
  readonly lightness: number;
} {
  const family = familyOf(stock.family);
  const type = typeOf(stock);
  return { colour: type?.bareColour ?? family.bareColour, lightness: type?.bareLightness ?? family.bareLightness };
}

/** Which way marks on a stock are expected to go. Throws RangeError for an unknown family. */
export function expectedMarkOf(stock: { readonly family: string; readonly type: string }): MarkDirection {
  return typeOf(stock)?.mark ?? familyOf(stock.family).mark;
}
