import { describe, expect } from 'vitest';
import fc from 'fast-check';
import { prop } from '../../tests/support/prop';
import { placeOf, willingHands } from '../../stand-ins/burn';
import { BURNABLE, demoPairing } from '../../stand-ins/demo';
import { expectDark } from '../../tests/support/kinds';
import { tracesOfProgram } from '../bench/bench';
import { benchMachineOf } from '../bench/of-records';
import type { BasePlan, Pairing } from '../core/card/contract';
import { ZERO_PLACES, type ZeroPlace } from '../core/machine/machine';
import { layCard, planProblems } from '../core/card/lay';
import type { Layout } from '../core/card/layout';
import { valueAt, withValueAt } from '../core/card/plan-fields';
import type { BurnSettings } from '../core/card/settings';
import { boxOfShape } from '../core/card/shape';
import { frameBurns } from '../core/card/path';
import { programOfCard } from '../formats/gcode';
import { CARD_KIND_NAMES, cardKind, type AnyCardKind } from './registry';

const machineWords = fc.record({
  rampPower: fc.constantFrom('follows-speed' as const, 'constant' as const),
  addsRunUp: fc.boolean(),
  automaticFocus: fc.boolean(),
  zero: fc.constantFrom(...(Object.keys(ZERO_PLACES) as ZeroPlace[])),
  xPlus: fc.constantFrom('right' as const, 'left' as const),
  yPlus: fc.constantFrom('away' as const, 'toward' as const),
});
const changes = fc.record(
  {
    passes: fc.integer({ min: 1, max: 3 }),
    focusOffsetMm: fc.constantFrom(-2, -0.5, 0, 1, 2.5),
    direction: fc.constantFrom('horizontal' as const, 'vertical' as const),
    bothWays: fc.boolean(),
    runUpMm: fc.constantFrom(null, 0, 3),
    scanOffsetMm: fc.constantFrom(0, 0.05),
  },
  { requiredKeys: [] },
);

/** A proposed plan with some of its settings changed, wherever the kind keeps them; null where that cannot be laid. */
function laid(kind: AnyCardKind, on: Pairing, change: Partial<BurnSettings>): Layout | null {
  let plan: BasePlan;
  try {
    ({ plan } = kind.propose({ pairing: on, facts: [] }));
  } catch {
    return null;
  }
  for (const at of ['constants', 'cut'])
    for (const [field, value] of Object.entries(change))
      if (valueAt(plan, `${at}.${field}`) !== undefined) plan = withValueAt(plan, `${at}.${field}`, value);
  return planProblems(kind, plan, on).length > 0 ? null : layCard(kind, plan, on, { cardNumber: 7 });
}

/** A galvo head, whose mirrors rest in the middle, and every other pairing of the workshop. */
const PAIRINGS = [['tern', 'twoLayer'] as const, ...BURNABLE];

describe.each(CARD_KIND_NAMES)('beam-off, kind %s', (name) => {
  const kind = cardKind(name);
  prop([fc.constantFrom(...PAIRINGS), machineWords, changes], { numRuns: 12 })(
    'rapids, stops, focus moves, start and end are dark, by another parser’s reading',
    ([machineName, stockName], words, change) => {
      const base = demoPairing(machineName, stockName);
      const on = { ...base, machine: { ...base.machine, ...words } };
      const layout = laid(kind, on, change);
      fc.pre(layout !== null);
      expectDark(programOfCard(layout, on.machine, placeOf(layout, on)), on.machine);
    },
  );

  prop([fc.constantFrom(...BURNABLE), machineWords, changes], { numRuns: 4 })(
    'and on a controller out of laser mode, nothing is burned but what was drawn',
    ([machineName, stockName], words, change) => {
      const base = demoPairing(machineName, stockName);
      const on: Pairing = { ...base, machine: { ...base.machine, ...words, rampPower: 'constant' } };
      const layout = laid(kind, on, change);
      fc.pre(layout !== null);
      const program = programOfCard(layout, on.machine, placeOf(layout, on));
      const machine = { ...benchMachineOf(on.machine, on.lens), lagS: 0 };
      const burned = { text: program.text, lines: program.lines, hands: willingHands(program) };
      const boxes = [
        ...frameBurns(layout, on.machine).map(({ burn }) => burn),
        ...layout.before,
        ...layout.after,
        ...layout.cells.flatMap((cell) => cell.burns),
      ].map(({ shape }) => boxOfShape(shape));
      // The beam is late, and an axis goes up to 0.12 % too far.
      const slack = 0.3 + 0.0012 * Math.max(layout.widthMm, layout.heightMm);
      const strayMm = tracesOfProgram(burned, machine, {
        ...placeOf(layout, on),
        widthMm: layout.widthMm,
        heightMm: layout.heightMm,
      })
        .filter(({ x0, y0, x1, y1 }) => {
          const x = (x0 + x1) / 2 - placeOf(layout, on).leftMm;
          const y = machine.bedDepthMm - placeOf(layout, on).rearMm - (y0 + y1) / 2;
          return !boxes.some(
            (box) =>
              x >= box.x - slack &&
              x <= box.x + box.width + slack &&
              y >= box.y - slack &&
              y <= box.y + box.height + slack,
          );
        })
        .reduce((sum, { x0, y0, x1, y1 }) => sum + Math.hypot(x1 - x0, y1 - y0), 0);
      expect(strayMm).toBe(0);
    },
  );
});
