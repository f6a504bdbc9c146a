/** Everything that is typed on the page of sums, in canonical units; null where nothing usable is. */
export interface Sums {
  readonly size: number | null;
  readonly clearance: number | null;
  readonly kerf: number | null;
  /** Standard uncertainty of it. */
  readonly kerfSigma: number | null;
  /** Of the part's stock, where that is another; null for the same. */
  readonly partKerf: number | null;
  readonly thickness: number | null;
  /** By so much either way the sheet differs from it; null where it does not. */
  readonly spread: number | null;
  /** A fit from the book that slots are drawn by, instead of kerf and clearance; null for none. */
  readonly fit: number | null;
  /** A joint from the book that chances of part and hole go by; null for none. */
  readonly joint: number | null;
  /** Which fit is wanted of it: its place among those that may be. */
  readonly wanted: number | null;
  /** Of a box joint: the length of its corner, and about how wide its fingers are. */
  readonly edge: number | null;
  readonly finger: number | null;
  /** 1 where lengths are shown in inches. */
  readonly inches: number | null;
  readonly power: number | null;
  readonly speed: number | null;
  readonly passes: number | null;
  readonly interval: number | null;
  readonly newPower: number | null;
  readonly newPasses: number | null;
  readonly newInterval: number | null;
}

/** What stands there before anybody typed. */
export const USUAL_SUMS: Sums = {
  size: 20,
  clearance: 0,
  kerf: 0.15,
  kerfSigma: null,
  partKerf: null,
  thickness: 3.05,
  spread: null,
  fit: null,
  joint: null,
  wanted: 1,
  edge: 90,
  finger: 9,
  inches: 0,
  power: 1,
  speed: 500 / 60,
  passes: 1,
  interval: null,
  newPower: 0.8,
  newPasses: 1,
  newInterval: null,
};

const NAMES = Object.keys(USUAL_SUMS) as (keyof Sums)[];

/** The sums of an address: what it does not name, or names no number for, is as usual. */
export function sumsOf(search: string): Sums {
  const asked = new URLSearchParams(search);
  const entries = NAMES.map((name) => {
    const text = asked.get(name);
    if (text === null) return [name, USUAL_SUMS[name]] as const;
    const value = Number(text);
    return [name, text === '' ? null : Number.isFinite(value) ? value : USUAL_SUMS[name]] as const;
  });
  return Object.fromEntries(entries) as unknown as Sums;
}

/** The address of sums, to be shared: only what is not as usual. */
export function addressOf(sums: Sums): string {
  const asked = new URLSearchParams();
  for (const name of NAMES)
    if (sums[name] !== USUAL_SUMS[name])
      asked.set(name, sums[name] === null ? '' : String(Number(sums[name].toPrecision(8))));
  const text = asked.toString();
  return text === '' ? '/sums' : `/sums?${text}`;
}
