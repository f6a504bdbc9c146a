import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { gridOfFew } from '../../tests/support/few-cells';
import { benchMachineOf } from '../bench/of-records';
import { focus } from '../cards/focus';
import { grid } from '../cards/grid';
import { layCard } from '../core/card/lay';
import type { Layout } from '../core/card/layout';
import type { Db } from '../db/client';
import { programOfCard, type Program } from '../formats/gcode';
import { BurnRunner } from './burn-runner';

const on = demoPairing('heron', 'birch');
const PLACE = { leftMm: 60, rearMm: 60 };
const SILENT = { info: () => undefined, warn: () => undefined, error: () => undefined };

interface Noted {
  readonly status?: string;
  readonly linesDone?: number;
  readonly actualS?: number;
  readonly fault?: string | null;
  readonly hands?: string;
}

/** A database that takes every update and remembers what was set. */
function takingDb(): { db: Db; noted: Noted[] } {
  const noted: Noted[] = [];
  const query = {
    set: (values: Noted) => (noted.push(values), query),
    where: () => query,
    execute: () => Promise.resolve([]),
  };
  return { db: { updateTable: () => query } as unknown as Db, noted };
}

function running(layout: Layout, program: Program = programOfCard(layout, on.machine, PLACE)) {
  const { db, noted } = takingDb();
  const runner = new BurnRunner(db, SILENT, () => new Date(0), 10);
  const place = { ...PLACE, widthMm: layout.widthMm, heightMm: layout.heightMm };
  runner.start(7, program, benchMachineOf(on.machine, on.lens), place);
  return { runner, program, noted };
}
const small = (): Layout => layCard(grid, { ...gridOfFew(on, 2, 2), cellMm: 3 }, on, { cardNumber: 5 });
/** So many ticks of a tenth of a second, each ten seconds of the bench's. */
const pass = (ticks: number): Promise<unknown> => vi.advanceTimersByTimeAsync(100 * ticks);

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('a burn on the bench', () => {
  it('notes how far it has come each time that more than four hundred lines were sent, and not at every turn', async () => {
    const { plan } = grid.propose({ pairing: on, facts: [] });
    const { program, noted } = running(layCard(grid, plan, on, { cardNumber: 5 }));
    expect(program.lines).toBeGreaterThan(2000);
    let turns = 0;
    while (noted.at(-1)?.status !== 'done' && turns < 400) {
      await pass(1);
      turns++;
    }
    const told = noted.filter(({ status }) => status === 'running').map(({ linesDone }) => linesDone!);
    expect(told.length).toBeGreaterThan(2);
    expect(told.length).toBeLessThan(turns);
    told.forEach((lines, index) => expect(lines - (told[index - 1] ?? 0)).toBeGreaterThan(400));
    // None is forgotten for long: a turn sends so many lines at the most.
    const most = Math.max(...told.map((lines, index) => lines - (told[index - 1] ?? 0)));
    expect(program.lines - told.at(-1)!).toBeLessThanOrEqual(400 + most);
  });
  it('is nowhere until it is started, and told from its first line to its last by the parts of its program', async () => {
    const layout = small();
    const { runner, program, noted } = running(layout);
    expect(runner.progressOf(8)).toBeNull();
    expect(runner.progressOf(7)).toMatchObject({
      linesDone: 0,
      elapsedS: 0,
      paused: false,
      part: '',
      cells: [],
      cellsDone: [],
      hand: null,
    });
    const seen: string[] = [];
    let before = { linesDone: 0, elapsedS: 0 };
    for (let tick = 1; tick < 200; tick++) {
      await pass(1);
      const now = runner.progressOf(7);
      if (!now) break;
      expect(now.linesDone).toBeGreaterThanOrEqual(before.linesDone);
      // No further than the time that has passed, but for the line that was begun in it.
      expect(before.elapsedS).toBeLessThan(tick);
      before = now;
      // The last part whose first line was sent is the one that burns; what came before it is done.
      const begun = program.parts.filter(({ line }) => line < now.linesDone);
      expect(now.part).toBe(begun.at(-1)?.name ?? '');
      expect(now.cells).toEqual(begun.at(-1)?.cells ?? []);
      expect(now.cellsDone).toEqual(begun.slice(0, -1).flatMap(({ cells }) => cells));
      if (seen.at(-1) !== now.part) seen.push(now.part);
    }
    expect(seen).toContain('lettering');
    expect(runner.progressOf(7)).toBeNull();
    expect(noted.at(-1)).toMatchObject({ status: 'done', linesDone: program.lines, fault: null, hands: '[]' });
    expect(noted.at(-1)!.actualS).toBeGreaterThan(5);
  });

  it('stands still while it is paused, and goes on where it was', async () => {
    const { runner, noted } = running(small());
    await pass(2);
    expect(await runner.setPaused(7, true)).toBe(true);
    const stood = runner.progressOf(7)!;
    expect(stood).toMatchObject({ paused: true });
    expect(noted.at(-1)).toMatchObject({ status: 'paused', linesDone: stood.linesDone });
    await pass(5);
    expect(runner.progressOf(7)).toEqual(stood);
    expect(await runner.setPaused(7, false)).toBe(true);
    expect(noted.at(-1)).toMatchObject({ status: 'running' });
    await pass(3);
    expect(runner.progressOf(7)!.linesDone).toBeGreaterThan(stood.linesDone);
    expect(await runner.setPaused(8, true)).toBe(false);
  });

  it('is stopped where it is, for good', async () => {
    const { runner, program, noted } = running(small());
    await pass(2);
    const { linesDone } = runner.progressOf(7)!;
    expect(await runner.stop(7)).toBe(true);
    expect(runner.progressOf(7)).toBeNull();
    expect(noted.at(-1)).toMatchObject({ status: 'stopped', linesDone: linesDone });
    expect(linesDone).toBeLessThan(program.lines);
    expect(await runner.stop(7)).toBe(false);
  });

  it('waits for a hand, says for what, and goes on with what it did', async () => {
    const { plan } = focus.propose({ pairing: on, facts: [] });
    const layout = layCard(focus, plan, on, { cardNumber: 6 });
    const { runner, program, noted } = running(layout);
    const stop = program.parts.find(({ hand }) => hand !== null)!;
    while (runner.progressOf(7)!.hand === null) await pass(1);
    const waiting = runner.progressOf(7)!;
    expect(waiting.hand).toEqual(stop.hand);
    expect(waiting.linesDone).toBe(stop.line + 1);
    await pass(4);
    expect(runner.progressOf(7)!.linesDone).toBe(waiting.linesDone);
    // Neither pause nor anybody else's hand moves it on.
    expect(await runner.setPaused(7, true)).toBe(false);
    expect(await runner.proceed(8, { focusOffsetMm: 0 })).toBe(false);
    expect(await runner.proceed(7, { focusOffsetMm: stop.hand!.focusOffsetMm })).toBe(true);
    // It stood four ticks of a second of the bench's each, and a part of the one before.
    const [hand, ...more] = JSON.parse(noted.at(-1)!.hands!) as {
      line: number;
      focusOffsetMm: number;
      seconds: number;
    }[];
    expect(more).toEqual([]);
    expect(hand).toMatchObject({ line: stop.line, focusOffsetMm: stop.hand!.focusOffsetMm });
    expect(hand!.seconds).toBeGreaterThanOrEqual(4);
    expect(hand!.seconds).toBeLessThan(6);
    expect(await runner.proceed(7, { focusOffsetMm: 0 })).toBe(false);
    await pass(2);
    expect(runner.progressOf(7)!.linesDone).toBeGreaterThan(waiting.linesDone);
    await runner.finishNow(7);
    expect(noted.at(-1)).toMatchObject({ status: 'done', linesDone: program.lines });
    expect(JSON.parse(noted.at(-1)!.hands!)).toHaveLength(program.parts.filter(({ hand: one }) => one !== null).length);
  });

  it('is interrupted by what the bench refuses, with its words, and by a server that ends', async () => {
    const bad: Program = { text: 'G21\nG90\nM4 S0\nG0 X9999 Y1 S0\nM2\n', lines: 5, parts: [] };
    const broken = running(small(), bad);
    await pass(1);
    expect(broken.runner.progressOf(7)).toBeNull();
    expect(broken.noted.at(-1)).toMatchObject({
      status: 'interrupted',
      linesDone: 3,
      fault: 'line 4 was refused: X9999 Y1 is outside the bed',
    });
    const ended = running(small());
    await pass(1);
    await ended.runner.close();
    expect(ended.noted.at(-1)).toMatchObject({ status: 'interrupted', fault: null });
    expect(ended.runner.progressOf(7)).toBeNull();
  });
});
