import type { PowerPoint } from './machine';

/** A measured power table as lines to type: "20 % = 10.5 W", one pair a line; empty where there is none. */
export const powerTableText = (table: readonly PowerPoint[] | null): string =>
  table?.map(({ command, watts }) => `${Math.round(command * 1000) / 10} % = ${watts} W`).join('\n') ?? '';

const PAIR = /^(\d+(?:[.,]\d+)?)\s*%?\s*[=:;\s]\s*(\d+(?:[.,]\d+)?)\s*w?$/i;

/**
 * Pairs of command and watts, one a line, signs and units as one likes; null where nothing is typed. A line that is no pair becomes a pair
 * of NaN, which no machine's record takes: it is refused with its place and not passed over.
 *
 * "20 % = 10.5 W" and "20: 10,5" are both `{ command: 0.2, watts: 10.5 }`.
 */
export function readPowerTable(text: string): PowerPoint[] | null {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
  if (lines.length === 0) return null;
  const number = (part: string): number => Number(part.replace(',', '.'));
  return lines.map((line) => {
    const pair = PAIR.exec(line);
    return pair ? { command: number(pair[1]!) / 100, watts: number(pair[2]!) } : { command: NaN, watts: NaN };
  });
}
