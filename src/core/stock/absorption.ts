import type { SourceKind } from '../machine/machine';
import { FAMILIES, type FamilyId } from './families';

/** Bands of wavelength that stock tells apart. */
export type Band = 'ultraviolet' | 'blue' | 'near-infrared' | 'far-infrared';

export interface Suitability {
  readonly verdict: 'works' | 'badly' | 'no';
  readonly reason: string;
  /** Share of the energy that does work, relative to a CO2 source on the same stock; divides the family's energies. */
  readonly absorption: number;
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

const works = (absorption: number, reason = 'absorbs it well'): Suitability => ({
  verdict: 'works',
  reason,
  absorption,
});
const badly = (absorption: number, reason: string): Suitability => ({ verdict: 'badly', reason, absorption });
const no = (reason: string): Suitability => ({ verdict: 'no', reason, absorption: 0 });

const FIBRE_ORGANIC = 'wood and fibre hardly absorb 1 µm: it scorches in spots or passes through';
const PAPER_BACKED = 'the face lets 1 µm through and the paper backing scorches first';

type Row = Readonly<Record<Band, Suitability>>;

const organic = (blue: Suitability): Row => ({
  ultraviolet: badly(0.6, 'marks finely, but a few watts make it very slow'),
  blue,
  'near-infrared': badly(0.15, FIBRE_ORGANIC),
  'far-infrared': works(1),
});

/** Family x band. Common practice without a published source; absorption shares are rough, they only shape the range to test. */
const TABLE: Readonly<Record<FamilyId, Row>> = {
  plywood: organic(works(0.75)),
  hardwood: organic(works(0.8)),
  softwood: organic(works(0.7)),
  mdf: organic(works(0.85)),
  cork: organic(works(0.85)),
  'leather-vegetable': organic(works(0.85)),
  felt: organic(works(0.7, 'absorbs it by colour: test each colour')),
  cloth: organic(badly(0.55, 'pale cloth reflects blue: only dark colours mark evenly')),
  card: organic(works(0.6, 'pale card needs more than kraft')),
  rubber: { ...organic(works(0.7)), 'near-infrared': badly(0.3, 'melts before it clears') },
  'acrylic-cast': {
    ultraviolet: works(0.8, 'marks finely just under the face'),
    blue: badly(0.4, 'only opaque dark sheet absorbs blue; clear and pale sheet let it through'),
    'near-infrared': no('acrylic lets 1 µm through to whatever lies under it'),
    'far-infrared': works(1),
  },
  'acrylic-extruded': {
    ultraviolet: works(0.8, 'marks finely just under the face'),
    blue: badly(0.4, 'only opaque dark sheet absorbs blue; clear and pale sheet let it through'),
    'near-infrared': no('acrylic lets 1 µm through to whatever lies under it'),
    'far-infrared': badly(1, 'melts rather than frosts: low contrast'),
  },
  leatherette: {
    ultraviolet: works(0.7),
    blue: works(0.8),
    'near-infrared': no(PAPER_BACKED),
    'far-infrared': works(1),
  },
  slate: {
    ultraviolet: badly(0.5, 'marks, but slowly'),
    blue: badly(0.7, 'marks, but pale: test before you promise'),
    'near-infrared': works(0.8),
    'far-infrared': works(1),
  },
  tile: {
    ultraviolet: badly(0.4, 'most coats are made for blue or far infrared'),
    blue: works(0.9, 'coats for blue light absorb it well'),
    'near-infrared': badly(0.5, 'few coats absorb it'),
    'far-infrared': works(1, 'the glaze itself absorbs it: coat and glaze both heat'),
  },
  'two-layer': {
    ultraviolet: works(0.8),
    blue: badly(0.6, 'depends on the colour of the upper layer'),
    'near-infrared': badly(0.3, 'many upper layers let 1 µm through'),
    'far-infrared': works(1),
  },
};

/**
 * How a family takes a source. `type` and `colour` refine the table where they decide: clear acrylic passes blue light, so
 * that pair is a plain no. Throws RangeError for an unknown family.
 */
export function suitability(family: string, source: SourceKind, type = ''): Suitability {
  const row = TABLE[family as FamilyId];
  if (!row) throw new RangeError(`unknown family: ${family}`);
  const band = bandOf(source);
  const isAcrylic = family === 'acrylic-cast' || family === 'acrylic-extruded';
  if (isAcrylic && band === 'blue' && /clear|tinted|light/i.test(type)) {
    return no('clear and pale acrylic lets blue light through: it marks the bed, not the sheet');
  }
  return row[band];
}

/** The whole table, for the page that shows it. */
export function suitabilityTable(): { family: string; name: string; bands: Row }[] {
  return FAMILIES.map((family) => ({ family: family.id, name: family.name, bands: TABLE[family.id] }));
}
