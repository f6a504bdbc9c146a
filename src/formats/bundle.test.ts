import { converter } from 'culori';
import DxfParser from 'dxf-parser';
import yauzl from 'yauzl';
import { beforeEach, describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { grid } from '../cards/grid';
import type { GridPlan } from '../cards/grid/plan';
import { kerf } from '../cards/kerf';
import { layCard } from '../core/card/lay';
import type { Layout } from '../core/card/layout';
import { boxOfShape, linesOf } from '../core/card/shape';
import { cardSteps } from '../core/card/steps';
import { UNSAID_SETUP } from '../core/card/work-setup';
import { bundleOfCard } from './bundle';
import { listOfSteps } from './settings-list';
import { STEP_COLOURS, stepColour } from './step-colours';
import { dxfOfSteps, layerName } from './steps-dxf';

const pairing = demoPairing('marl', 'alder');
const { machine } = pairing;
let plan: GridPlan;
let layout: Layout;
let steps: ReturnType<typeof cardSteps>;
beforeEach(() => {
  ({ plan } = grid.propose({ pairing, facts: [] }));
  layout = layCard(grid, plan, pairing, { cardNumber: 41 });
  steps = cardSteps(layout, machine);
});
const bed = { leftMm: 80, rearMm: 120 };

interface Polyline {
  readonly type: string;
  readonly layer: string;
  readonly shape?: boolean;
  readonly vertices: readonly { x: number; y: number }[];
}

const dxf = (text: string) => {
  const read = new DxfParser().parseSync(text);
  if (!read) throw new Error('not read');
  return read as unknown as {
    entities: Polyline[];
    header: Record<string, unknown>;
    tables: { layer: { layers: Record<string, { colorIndex: number }> } };
  };
};

/** Names and bytes of a zip, by a reader that refuses what is odd; each file is as old as zips know, or equal cards would give unequal bytes. */
async function filesOf(bytes: Uint8Array): Promise<Map<string, Buffer>> {
  const files = new Map<string, Buffer>();
  const zip = await yauzl.fromBufferPromise(Buffer.from(bytes), { lazyEntries: false, validateEntrySizes: true });
  for await (const entry of zip.eachEntry()) {
    const chunks: Buffer[] = [];
    for await (const chunk of await zip.openReadStreamPromise(entry)) chunks.push(chunk as Buffer);
    files.set(entry.fileName, Buffer.concat(chunks));
    expect(entry.getLastModDate({ timezone: 'local' })).toEqual(new Date(1980, 0, 1));
  }
  return files;
}

describe('steps of a card', () => {
  it('hold every burn once, one step for each distinct setting, the riskiest last', () => {
    const settings = steps.map((step) => JSON.stringify([step.does, step.settings]));
    expect(new Set(settings).size).toBe(steps.length);
    const burned = layout.cells.filter((cell) => !cell.leftOut).map((cell) => cell.index);
    expect(steps.flatMap((step) => step.cells).sort((a, b) => a - b)).toEqual(burned);
    expect(steps.at(-1)!.cells).toContain(layout.order.at(-1));
    expect(steps.slice(0, 2).map((step) => step.does)).toEqual(['sweep', 'follow']);
    for (const step of steps)
      for (const index of step.cells) {
        const [burn] = layout.cells[index]!.burns;
        expect(step.settings).toEqual(burn!.settings);
        expect(step.shapes).toContainEqual(burn!.shape);
      }
  });
  it('gather cells that are cut alike', () => {
    const cut = layCard(kerf, kerf.propose({ pairing, facts: [] }).plan, pairing, { cardNumber: 2 });
    const cells = cardSteps(cut, machine).filter((step) => step.cells.length > 0);
    expect(cells).toHaveLength(1);
    expect(cells[0]!.cells).toHaveLength(cut.cells.length);
    // By the numbers that are cut into them, counted from one, in burn order.
    expect(cells[0]!.name).toBe('03 cells 4 3 2 1');
  });
  it('are numbered in burn order from one, in two digits, and named after what they burn', () => {
    expect(steps.map((step) => step.number)).toEqual(steps.map((_, index) => index + 1));
    steps.forEach((step, index) => {
      const number = index + 1 < 10 ? `0${index + 1}` : `${index + 1}`;
      const [cell, ...more] = step.cells;
      if (cell === undefined) expect(step.name).toBe(`${number} ${index === 0 ? 'marker' : 'lettering'}`);
      else if (more.length === 0) expect(step.name).toBe(`${number} cell ${cell + 1}`);
      else expect(step.name).toBe(`${number} cells ${step.cells.map((one) => one + 1).join(' ')}`);
    });
  });
});

describe('the drawing as DXF', () => {
  let read: ReturnType<typeof dxf>;
  beforeEach(() => {
    read = dxf(dxfOfSteps(steps, layout));
  });
  it('holds each step’s outlines where they lie, y up from the lower left corner, areas closed', () => {
    for (const step of steps) {
      const own = read.entities.filter((entity) => entity.layer === layerName(step.name));
      const outlines = step.shapes.flatMap((shape) => linesOf(shape));
      expect(own).toHaveLength(outlines.length);
      own.forEach((entity, index) => {
        expect(entity.type).toBe('POLYLINE');
        expect(entity.shape === true).toBe(step.does === 'sweep');
        entity.vertices.forEach((vertex, place) => {
          expect(vertex.x).toBeCloseTo(outlines[index]![place]!.x, 3);
          expect(vertex.y).toBeCloseTo(layout.heightMm - outlines[index]![place]!.y, 3);
        });
      });
    }
  });
});

describe('colours of steps', () => {
  it('are each other than all before, and named alike in both files', () => {
    const all = Array.from({ length: STEP_COLOURS }, (_, place) => stepColour(place));
    expect(new Set(all.map(({ index }) => index)).size).toBe(240);
    for (const { index } of all) {
      expect(index).toBeGreaterThanOrEqual(10);
      expect(index).toBeLessThanOrEqual(249);
    }
    // From memory of that table: 10 is full red, 90 full green, 170 full blue.
    const hex = (index: number): string => all.find((colour) => colour.index === index)!.hex;
    expect([10, 90, 170].map(hex)).toEqual(['#ff0000', '#00ff00', '#0000ff']);
  });
  it('are 24 hues, 15 degrees apart, of five strengths, full and half as full, as a reference library tells colours', () => {
    const inHsv = converter('hsv');
    for (let place = 0; place < STEP_COLOURS; place++) {
      const { index, hex } = stepColour(place);
      const { h = 0, s, v } = inHsv(hex)!;
      const digit = index % 10;
      // Bytes are whole: dark colours tell hue and fullness less exactly.
      const step = 1 / 255 / v;
      expect(Math.abs(v - [1, 0.65, 0.5, 0.3, 0.15][digit >> 1]!), hex).toBeLessThan(0.003);
      expect(Math.abs(s - (digit % 2 === 1 ? 0.5 : 1)), hex).toBeLessThanOrEqual(2 * step);
      const away = Math.abs(h - 15 * Math.floor((index - 10) / 10));
      expect(Math.min(away, 360 - away), hex).toBeLessThanOrEqual((60 * 2 * step) / s);
    }
  });
});

describe('the bundle', () => {
  const make = () => bundleOfCard(layout, pairing, { bed, setup: plan.setup, png: new Uint8Array([137, 80, 78, 71]) });
  it('is a zip of both drawings, the list, the outline and the picture, the same each time', async () => {
    const files = await filesOf(make());
    const name = `card-${layout.code}`;
    expect([...files.keys()].sort()).toEqual(
      ['.dxf', '-outline.dxf', '-outline.svg', '.png', '-settings.html', '.svg'].map((end) => name + end).sort(),
    );
    expect(Buffer.compare(Buffer.from(make()), Buffer.from(make()))).toBe(0);
    const outline = dxf(files.get(`${name}-outline.dxf`)!.toString());
    expect(outline.entities).toHaveLength(1);
    const box = boxOfShape({ do: 'follow', lines: [outline.entities[0]!.vertices] });
    expect(box).toEqual({ x: 0, y: 0, width: layout.widthMm, height: layout.heightMm });
  });
});

describe('the printable list', () => {
  const rowsOf = (page: string) =>
    [...page.matchAll(/<tr><td><span class="box">.*?<\/tr>/g)].map((match) =>
      [...match[0].matchAll(/<td>([^<]*)<\/td>/g)].map((cell) => cell[1]!),
    );
  const heads = (page: string) => [...page.matchAll(/<th[^>]*>([^<]*)<\/th>/g)].map((match) => match[1]!);
  it('tells run-up by the speed of each step, v² / 2a, and none where lines are followed', () => {
    const rows = rowsOf(listOfSteps(steps, layout, pairing, { bed, setup: plan.setup }));
    rows.forEach((row, index) => {
      const { settings, does } = steps[index]!;
      const along = settings.direction === 'horizontal' ? machine.accelerationXMmPerS2 : machine.accelerationYMmPerS2;
      const runUp = settings.speedMmPerS ** 2 / (2 * along);
      expect(row[2]).toBe(does === 'sweep' ? 'fills' : 'follows lines');
      if (does === 'sweep') expect(Number(row.at(-1)!.replace(' mm', '')) / runUp).toBeCloseTo(1, 1);
      else expect(row.at(-1)).toBe('none');
      expect(row[6]).toBe(String(settings.passes));
      expect(row[7]).toBe('as set');
      expect(row[8]).toBe(settings.air);
      expect(row[9]).toBe(does === 'sweep' ? 'along X, both ways' : '');
    });
    expect(heads(listOfSteps(steps, layout, pairing, { bed, setup: plan.setup }))[0]).toBe('Done');
    const down = layCard(
      grid,
      {
        ...plan,
        sweeps: 'cells',
        down: { ...plan.down, to: 240 },
        constants: { ...plan.constants, direction: 'vertical', bothWays: false },
      },
      pairing,
      { cardNumber: 4 },
    );
    const downRows = rowsOf(listOfSteps(cardSteps(down, machine), down, pairing, { bed, setup: plan.setup }));
    expect(downRows.filter((row) => row[9] === 'along Y, one way').length).toBeGreaterThanOrEqual(
      down.order.length / 2,
    );
    expect(rows.some((row) => row.at(-1) === 'none')).toBe(true);
  });
  it('asks mirrors for angle and frequency instead, and says where focus is to be set', () => {
    const tern = demoPairing('tern', 'twoLayer');
    const { plan: made } = grid.propose({ pairing: tern, facts: [] });
    const turned = {
      ...made,
      constants: { ...made.constants, lineAngleDeg: 30, crossHatch: true, frequencyKHz: 40, focusOffsetMm: 1.5 },
    };
    const laid = layCard(grid, turned, tern, { cardNumber: 9 });
    const page = listOfSteps(cardSteps(laid, tern.machine), laid, tern, { bed, setup: UNSAID_SETUP });
    expect(heads(page).slice(-2)).toEqual(['Angle', 'Frequency']);
    expect(heads(listOfSteps(steps, layout, pairing, { bed, setup: plan.setup })).at(-1)).toBe('Run-up');
    const cells = rowsOf(page).filter((row) => row[7] !== 'as set');
    expect(cells.length).toBeGreaterThan(10);
    for (const row of cells) expect([row[7], row[10], row[11]]).toEqual(['+1.5 mm', '30°, crossed', '40 kHz']);
    // Nothing was said of how it is set up: nothing is told of it.
    expect(page).not.toContain('Set up:');
    expect(listOfSteps(steps, layout, pairing, { bed, setup: plan.setup })).toContain('<p>Set up: on honeycomb');
  });
  it('names card, stock, machine and place, with nothing that could end what it stands in', () => {
    const odd = { ...pairing, stock: { ...pairing.stock, name: 'Alder <b>"board"</b>' } };
    const page = listOfSteps(steps, layout, odd, { bed, setup: plan.setup });
    expect(page).toContain(`<h1>Card ${layout.code}</h1>`);
    expect(page).toContain('Alder &#60;b&#62;&#34;board&#34;&#60;/b&#62; on Marl');
    expect(page).toContain('upper left corner 80 mm from the bed’s left edge and 120 mm from its rear edge');
  });
});
