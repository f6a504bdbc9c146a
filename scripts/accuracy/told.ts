import { quantile } from '../../src/core/stats/robust';
import { percent } from './figures';

/** What one card of one made-up stock came to. */
export interface Told {
  readonly figure: string;
  readonly seed: string;
  /** What it was burned on, by name. */
  readonly stock: string;
  /** By how much the answer is off, and by how much it may be; null where there was none. */
  readonly off: number | null;
  readonly allowed: number;
  /** Whether the 95 % range held the truth, and half its width; null where none is claimed. */
  readonly held: boolean | null;
  readonly half: number | null;
  /** Why there was no answer. */
  readonly why: string;
}

/** A figure as the report's table has it. */
export interface FigureWords {
  readonly name: string;
  readonly target: string;
  readonly unit: string;
  readonly digits: number;
}

/** Which card of which stock something is told of. */
export type OfCard = Pick<Told, 'figure' | 'seed' | 'stock'>;

export const noAnswer = (card: OfCard, why: string): Told => ({
  ...card,
  off: null,
  allowed: NaN,
  held: null,
  half: null,
  why,
});

/** Of a wedge whose finding says so before its table is burned. */
export const NO_STRAIGHTER = 'said to come out no straighter: next to nothing is burned too strongly';

export const isWithin = ({ off, allowed }: Told): boolean => off !== null && Math.abs(off) <= allowed;

const FIGURES_HEAD = `| figure | target | answers | within target | by seed | median and 95 % off | held | median half range | no answer |
|---|---|---|---|---|---|---|---|---|`;

/** A figure's row of the table under `FIGURES_HEAD`. */
function figureRow(
  { name, target, unit, digits }: FigureWords,
  told: readonly Told[],
  seeds: readonly string[],
): string {
  const scale = unit.startsWith('%') ? 100 : 1;
  const own = told.filter((one) => one.figure === name);
  const answered = own.filter(({ off }) => off !== null);
  const share = (some: readonly Told[]): string => percent(some.filter(isWithin).length / Math.max(1, some.length), 0);
  const claimed = answered.filter(({ held }) => held !== null);
  const middle = (values: readonly number[], at: number): string => quantile(values, at).toFixed(digits);
  const sizes = answered.map(({ off }) => Math.abs(off!) * scale);
  const halves = claimed.map(({ half }) => half! * scale);
  return `| ${[
    name,
    `${target} (${unit})`,
    answered.length,
    share(answered),
    seeds.map((seed) => share(answered.filter((one) => one.seed === seed))).join(', '),
    sizes.length > 0 ? `${middle(sizes, 0.5)}, ${middle(sizes, 0.95)}` : '',
    claimed.length > 0 ? percent(claimed.filter(({ held }) => held).length / claimed.length, 0) : 'none claimed',
    claimed.length > 0 ? middle(halves, 0.5) : '',
    own.length - answered.length,
  ].join(' | ')} |`;
}

/** Misses of each figure by stock, those with the most first; nothing of figures without. */
function missesByStock(figures: readonly FigureWords[], told: readonly Told[]): string {
  return figures
    .flatMap(({ name }) => {
      const answered = told.filter(({ figure, off }) => figure === name && off !== null);
      const stocks = [...new Set(answered.map(({ stock }) => stock))]
        .map((stock) => {
          const own = answered.filter((one) => one.stock === stock);
          return { stock, of: own.length, missed: own.filter((one) => !isWithin(one)).length };
        })
        .filter(({ missed }) => missed > 0)
        .sort((a, b) => b.missed / b.of - a.missed / a.of);
      return stocks.length === 0
        ? []
        : [`- ${name}: ${stocks.map(({ stock, of, missed }) => `${stock} ${missed} of ${of}`).join(', ')}`];
    })
    .join('\n');
}

/** Why there was no answer, the most common reasons first. */
function reasonsForNone(told: readonly Told[]): string {
  const reasons = new Map<string, number>();
  for (const { figure, off, why } of told)
    if (off === null) reasons.set(`${figure}: ${why}`, (reasons.get(`${figure}: ${why}`) ?? 0) + 1);
  const rows = [...reasons].sort((a, b) => b[1] - a[1]).slice(0, 20);
  return rows.map(([why, count]) => `- ${count} × ${why}`).join('\n');
}

/** A report's figures, what is known of why targets are missed, where they are, and why there was no answer. */
export const figuresTold = (
  figures: readonly FigureWords[],
  told: readonly Told[],
  seeds: readonly string[],
  missed: string,
): string => `${FIGURES_HEAD}
${figures.map((figure) => figureRow(figure, told, seeds)).join('\n')}

${missed}

Misses by stock, of the answers that it had:

${missesByStock(figures, told)}

Why there was no answer, where there was none:

${reasonsForNone(told)}`;
