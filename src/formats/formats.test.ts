import { parse as parseCsv } from 'csv-parse/sync';
import { beforeEach, describe, expect, it } from 'vitest';
import { bed as bedCard } from '../cards/bed';
import { grid } from '../cards/grid';
import type { GridPlan } from '../cards/grid/plan';
import { layCard } from '../core/card/lay';
import { mainBurn, type Layout } from '../core/card/layout';
import { demoPairing } from '../../stand-ins/demo';
import { armedMoves } from '../../tests/support/program';
import { csvOfCells } from './csv-cells';
import { FULL_POWER_S, programOfCard } from './gcode';
import { svgOfCard } from './card-svg';
import { TASKS } from '../workers/tasks';
import { PROTOCOL_VERSION } from '../workers/protocol';
import sharp from 'sharp';

const pairing = demoPairing('marl', 'alder');
let plan: GridPlan;
let layout: Layout;
let program: ReturnType<typeof programOfCard>;
beforeEach(() => {
  ({ plan } = grid.propose({ pairing, facts: [] }));
  layout = layCard(grid, plan, pairing, { cardNumber: 41 });
  program = programOfCard(layout, pairing.machine, bed);
});
const bed = { leftMm: 80, rearMm: 120 };

describe('G-code', () => {
  it('is the same each time', () => expect(programOfCard(layout, pairing.machine, bed)).toEqual(program));

  it('burns each cell’s lines at its power and speed, by another parser’s reading', () => {
    const strokes = armedMoves(program.text).filter((move) => !move.rapid && move.s > 0 && move.length > 0);
    for (const cell of layout.cells) {
      const { settings } = mainBurn(cell);
      const left = bed.leftMm + cell.box.x;
      const top = pairing.machine.bedDepthMm - bed.rearMm - cell.box.y;
      const own = strokes.filter(
        ({ x0, y0, x1, y1 }) =>
          Math.min(x0, x1) >= left - 1e-3 &&
          Math.max(x0, x1) <= left + cell.box.width + 1e-3 &&
          Math.max(y0, y1) <= top + 1e-3 &&
          Math.min(y0, y1) >= top - cell.box.height - 1e-3,
      );
      expect(own).toHaveLength(Math.floor(cell.box.height / settings.intervalMm + 1e-9));
      for (const stroke of own) {
        expect(stroke.s).toBe(Math.round(settings.powerFraction * FULL_POWER_S));
        expect(stroke.feedMmPerMin / 60).toBeCloseTo(settings.speedMmPerS, 3);
        expect(stroke.length).toBeCloseTo(cell.box.width, 2);
      }
    }
  });

  it('names its parts by line, as data: a cell’s part begins where its burn begins', () => {
    const lines = program.text.split('\n');
    expect(program.parts.flatMap((part) => part.cells)).toEqual(layout.order);
    for (const { line, cells } of program.parts)
      if (cells.length > 0) expect(lines[line]).toBe(`(cell${cells.length > 1 ? 's' : ''} ${cells.join(' ')})`);
  });

  it('cannot be told words by a name in a comment', () => {
    const odd: Layout = { ...layout, code: 'G1)\nG1 X0 (' };
    const { text } = programOfCard(odd, pairing.machine, bed);
    expect(text.split('\n')[0]!.startsWith('(')).toBe(true);
    expect(armedMoves(text.split('\n').slice(0, 3).join('\n')).filter((move) => move.s > 0)).toEqual([]);
  });
});

describe('SVG', () => {
  it('lets nothing out of its attributes', () => {
    const lettering = [{ role: 'header' as const, text: '"><script>', strokes: [] }];
    const odd = { ...layout, frame: { ...layout.frame, lettering } };
    expect(svgOfCard(odd)).not.toContain('<script>');
  });
});

describe('CSV', () => {
  it('holds what was delivered, by another parser’s reading: watts by the measured table, energy over speed', () => {
    const rows = parseCsv<Record<string, string>>(csvOfCells(layout, pairing.machine), { columns: true });
    expect(rows).toHaveLength(layout.cells.length);
    for (const row of rows) {
      const watts = Number(row['delivered_w']);
      expect(Number(row['line_energy_j_per_mm'])).toBeCloseTo(watts / Number(row['speed_mm_per_s']), 4);
      expect(Number(row['areal_energy_j_per_mm2'])).toBeCloseTo(
        (watts / Number(row['speed_mm_per_s']) / Number(row['interval_mm'])) * Number(row['passes']),
        3,
      );
      expect(Number(row['level_power'])).toBeCloseTo(Number(row['power_percent']) / 100, 6);
    }
  });
});

describe('PNG preview', () => {
  it('records its physical size', async () => {
    const chunks: Uint8Array[] = [];
    const job = {
      version: PROTOCOL_VERSION,
      task: 'export',
      format: 'png',
      layout,
      pairing,
      bed,
      setup: plan.setup,
    } as const;
    await TASKS.export(job, (bytes) => chunks.push(bytes));
    const { width, height, density } = await sharp(Buffer.concat(chunks)).metadata();
    expect((width / density!) * 25.4).toBeCloseTo(layout.widthMm, 0);
    expect((height / density!) * 25.4).toBeCloseTo(layout.heightMm, 0);
  });
});

describe('files of a card that stands in several places', () => {
  it('name each marker by its corner and its place, no two alike', () => {
    const standing = layCard(bedCard, bedCard.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 4 });
    const ids = [...svgOfCard(standing).matchAll(/ id="(marker-[^"]+)"/g)].map(([, id]) => id);
    expect(ids).toHaveLength(36);
    expect(new Set(ids).size).toBe(36);
    expect(ids).toContain('marker-lower-left-C2');
    const { parts } = programOfCard(standing, pairing.machine, bed);
    expect(parts.filter(({ name }) => name.startsWith('marker ')).map(({ name }) => name)).toContain(
      'marker upper-right B2',
    );
  });
});
