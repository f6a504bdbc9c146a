/**
 * Families of stock. Energies are starting points for a range to test, never settings: rounded from common practice and from
 * memory, for a spot about 0.1 mm wide. `faint` is where a mark begins to show, `deep` where it stops getting darker in a
 * useful way, `over` where the sheet is spoiled; all areal, in J/mm².
 */
export interface EngravingEnergies {
  readonly faint: number;
  readonly deep: number;
  readonly over: number;
}

export interface Family {
  readonly id: string;
  readonly name: string;
  readonly types: readonly string[];
  /** What a burn does to the face. */
  readonly mark: 'darkens' | 'lightens';
  readonly bareColour: string;
  readonly burnedColour: string;
  readonly bareLightness: number;
  readonly energies: EngravingEnergies;
  readonly intervalMm: number;
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
    types: ['birch ply', 'poplar ply', 'beech ply'],
    mark: 'darkens',
    bareColour: '#d9bf94',
    burnedColour: '#3a2618',
    bareLightness: 78,
    energies: { faint: 0.14, deep: 1.1, over: 2.6 },
    intervalMm: 0.12,
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Glue pockets and knots flare: watch the strong cells.'],
    grained: true,
  },
  {
    id: 'hardwood',
    name: 'Hardwood',
    types: ['alder', 'oak', 'maple', 'walnut', 'cherry'],
    mark: 'darkens',
    bareColour: '#c79b6c',
    burnedColour: '#38220f',
    bareLightness: 67,
    energies: { faint: 0.16, deep: 1.2, over: 3 },
    intervalMm: 0.12,
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Dense or oily woods char before they darken evenly.'],
    grained: true,
  },
  {
    id: 'softwood',
    name: 'Softwood',
    types: ['pine', 'spruce', 'cedar'],
    mark: 'darkens',
    bareColour: '#dec193',
    burnedColour: '#40291a',
    bareLightness: 79,
    energies: { faint: 0.12, deep: 1, over: 2.4 },
    intervalMm: 0.12,
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['Resin pockets flare up.'],
    grained: true,
  },
  {
    id: 'mdf',
    name: 'MDF',
    types: ['MDF', 'HDF'],
    mark: 'darkens',
    bareColour: '#b3906a',
    burnedColour: '#2f2015',
    bareLightness: 62,
    energies: { faint: 0.15, deep: 1.1, over: 2.8 },
    intervalMm: 0.12,
    air: 'on',
    airReason: WOOD_AIR,
    cautions: ['MDF fumes carry formaldehyde: strong extraction.'],
    grained: false,
  },
  {
    id: 'cork',
    name: 'Cork',
    types: ['cork sheet', 'cork tile'],
    mark: 'darkens',
    bareColour: '#c39a6b',
    burnedColour: '#31200f',
    bareLightness: 66,
    energies: { faint: 0.09, deep: 0.7, over: 1.7 },
    intervalMm: 0.14,
    air: 'low',
    airReason: 'from the family: strong air lifts crumbs and fans embers',
    cautions: ['Cork smoulders after the burn: look again before you leave.'],
    grained: false,
  },
  {
    id: 'acrylic-cast',
    name: 'Acrylic, cast',
    types: ['clear', 'opaque dark', 'opaque light', 'tinted'],
    mark: 'lightens',
    bareColour: '#2f3a3c',
    burnedColour: '#c9d2d2',
    bareLightness: 24,
    energies: { faint: 0.1, deep: 0.7, over: 1.6 },
    intervalMm: 0.1,
    air: 'low',
    airReason: 'from the family: strong air blows melt across the frosted face',
    cautions: ['Acrylic vapour burns: never leave it, keep air across cuts.'],
    grained: false,
  },
  {
    id: 'acrylic-extruded',
    name: 'Acrylic, extruded',
    types: ['clear', 'opaque dark', 'opaque light'],
    mark: 'lightens',
    bareColour: '#30393e',
    burnedColour: '#aab5b8',
    bareLightness: 24,
    energies: { faint: 0.1, deep: 0.6, over: 1.3 },
    intervalMm: 0.1,
    air: 'low',
    airReason: 'from the family: strong air blows melt across the frosted face',
    cautions: ['Extruded sheet melts into strings: keep energies low.'],
    grained: false,
  },
  {
    id: 'leather-vegetable',
    name: 'Leather, vegetable-tanned',
    types: ['natural', 'dyed light', 'dyed dark'],
    mark: 'darkens',
    bareColour: '#c8a078',
    burnedColour: '#2b1a10',
    bareLightness: 69,
    energies: { faint: 0.08, deep: 0.55, over: 1.4 },
    intervalMm: 0.085,
    air: 'low',
    airReason: 'from the family: low air gives a soft tone and keeps the grain side clean',
    cautions: ['Leather fumes are among the worst: extraction first.'],
    grained: false,
  },
  {
    id: 'leatherette',
    name: 'Leatherette, paper-backed',
    types: ['two-tone dark over light', 'two-tone dark over metal look'],
    mark: 'lightens',
    bareColour: '#4a3a30',
    burnedColour: '#c0aa8c',
    bareLightness: 26,
    energies: { faint: 0.06, deep: 0.35, over: 0.8 },
    intervalMm: 0.07,
    air: 'on',
    airReason: 'from the family: air carries the residue off',
    cautions: ['Only leatherette sold as free of chlorine: ask for the data sheet.'],
    grained: false,
  },
  {
    id: 'felt',
    name: 'Wool felt',
    types: ['wool felt'],
    mark: 'darkens',
    bareColour: '#b9b4a6',
    burnedColour: '#3b2f25',
    bareLightness: 73,
    energies: { faint: 0.04, deep: 0.25, over: 0.6 },
    intervalMm: 0.12,
    air: 'low',
    airReason: 'from the family: strong air lifts loose cloth',
    cautions: ['Hold loose cloth flat; it can lift into the beam.'],
    grained: false,
  },
  {
    id: 'cloth',
    name: 'Cloth, natural fibre',
    types: ['linen', 'cotton', 'denim'],
    mark: 'darkens',
    bareColour: '#d8cdb4',
    burnedColour: '#59442d',
    bareLightness: 83,
    energies: { faint: 0.03, deep: 0.2, over: 0.45 },
    intervalMm: 0.12,
    air: 'low',
    airReason: 'from the family: strong air lifts loose cloth',
    cautions: ['Hold loose cloth flat; it can lift into the beam.'],
    grained: true,
  },
  {
    id: 'slate',
    name: 'Slate',
    types: ['roof slate', 'coaster slate'],
    mark: 'lightens',
    bareColour: '#4b5157',
    burnedColour: '#b7bbb9',
    bareLightness: 34,
    energies: { faint: 0.18, deep: 1.2, over: 3.4 },
    intervalMm: 0.1,
    air: 'off',
    airReason: 'from the family: nothing burns, so air changes little',
    cautions: ['Stone chips can fly and glow: eyewear and closed lid.'],
    grained: false,
    dust: 'silica',
  },
  {
    id: 'tile',
    name: 'Glazed tile with removable coat',
    types: ['white glaze, dark-firing coat'],
    mark: 'darkens',
    bareColour: '#e4e3dd',
    burnedColour: '#23211f',
    bareLightness: 90,
    energies: { faint: 0.3, deep: 1.6, over: 4 },
    intervalMm: 0.1,
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
    types: ['grey board', 'white card', 'kraft card'],
    mark: 'darkens',
    bareColour: '#cdc2ab',
    burnedColour: '#4b3621',
    bareLightness: 79,
    energies: { faint: 0.03, deep: 0.18, over: 0.4 },
    intervalMm: 0.1,
    air: 'low',
    airReason: 'from the family: strong air lifts thin sheets',
    cautions: ['Paper catches fire at once: stay with a hand on stop.'],
    grained: false,
  },
  {
    id: 'rubber',
    name: 'Laser rubber',
    types: ['grey laser rubber', 'red laser rubber'],
    mark: 'darkens',
    bareColour: '#9f9a97',
    burnedColour: '#2d2a29',
    bareLightness: 64,
    energies: { faint: 0.1, deep: 0.9, over: 3 },
    intervalMm: 0.08,
    air: 'on',
    airReason: 'from the family: air clears the heavy dust',
    cautions: ['Rubber smoke is foul and heavy: extraction first. Only rubber sold for lasers.'],
    grained: false,
  },
  {
    id: 'two-layer',
    name: 'Two-layer engraving plastic',
    types: ['acrylic based, dark over light', 'acrylic based, light over dark'],
    mark: 'lightens',
    bareColour: '#26302b',
    burnedColour: '#e6e4da',
    bareLightness: 19,
    energies: { faint: 0.08, deep: 0.4, over: 0.9 },
    intervalMm: 0.08,
    air: 'on',
    airReason: 'from the family: air carries dust off the cut',
    cautions: ['Only acrylic-based sheet: ABS cores are banned.'],
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
