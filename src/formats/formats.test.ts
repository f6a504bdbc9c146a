import { parse as parseCsv } from 'csv-parse/sync';
import gcodeParser from 'gcode-parser';
import { describe, expect, it } from 'vitest';
import { exportCard } from '../app/exports';
import { laserTruthOf } from '../bench/bench';
import { SimulatedLaser } from '../bench/laser';
import { benchMachineOf } from '../bench/of-records';
import { grid } from '../cards/grid';
import { estimateCard } from '../core/card/estimate';
import type { CardRecord } from '../db/cards';
import { BURNABLE, demoPairing } from '../../tests/support/demo';
import { csvOf, csvOfCells } from './csv';
import { FULL_POWER_S, gcodeOfCard } from './gcode';
import { svgOfCard } from './card-svg';
import sharp from 'sharp';

const pairing = demoPairing('marl', 'alder');
const layout = grid.lay(grid.propose({ pairing }).plan, pairing, { cardNumber: 41 });
const bed = { leftMm: 80, rearMm: 120 };
const program = gcodeOfCard(layout, pairing.machine, bed);

interface Line {
  readonly words: readonly (readonly [letter: string, value: number])[];
}

/** The straight strokes with the beam on, as another parser reads the program. */
function litStrokes(): { x0: number; y0: number; x1: number; y1: number; feed: number; s: number }[] {
  const lines = gcodeParser.parseStringSync(program) as Line[];
  const lit = [];
  let x = 0;
  let y = 0;
  let feed = 0;
  let s = 0;
  let motion = 0;
  for (const { words } of lines) {
    const word = new Map(words.map(([letter, value]) => [letter, Number(value)]));
    if (word.has('G') && word.get('G')! <= 1) motion = word.get('G')!;
    feed = word.get('F') ?? feed;
    s = word.get('S') ?? s;
    const x1 = word.get('X') ?? x;
    const y1 = word.get('Y') ?? y;
    if (motion === 1 && s > 0 && (x1 !== x || y1 !== y)) lit.push({ x0: x, y0: y, x1, y1, feed, s });
    [x, y] = [x1, y1];
  }
  return lit;
}

describe('G-code', () => {
  it('is the same each time', () => expect(gcodeOfCard(layout, pairing.machine, bed)).toBe(program));

  it('burns each cell’s lines at its power and speed, by another parser’s reading', () => {
    const strokes = litStrokes();
    for (const cell of layout.cells) {
      const left = bed.leftMm + cell.x;
      const top = pairing.machine.bedDepthMm - bed.rearMm - cell.y;
      const own = strokes.filter(
        ({ x0, y0, x1, y1 }) =>
          Math.min(x0, x1) >= left - 1e-3 &&
          Math.max(x0, x1) <= left + cell.width + 1e-3 &&
          Math.max(y0, y1) <= top + 1e-3 &&
          Math.min(y0, y1) >= top - cell.height - 1e-3,
      );
      expect(own).toHaveLength(Math.floor(cell.height / cell.settings.intervalMm + 1e-9));
      for (const stroke of own) {
        expect(stroke.s).toBe(Math.round(cell.settings.powerFraction * FULL_POWER_S));
        expect(stroke.feed / 60).toBeCloseTo(cell.settings.speedMmPerS, 3);
        expect(Math.hypot(stroke.x1 - stroke.x0, stroke.y1 - stroke.y0)).toBeCloseTo(cell.width, 2);
      }
    }
  });

  it('is taken whole by the bench, which needs about the time that was estimated', () => {
    for (const [machineName, stockName] of BURNABLE.slice(0, 6)) {
      const on = demoPairing(machineName, stockName);
      const card = grid.lay(grid.propose({ pairing: on }).plan, on, { cardNumber: 5 });
      const laser = new SimulatedLaser(laserTruthOf(benchMachineOf(on.machine, on.lens)));
      for (const line of gcodeOfCard(card, on.machine, { leftMm: 60, rearMm: 60 }).split('\n'))
        expect(laser.send(line), line).toEqual({ ok: true });
      laser.finish();
      const ratio = laser.elapsedS / estimateCard(card, on.machine).totalS;
      // The bench is 4 to 10 % slower to speed up than its record says, and adds up to a millisecond a line.
      expect(ratio).toBeGreaterThan(0.97);
      expect(ratio).toBeLessThan(1.15);
    }
  });
});

describe('SVG', () => {
  it('is the same each time, with one named group a cell and its settings as data', () => {
    const svg = svgOfCard(layout);
    expect(svgOfCard(layout)).toBe(svg);
    expect(svg.match(/<g id="cell-\d+"/g)).toHaveLength(layout.cells.length);
    expect(svg).toContain(`data-power-fraction="${layout.cells[0]!.settings.powerFraction}"`);
  });
  it('lets nothing out of its attributes', () => {
    const odd = { ...layout, lettering: [{ role: 'header' as const, text: '"><script>', strokes: [] }] };
    expect(svgOfCard(odd)).not.toContain('<script>');
  });
});

describe('CSV', () => {
  it('holds every cell, by another parser’s reading', () => {
    const rows = parseCsv(csvOfCells(layout), { columns: true }) as Record<string, string>[];
    expect(rows).toHaveLength(layout.cells.length);
    rows.forEach((row, index) => {
      const cell = layout.cells[index]!;
      expect(Number(row['power_percent'])).toBeCloseTo(cell.settings.powerFraction * 100, 3);
      expect(Number(row['speed_mm_per_s'])).toBe(cell.settings.speedMmPerS);
      expect(Number(row['burn_order'])).toBe(layout.order.indexOf(index) + 1);
    });
  });
  it('quotes what must be quoted and disarms formulas', () => {
    const text = csvOf(['note'], [{ note: 'two "words", one\nline' }, { note: '=1+1' }]);
    const rows = parseCsv(text, { columns: true }) as { note: string }[];
    expect(rows.map((row) => row.note)).toEqual(['two "words", one\nline', "'=1+1"]);
  });
});

describe('PNG preview', () => {
  it('records its physical size', async () => {
    const { bytes } = await exportCard({ layout, madeFor: pairing, bed } as unknown as CardRecord, 'png');
    const { width, height, density } = await sharp(bytes).metadata();
    expect((width / density!) * 25.4).toBeCloseTo(layout.widthMm, 0);
    expect((height / density!) * 25.4).toBeCloseTo(layout.heightMm, 0);
  });
});
