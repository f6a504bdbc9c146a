import { parse as parseCsv } from 'csv-parse/sync';
import { describe, expect, it } from 'vitest';
import { PLACE } from '../../stand-ins/burn';
import { BURNABLE, demoPairing } from '../../stand-ins/demo';
import { expectDark, machinesOf, proposed } from '../../tests/support/kinds';
import { answerProblem, type Answer, type Seen } from '../core/card/asks';
import type { BasePlan, Pairing } from '../core/card/contract';
import { estimateCard } from '../core/card/estimate';
import { boundOfPlan, layCard, planProblems } from '../core/card/lay';
import type { RungId } from '../core/book/rungs';
import type { Rect } from '../core/geometry/point';
import { DEFAULT_LIKED_UNITS } from '../core/quantities/format';
import { valueAt, withValueAt } from '../core/card/plan-fields';
import { boxOfShape } from '../core/card/shape';
import { csvOfCells } from '../formats/csv-cells';
import { svgOfCard } from '../formats/card-svg';
import { gcodeChunks, programOfCard } from '../formats/gcode';
import {
  CARD_KIND_NAMES,
  CARD_KINDS,
  cardKind,
  isCardKind,
  kindAskedFor,
  kindsOfRung,
  storedPlan,
  type AnyCardKind,
} from './registry';
import { CARD_SCHEMAS } from './schemas';

/** A plan made more and more work, one step for each field that eases it in turn, until it is too much or its own check stops it. */
function heaviest(kind: AnyCardKind, plan: BasePlan, on: Pairing): BasePlan {
  for (let turn = 0; turn < 40 && planProblems(kind, plan, on).length === 0; turn++) {
    const { path, by } = kind.eases[turn % kind.eases.length]!;
    const now = valueAt(plan, path) as number;
    const more = withValueAt(plan, path, by === 'more' ? now / 1.25 : Math.ceil(now * 1.25));
    if (kind.check(more, on).length === 0) plan = more;
  }
  return plan;
}

/** As it comes back from a database or a worker. */
const copy = <Value>(value: Value): Value => JSON.parse(JSON.stringify(value)) as Value;

describe('the registry', () => {
  it('knows its kinds and no others', () => {
    expect(isCardKind('toString')).toBe(false);
    expect(() => cardKind('mystery')).toThrow(RangeError);
    for (const name of CARD_KIND_NAMES) expect(kindsOfRung(CARD_KINDS[name].rung)).toContain(cardKind(name));
  });
});

describe('the kind that a rung asks for', () => {
  const asked = (rung: RungId, pairing: Pairing, isStale = false) =>
    kindAskedFor(rung, isStale, { pairing, facts: [] })?.kind;
  it('is the usual one, and a small one where what is known went stale', () => {
    const alder = demoPairing('marl', 'alder');
    expect([asked('grid', alder), asked('cut', alder), asked('fit', alder)]).toEqual(['grid', 'cut', 'slots']);
    expect([asked('grid', alder, true), asked('focus', alder, true)]).toEqual(['sheet-check', 'focus']);
  });
  it('is another where that one cannot be planned, and none where none can', () => {
    expect(asked('fit', demoPairing('marl', 'felt'))).toBe('knobs');
    expect(asked('run-up', demoPairing('tern', 'twoLayer'))).toBeUndefined();
    expect(asked('run-up', demoPairing('marl', 'alder'))).toBe('run-up');
    // What the light passes through is asked nothing.
    for (const rung of ['grid', 'cut'] as const) expect(asked(rung, demoPairing('heron', 'acrylic'))).toBeUndefined();
  });
});

