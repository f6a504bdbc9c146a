import { isUnproven, type FactNow } from './facts';
import { mainBurn, type Layout } from '../card/layout';

type Engrave = Extract<FactNow, { name: 'engrave' }>;

const engravings = (facts: readonly FactNow[]): Engrave[] =>
  facts.filter((fact): fact is Engrave => fact.name === 'engrave');

/** Names of the shades that a pairing holds. */
export const shadesOf = (facts: readonly FactNow[]): string[] =>
  engravings(facts).flatMap(({ at }) => (at['shade'] === undefined ? [] : [String(at['shade'])]));

const near = (a: number, b: number): boolean => Math.abs(a / b - 1) < 0.005;

/** The shade of the unproven setting that one of a card's cells burns; empty when there is none, or it has no name. */
export function provenShade(facts: readonly FactNow[], layout: Layout): string {
  const proven = engravings(facts).find(
    ({ origin, value: { settings } }) =>
      isUnproven(origin) &&
      layout.cells.some((cell) => {
        const own = mainBurn(cell).settings;
        return near(own.powerFraction, settings.powerFraction) && near(own.speedMmPerS, settings.speedMmPerS);
      }),
  );
  return String(proven?.at['shade'] ?? '');
}
