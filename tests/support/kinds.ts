import { expect } from 'vitest';
import type { AnyCardKind } from '../../src/cards/registry';
import type { BasePlan, Pairing } from '../../src/core/card/contract';
import { layCard } from '../../src/core/card/lay';
import type { Layout } from '../../src/core/card/layout';
import { USUAL_GALVO, type Machine } from '../../src/core/machine/machine';
import type { Program } from '../../src/formats/gcode';
import { BURNABLE, demoPairing } from '../../stand-ins/demo';
import { armedMoves } from './program';

/** A pairing as it is, and with its controller out of laser mode. */
export const machinesOf = (pairing: Pairing): Pairing[] => [
  pairing,
  { ...pairing, machine: { ...pairing.machine, rampPower: 'constant' } },
  // Zero elsewhere, axes the other way round: the card must come to lie as it was drawn all the same.
  { ...pairing, machine: { ...pairing.machine, zero: 'bed-rear-right', xPlus: 'left', yPlus: 'toward' } },
  { ...pairing, machine: { ...pairing.machine, zero: 'card-middle', yPlus: 'toward' } },
  { ...pairing, machine: { ...pairing.machine, zero: 'head', xPlus: 'left' } },
  { ...pairing, machine: { ...pairing.machine, head: 'galvo', galvo: USUAL_GALVO, zero: 'bed-middle' } },
];

/** The same pairing of somebody who reads inches, mm/min and DPI. */
const inOtherUnits = (pairing: Pairing): Pairing => ({
  ...pairing,
  machine: { ...pairing.machine, likedUnits: { length: 'in', speed: 'mm/min', density: 'dpi' } },
});

export interface Proposed {
  readonly pairing: Pairing;
  readonly plan: BasePlan;
  readonly layout: Layout;
}

/** What a kind proposes on every pairing of the workshop it can be burned on. */
export function proposed(kind: AnyCardKind): Proposed[] {
  // First the galvo head: its lens reaches a part of the bed, and its mirrors rest in the middle.
  const pairings = [
    demoPairing('tern', 'twoLayer'),
    ...BURNABLE.map(([machine, stock]) => demoPairing(machine, stock)),
  ];
  return [...pairings, inOtherUnits(pairings.at(-1)!), inOtherUnits(demoPairing('marl', 'alder'))].flatMap(
    (pairing) => {
      try {
        const { plan } = kind.propose({ pairing, facts: [] });
        return [{ pairing, plan, layout: layCard(kind, plan, pairing, { cardNumber: 321 }) }];
      } catch (error) {
        expect((error as Error).message).toMatch(/^invalid pairing: /);
        return [];
      }
    },
  );
}

/** That a program is dark wherever nothing is drawn: rapids, stops, focus moves, start and end, by another parser's reading. */
export function expectDark({ text }: Program, { rampPower }: Machine): void {
  const moves = armedMoves(text);
  expect(moves.length).toBeGreaterThan(10);
  expect(moves.filter((move) => move.rapid && move.s !== 0)).toEqual([]);
  expect(moves.filter((move) => move.lifts && (move.armed || move.s !== 0))).toEqual([]);
  const lines = text.trimEnd().split('\n');
  lines.forEach((line, index) => {
    if (!line.startsWith('M0')) return;
    expect(lines.slice(0, index).findLast((before) => /^M[345]\b/.test(before))).toBe('M5');
    expect(lines[index + 1]).toMatch(/^M[34] S0$/);
  });
  const arms = new Set(lines.filter((line) => /^M[34]/.test(line)));
  expect([...arms]).toEqual([rampPower === 'follows-speed' ? 'M4 S0' : 'M3 S0']);
  expect(lines.filter((line) => /\bG0\b/.test(line) && !line.endsWith(' S0'))).toEqual([]);
  const lastMove = lines.findLastIndex((line) => line.startsWith('G1'));
  expect(lines.slice(lastMove + 1).find((line) => !line.startsWith('('))).toBe('M5');
  expect(lines.at(-1)).toBe('M2');
}
