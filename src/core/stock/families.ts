import type { MarkDirection } from '../reading/mark-direction';
import { FAMILIES, type Family, type StockType } from './family-table';

export { FAMILIES };
export type { Basis, EngravingEnergies, Family, StockType } from './family-table';

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