describe.each(CARD_KIND_NAMES)('kind %s', (name) => {
  const kind = cardKind(name);
  const all = proposed(kind);

  it('is named as its folder and frozen, and can be burned on several stocks', () => {
    expect(kind.kind).toBe(name);
    expect(Object.isFrozen(kind)).toBe(true);
    expect(all.length).toBeGreaterThanOrEqual(3);
  });

  it('proposes plans without fault, the same each time, that its own schema lets through', () => {
    for (const { pairing, plan } of all) {
      expect(planProblems(kind, plan, pairing)).toEqual([]);
      expect(kind.propose({ pairing, facts: [] }).plan).toEqual(plan);
      expect(CARD_SCHEMAS[name].plan.validate(copy(plan)).error).toBeUndefined();
      expect(CARD_SCHEMAS[name].wish.validate(copy(kind.wish(pairing))).error).toBeUndefined();
    }
  });

  it('proposes a plan, or says in words why there is none, for sources of any strength', () => {
    for (const [machineName, stockName] of BURNABLE)
      for (const ratedPowerW of [0.5, 150, 2000]) {
        const on = demoPairing(machineName, stockName);
        const strong = { ...on, machine: { ...on.machine, ratedPowerW, powerTable: null } };
        const what = `${machineName}, ${stockName}, ${ratedPowerW} W`;
        try {
          const { plan } = kind.propose({ pairing: strong, facts: [] });
          // What is wrong with it is told by field; nothing is thrown.
          for (const { field, message } of planProblems(kind, plan, strong)) {
            expect(field, what).not.toBe('');
            expect(message, what).toMatch(/[.]$/);
          }
        } catch (error) {
          expect(error, what).toBeInstanceOf(RangeError);
          expect((error as Error).message, what).toMatch(/^invalid pairing: /);
        }
      }
  });
  it('gives reasons and fields that point at what the plan has', () => {
    for (const { pairing, plan } of all) {
      const { reasons } = kind.propose({ pairing, facts: [] });
      for (const [path, words] of Object.entries(reasons)) {
        if (path !== 'size') expect(valueAt(plan, path), path).toBeDefined();
        expect(words, path).toMatch(/\w{2}/);
      }
      const fields = kind.fields(plan, pairing);
      expect(new Set(fields.map((field) => field.path)).size).toBe(fields.length);
      for (const { path, label, hint, unit, options, group, as } of fields) {
        expect(valueAt(plan, path), path).toBeDefined();
        expect(['cells', 'same', 'frame', 'setup'], path).toContain(group);
        expect(as === 'choice', path).toBe(options !== undefined);
        for (const words of [label, ...(hint === undefined ? [] : [hint])]) expect(words, path).toMatch(/[a-z]{2}/);
        if (unit !== undefined) expect(unit, path).not.toBe('');
        if (options === undefined) continue;
        expect(options.length, path).toBeGreaterThan(0);
        expect(new Set(options.map(({ value }) => value)).size, path).toBe(options.length);
        expect(new Set(options.map(({ name: words }) => words)).size, path).toBe(options.length);
        // What the plan has is among what can be chosen.
        expect(
          options.map(({ value }) => value),
          path,
        ).toContain(String(valueAt(plan, path) ?? ''));
        for (const { name: words } of options) expect(words, path).toMatch(/\w/);
      }
      for (const edge of kind.edges(plan)) expect(valueAt(plan, edge.path), edge.path).toBeDefined();
    }
  });

  it('says in a sentence what is wrong with a value that cannot be, under a field that it has', () => {
    const { plan, pairing } = all[0]!;
    const paths = [
      ...kind.fields(plan, pairing).map(({ path }) => path),
      ...kind.edges(plan).flatMap(({ path }) => ['from', 'to', 'count'].map((end) => `${path}.${end}`)),
    ].filter((path) => typeof valueAt(plan, path) === 'number');
    for (const path of paths) {
      const problems = [-1, 0, 0.123456, 1e6, NaN].map((value) =>
        planProblems(kind, withValueAt(plan, path, value), pairing),
      );
      for (const { field, message } of problems.flat()) {
        expect(message, `${path}: ${field}`).toMatch(/^[A-Z0-9“].*[a-z].*\.$/);
        expect(valueAt(plan, field), `${path}: ${field}`).toBeDefined();
      }
      // There is no number that may be anything.
      expect(problems.at(-1)!.length + problems[3]!.length, path).toBeGreaterThan(0);
    }
  });

  it('lays a plan that went through JSON to the same card, which survives JSON too', () => {
    for (const { pairing, plan, layout } of all) {
      expect(layCard(kind, copy(plan), copy(pairing), { cardNumber: 321 })).toEqual(layout);
      expect(copy(layout)).toEqual(layout);
    }
  });

  it('refuses plans of another version, and brings up only those it knows', () => {
    const { pairing, plan } = all[0]!;
    expect(kind.upgrade(copy(plan))).toEqual(plan);
    expect(() => kind.upgrade({ ...plan, version: 99 })).toThrow(RangeError);
    expect(planProblems(kind, { ...plan, version: 99 }, pairing)[0]!.field).toBe('version');
  });

  it('brings up plans of today from before settings said how long dots are drawn', () => {
    const { plan } = all[0]!;
    const older = JSON.parse(
      JSON.stringify(plan, (key, value: unknown) => (key === 'lengthenMm' ? undefined : value)),
    ) as object;
    expect(JSON.stringify(plan).includes('lengthenMm')).toBe(true);
    expect(storedPlan(name, older)).toEqual(plan);
  });

  it('is lettered and reasoned in the operator’s units, and in no others', () => {
    const other = all.filter(({ pairing }) => pairing.machine.likedUnits.length === 'in');
    expect(other.length).toBeGreaterThan(0);
    for (const { pairing, layout } of other) {
      const lettered = layout.frame.lettering.map((line) => line.text).join(' / ');
      expect(lettered).not.toMatch(/MM\b(?!\/MIN)|MM\/S/);
      const { reasons } = kind.propose({ pairing, facts: [] });
      // Energies are J/mm² and J/mm for everybody.
      for (const words of Object.values(reasons)) expect(words).not.toMatch(/\d mm\b(?!\/min)|mm\/s/);
    }
  });

  it('keeps cells within their area, apart from each other, from markers and from lettering', () => {
    for (const { layout } of all) {
      const { inner, cells, frame, widthMm, heightMm } = layout;
      const boxes = cells.map((cell) => cell.box);
      for (const box of boxes) {
        expect(box.x).toBeGreaterThanOrEqual(inner.x - 1e-6);
        expect(box.y).toBeGreaterThanOrEqual(inner.y - 1e-6);
        expect(box.x + box.width).toBeLessThanOrEqual(inner.x + inner.width + 1e-6);
        expect(box.y + box.height).toBeLessThanOrEqual(inner.y + inner.height + 1e-6);
      }
      const marks = frame.markers.map(({ x, y, sizeMm }) => ({ x, y, width: sizeMm, height: sizeMm }));
      // A hole lies in its part.
      const isWithin = (a: Rect, b: Rect): boolean =>
        a.x > b.x && a.y > b.y && a.x + a.width < b.x + b.width && a.y + a.height < b.y + b.height;
      const nests = cells.some(({ wanted }) => wanted);
      [...boxes, ...marks].forEach((a, index, list) => {
        const apart = list
          .slice(index + 1)
          .filter((b) => !(nests && isWithin(b, a)))
          .map((b) =>
            Math.max(a.x - (b.x + b.width), b.x - (a.x + a.width), a.y - (b.y + b.height), b.y - (a.y + a.height)),
          );
        expect(Math.min(...apart)).toBeGreaterThan(0.4);
        const inside = frame.lettering
          .flatMap((line) => line.strokes.flat())
          .filter(({ x, y }) => x > a.x && x < a.x + a.width && y > a.y && y < a.y + a.height);
        expect(inside).toEqual([]);
      });
      const outside = frame.lettering
        .flatMap((line) => line.strokes.flat())
        .filter(({ x, y }) => x < 0 || x > widthMm || y < 0 || y > heightMm);
      expect(outside).toEqual([]);
    }
  });

  it('lays levels along the edges as the planner has them: the larger end at the top, or at the right', () => {
    for (const { layout, plan } of all)
      for (const { channel, edge } of kind.edges(plan)) {
        // Some cells of a card may stand for something else.
        const levels = layout.cells.flatMap((cell) => {
          const level = cell.levels[channel];
          return level === undefined ? [] : Number(level);
        });
        expect(levels.length).toBeGreaterThan(1);
        const middleOf = (level: number): number => {
          const boxes = layout.cells.filter((cell) => Number(cell.levels[channel]) === level).map(({ box }) => box);
          return boxes.reduce((sum, { x, y }) => sum + (edge === 'left' ? -y : x), 0) / boxes.length;
        };
        const places = [...new Set(levels)].sort((a, b) => a - b).map(middleOf);
        expect(places, channel).toEqual([...places].sort((a, b) => a - b));
      }
  });

  it('orders every cell that burns once, the riskiest last', () => {
    for (const { layout } of all) {
      const burned = layout.cells.filter((cell) => !cell.leftOut).map((cell) => cell.index);
      expect([...layout.order].sort((a, b) => a - b)).toEqual(burned);
      const risks = layout.order.map((index) => layout.cells[index]!.risk);
      if (risks.length > 0 && new Set(layout.cells.map((cell) => cell.burns[0]!.settings.focusOffsetMm)).size === 1)
        expect(risks.at(-1)).toBe(Math.max(...risks));
    }
  });

  it('bounds what it then draws: lines, bytes and time', () => {
    for (const { pairing, plan, layout } of all) {
      const bound = boundOfPlan(kind, plan, pairing);
      const program = programOfCard(layout, pairing.machine, PLACE);
      expect(program.lines).toBeLessThanOrEqual(bound.lines);
      expect(program.text.length).toBeLessThanOrEqual(bound.bytes);
      expect(estimateCard(layout, pairing.machine).totalS).toBeLessThanOrEqual(bound.seconds);
      // A bound far off would refuse what could be burned.
      expect(bound.lines).toBeLessThan(4 * program.lines + 8000);
    }
  });

  it('says its bound and what is wrong before anything is drawn', () => {
    const drawsNothing = {
      ...kind,
      draw: () => {
        throw new Error('drawn');
      },
    };
    for (const { pairing, plan } of all) {
      expect(planProblems(drawsNothing, plan, pairing)).toEqual([]);
      expect(boundOfPlan(drawsNothing, plan, pairing).lines).toBeGreaterThan(0);
    }
  });

  it('refuses what is too much work, and what it says would fit does', () => {
    const { plan } = all[0]!;
    // Words in the units that plans are written in.
    const { machine } = all[0]!.pairing;
    const pairing = { ...all[0]!.pairing, machine: { ...machine, likedUnits: DEFAULT_LIKED_UNITS } };
    // Every flag off: nothing is left out.
    const flags = kind.fields(plan, pairing).filter((field) => field.as === 'flag');
    const whole = flags.reduce((from, { path }) => withValueAt(from, path, false), plan);
    const heavy = heaviest(kind, whole, pairing);
    const [problem, ...others] = planProblems(kind, heavy, pairing);
    expect(others).toEqual([]);
    const said = /^Too much for one card: .* would fit with (.*)\.$/.exec(problem!.message)?.[1];
    expect(said).toBeDefined();
    const eased = (from: BasePlan, ease: (typeof kind.eases)[number], words: string): BasePlan => {
      const value = new RegExp(
        ease
          .says(4711, DEFAULT_LIKED_UNITS)
          .replace('4711', String.raw`([\d.]+)`)
          .replace('passes', 'pass(?:es)?'),
      ).exec(words)?.[1];
      return value === undefined ? from : withValueAt(from, ease.path, Number(value));
    };
    for (const words of said!.split(', or with ')) {
      const lighter = kind.eases.reduce((from, ease) => eased(from, ease, words), heavy);
      expect(planProblems(kind, lighter, pairing), words).toEqual([]);
    }
  });

  // Of all kinds together every zero, every sense of the axes, either head and both ways of power; beam-off.bench.test.ts mixes them.
  it('is dark wherever nothing is drawn, by another parser’s reading', () => {
    const { pairing, layout } = all[1]!;
    const machines = machinesOf(pairing);
    const { machine } = machines[CARD_KIND_NAMES.indexOf(name) % machines.length]!;
    expectDark(programOfCard(layout, machine, PLACE), machine);
  });

  it('is told whole by its files, by other parsers’ reading', () => {
    for (const { pairing, layout } of all.slice(0, 3)) {
      const rows = parseCsv<Record<string, string>>(csvOfCells(layout, pairing.machine), { columns: true });
      const burns = layout.cells.flatMap((cell) => cell.burns.map((burn) => ({ cell, burn })));
      expect(rows).toHaveLength(burns.length);
      burns.forEach(({ cell, burn }, index) => {
        const row = rows[index]!;
        expect(Number(row['cell'])).toBe(cell.index);
        expect(Number(row['power_percent'])).toBeCloseTo(burn.settings.powerFraction * 100, 3);
        expect(Number(row['speed_mm_per_s'])).toBe(burn.settings.speedMmPerS);
        expect(Number(row['focus_offset_mm'])).toBe(burn.settings.focusOffsetMm);
        expect(row['burn_order']).toBe(cell.leftOut ? '' : String(layout.order.indexOf(cell.index) + 1));
      });
      const svg = svgOfCard(layout);
      expect(svg.match(/<g id="cell-\d+"/g) ?? []).toHaveLength(layout.cells.length);
      const chunks = [...gcodeChunks(layout, pairing.machine, PLACE)].join('');
      expect(chunks).toBe(programOfCard(layout, pairing.machine, PLACE).text);
    }
  });

  it('says what is missing when nothing was seen, and throws on no answer its asks let through', () => {
    for (const { pairing, layout } of all.slice(0, 3)) {
      const known = { pairing, facts: [] };
      const wish = kind.wish(pairing);
      const nothing: Seen = { readings: [], answers: [] };
      const empty = kind.find(layout, nothing, known, wish);
      expect(empty.missing).not.toEqual([]);
      for (let seed = 0; seed < 20; seed++) {
        const answers = kind.asks.flatMap((ask, place): Answer[] => {
          if (ask.by === 'photo') return [];
          const count = layout.cells.length;
          const cells = ask.by === 'eye' && ask.of === 'card' ? [null] : layout.cells.map((cell) => cell.index);
          return cells.flatMap((cellIndex, index): Answer[] => {
            const pick = (seed * 7 + place * 3 + index * (1 + (seed % 5))) % 97;
            if (pick % 4 === 3) return [];
            if (ask.by === 'pairs' && count < 2) return [];
            const value =
              ask.by === 'eye' || ask.by === 'mates'
                ? ask.options[pick % ask.options.length]!.id
                : ask.by === 'pairs'
                  ? `${pick % 3 === 0 ? '=' : ''}${(cellIndex! + 1) % count}`
                  : 0.01 + pick * 0.37;
            const answer = { field: ask.field, cellIndex, repeat: 0, value };
            expect(answerProblem(kind.asks, answer)).toBeNull();
            return [answer];
          });
        });
        const finding = kind.find(layout, { readings: [], answers }, known, wish);
        expect(finding.missing.length > 0 || finding.says.length > 0).toBe(true);
        for (const draft of kind.settle(finding, layout, { readings: [], answers }, { cellIndex: 0 }))
          expect(draft.sigma === null || draft.sigma >= 0).toBe(true);
      }
    }
  });

  it('asks with keys of their own that no screen uses', () => {
    for (const ask of kind.asks) {
      if (ask.by !== 'eye') continue;
      const keys = ask.options.map((option) => option.key);
      expect(new Set(keys).size).toBe(keys.length);
      // U undoes, K keeps, 0 clears everywhere.
      for (const key of keys) expect(key).toMatch(/^[a-jl-tv-z1-9]$/);
      expect(answerProblem(kind.asks, { field: ask.field, cellIndex: 0, repeat: 0, value: 'mystery' })).not.toBeNull();
      expect(answerProblem(kind.asks, { field: ask.field, cellIndex: 0, repeat: 1, value: keys[0]! })).not.toBeNull();
    }
  });

  it('marks its frame far under what cuts, and each cell’s burns stay by its box', () => {
    for (const { layout } of all) {
      for (const cell of layout.cells) {
        for (const { shape } of cell.burns) {
          const box = boxOfShape(shape);
          expect(box.x).toBeGreaterThan(cell.box.x - 0.5);
          expect(box.x + box.width).toBeLessThan(cell.box.x + cell.box.width + 0.5);
          expect(box.y).toBeGreaterThan(cell.box.y - 0.5);
          expect(box.y + box.height).toBeLessThan(cell.box.y + cell.box.height + 0.5);
        }
      }
    }
  });
});
