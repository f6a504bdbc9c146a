import { describe, expect, it } from 'vitest';
import { parse as parseCsv } from 'csv-parse/sync';
import { cellOf, layoutOf } from '../../tests/support/bare-layout';
import { demoPairing } from '../../stand-ins/demo';
import { PLAIN_FILL } from '../../tests/support/settings';
import type { Burn } from '../core/card/shape';
import type { Step } from '../core/card/steps';
import { UNSAID_SETUP } from '../core/card/work-setup';
import { svgOfCard } from './card-svg';
import { csvOf } from './csv';
import { csvOfCells } from './csv-cells';
import { outlineProgram, outlineStep } from './outline';
import { stepColour, STEP_COLOURS } from './step-colours';
import { dxfOfSteps, layerName } from './steps-dxf';
import { listOfSteps } from './settings-list';
import { svgOfSteps } from './steps-svg';
import { points } from '../../tests/support/points';
import { listed } from '../../tests/support/listed';

const { machine: heron } = demoPairing('heron', 'birch');
const machine = { ...heron, bedWidthMm: 200, bedDepthMm: 100, ratedPowerW: 10, powerTable: null };
const place = { leftMm: 10, rearMm: 20 };
const ring = points([1, 1], [3, 1], [3, 2.5], [1, 2.5]);
const line = points([0, 3], [4, 3.00004]);
const fill: Burn = { shape: { do: 'sweep', area: [ring] }, settings: { ...PLAIN_FILL, air: 'low' } };
const follow: Burn = {
  shape: { do: 'follow', lines: [line] },
  settings: { ...PLAIN_FILL, runUpMm: 1.5, frequencyKHz: 30 },
};
const cell = (index: number, burn: Burn, leftOut = false) =>
  cellOf(index, burn, { box: { x: 1, y: 1, width: 2, height: 1.5 }, levels: { power: 0.2, speed: 100 }, leftOut });
const plain = layoutOf([cell(0, fill), cell(1, fill, true)], { before: [follow], after: [fill] });
const layout = {
  ...plain,
  frame: { ...plain.frame, lettering: [{ role: 'code', text: 'A<1', strokes: [line] } as const] },
};

const SETTINGS =
  'data-power-fraction="0.2" data-speed-mm-per-s="100" data-interval-mm="0.1" data-passes="1" data-focus-offset-mm="0"';
const REST = 'data-scan-offset-mm="0" data-lengthen-mm="0" data-line-angle-deg="0" data-cross-hatch="false"';
const FILL_DATA = `data-do="sweep" ${SETTINGS} data-air="low" data-direction="horizontal" data-both-ways="true" data-run-up-mm="auto" ${REST} data-frequency-k-hz="auto"`;
const FOLLOW_DATA = `data-do="follow" ${SETTINGS} data-air="off" data-direction="horizontal" data-both-ways="true" data-run-up-mm="1.5" ${REST} data-frequency-k-hz="30"`;
const LEVELS = 'data-level-power="0.2" data-level-speed="100"';
const AREA = 'M1 1L3 1L3 2.5L1 2.5z';
const STROKE = 'M0 3L4 3';

describe('the picture of a card, word for word', () => {
  it('has cells, common burns, markers and lettering, each with what it stands for', () => {
    const filled = `<path d="${AREA}" fill="#888" fill-rule="evenodd" stroke="none" stroke-width="0.05" ${FILL_DATA}/>`;
    const hollow = `<path d="${AREA}" fill="none" fill-rule="evenodd" stroke="#888" stroke-width="0.05" ${FILL_DATA}/>`;
    const drawn = `<path d="${STROKE}" fill="none" stroke="#000" stroke-width="0.1" ${FOLLOW_DATA}/>`;
    expect(svgOfCard(layout).split('\n')).toEqual([
      '<?xml version="1.0" encoding="UTF-8"?>',
      '<svg xmlns="http://www.w3.org/2000/svg" width="5mm" height="4mm" viewBox="0 0 5 4" data-card="CD001-4">',
      '  <title>Card CD001-4</title>',
      `  <g id="cell-0" class="cell" data-index="0" ${LEVELS} data-left-out="false"><title>cell 0</title>${filled}</g>`,
      `  <g id="cell-1" class="cell" data-index="1" ${LEVELS} data-left-out="true"><title>cell 1</title>${hollow}</g>`,
      `  <g id="common-0" class="common">${drawn}</g>`,
      `  <g id="common-1" class="common">${filled}</g>`,
      `  <g id="lettering-0" class="lettering" data-role="code" data-text="A&#60;1"><path d="${STROKE}" fill="none" stroke="#000" stroke-width="0.12" stroke-linecap="round" stroke-linejoin="round"/></g>`,
      '</svg>',
      '',
    ]);
  });
  it('fills a marker’s burned squares in black', () => {
    const marker = { corner: 'upper-left', id: 7, x: 0, y: 0, sizeMm: 3.2 } as const;
    const lines = svgOfCard({ ...layout, frame: { ...layout.frame, markers: [marker] } }).split('\n');
    const [drawn, ...more] = lines.filter((text) => text.includes('class="marker"'));
    expect(more).toEqual([]);
    expect(drawn).toMatch(
      /^ {2}<g id="marker-upper-left" class="marker" data-marker-id="7"><path d="(M[\d. L]+z)+" fill="#000"\/><\/g>$/,
    );
  });
});

const STEPS: readonly Step[] = [
  { number: 1, name: '01 cells 1 2', does: 'sweep', settings: PLAIN_FILL, shapes: [fill.shape], cells: [0, 1] },
  { number: 2, name: '02 <lettering>', does: 'follow', settings: PLAIN_FILL, shapes: [follow.shape], cells: [] },
];

describe('the drawing of steps, word for word', () => {
  it('as SVG: one group a step, filled or drawn in its colour', () => {
    const [first, second] = [stepColour(0).hex, stepColour(1).hex];
    expect(svgOfSteps(STEPS, layout).split('\n')).toEqual([
      '<?xml version="1.0" encoding="UTF-8"?>',
      '<svg xmlns="http://www.w3.org/2000/svg" width="5mm" height="4mm" viewBox="0 0 5 4">',
      '  <title>Card CD001-4, one group for each setting</title>',
      `  <g id="step-01" fill="${first}" fill-rule="evenodd" stroke="none"><title>01 cells 1 2</title><path d="${AREA}"/></g>`,
      `  <g id="step-02" fill="none" stroke="${second}" stroke-width="0.1"><title>02 &#60;lettering&#62;</title><path d="${STROKE}"/></g>`,
      '</svg>',
      '',
    ]);
  });
  // The published DXF reference for release 12: a code and its value on a line each.
  it('as DXF: header, one line type, a layer a step, and outlines with y up', () => {
    const pairs = (text: string): string[] =>
      text
        .split('\r\n')
        .slice(0, -1)
        .reduce<string[]>(
          (all, word, at) => (at % 2 === 0 ? [...all, word] : [...all.slice(0, -1), `${all.at(-1)} ${word}`]),
          [],
        );
    const vertex = (layer: string, x: string, y: string) => ['0 VERTEX', `8 ${layer}`, `10 ${x}`, `20 ${y}`, '30 0'];
    const head = (layer: string, closed: 0 | 1) => [
      '0 POLYLINE',
      `8 ${layer}`,
      '66 1',
      '10 0',
      '20 0',
      '30 0',
      `70 ${closed}`,
    ];
    const [A, B] = ['01_CELLS_1_2', '02_LETTERING_'];
    expect(pairs(dxfOfSteps(STEPS, layout))).toEqual([
      ...listed(
        '0 SECTION; 2 HEADER; 9 $ACADVER; 1 AC1009; 9 $EXTMIN; 10 0; 20 0; 9 $EXTMAX; 10 5; 20 4; 0 ENDSEC; ' +
          '0 SECTION; 2 TABLES; 0 TABLE; 2 LTYPE; 70 1; 0 LTYPE; 2 CONTINUOUS; 70 64; 3 Solid line; 72 65; 73 0; ' +
          '40 0; 0 ENDTAB; 0 TABLE; 2 LAYER; 70 2; 0 LAYER',
      ),
      `2 ${A}`,
      '70 0',
      `62 ${stepColour(0).index}`,
      '6 CONTINUOUS',
      '0 LAYER',
      `2 ${B}`,
      '70 0',
      `62 ${stepColour(1).index}`,
      ...listed('6 CONTINUOUS; 0 ENDTAB; 0 ENDSEC; 0 SECTION; 2 ENTITIES'),
      ...head(A, 1),
      ...vertex(A, '1', '3'),
      ...vertex(A, '3', '3'),
      ...vertex(A, '3', '1.5'),
      ...vertex(A, '1', '1.5'),
      '0 SEQEND',
      `8 ${A}`,
      ...head(B, 0),
      ...vertex(B, '0', '1'),
      ...vertex(B, '4', '1'),
      '0 SEQEND',
      `8 ${B}`,
      '0 ENDSEC',
      '0 EOF',
    ]);
  });
  it('has numbers without idle zeros, none without a minus, and names that fit a layer', () => {
    const at = (y: number): string =>
      dxfOfSteps([{ ...STEPS[1]!, shapes: [{ do: 'follow', lines: [[{ x: 10, y: 4 - y }]] }] }], layout);
    expect(at(0.1)).toContain('20\r\n0.1\r\n30');
    expect(at(-0.00001)).toContain('20\r\n0\r\n30');
    expect(at(100)).toContain('10\r\n10\r\n20\r\n100\r\n30');
    expect(layerName('03 cells 1 2, 3 / ä')).toBe('03_CELLS_1_2_3_');
    expect(layerName('a'.repeat(40))).toBe('A'.repeat(31));
  });
  it('has colours that come again after all of them, pale ones after full ones', () => {
    expect(stepColour(STEP_COLOURS)).toEqual(stepColour(0));
    expect(stepColour(0).hex).toBe('#ff0000');
    expect(stepColour(STEP_COLOURS / 2).hex).toBe('#ff8080');
  });
});

describe('the outline, word for word', () => {
  const lines = (change: object, lit: boolean) =>
    outlineProgram(layout, { ...machine, ...change }, place, lit).split('\n');
  const HEAD = ['G21', 'G90', 'G94', 'G17', 'M5', 'M9'];
  // Y counts from the front of 100 mm: the card's rear edge lies at 80, its front edge at 76.
  const zero = { zero: 'bed-front-left', xPlus: 'right', yPlus: 'away' } as const;
  it('without power goes round at 40 mm/s', () => {
    expect(lines({ ...zero, rampPower: 'constant' }, false).slice(2)).toEqual([
      ...HEAD,
      ...listed('G0 X10 Y80 S0; G1 X15 Y80 F2400 S0; G1 X15 Y76 S0; G1 X10 Y76 S0; G1 X10 Y80 S0; M5; M2'),
      '',
    ]);
    expect(lines(zero, false)[0]).toBe('(outline of card CD001-4, no power)');
    expect(lines(zero, false)[1]).toBe('(zero: bed: front left corner)');
  });
  it('lit goes at 200 mm/s, or as fast as the slower axis, armed as the source wants it', () => {
    const fast = { ...zero, topSpeedXMmPerS: 600, topSpeedYMmPerS: 400, lowestFiringCommand: 0.05 };
    expect(lines({ ...fast, rampPower: 'follows-speed' }, true).slice(2)).toEqual([
      ...HEAD,
      ...listed('M4 S0; G0 X10 Y80 S0; G1 X15 Y80 F12000 S50; G1 X15 Y76 S50; G1 X10 Y76 S50; G1 X10 Y80 S50; M5; M2'),
      '',
    ]);
    expect(lines({ ...fast, rampPower: 'constant', topSpeedYMmPerS: 150 }, true)[8]).toBe('M3 S0');
    expect(lines({ ...fast, rampPower: 'constant', topSpeedYMmPerS: 150 }, true)[10]).toBe('G1 X15 Y80 F9000 S50');
    expect(lines(fast, true)[0]).toBe('(outline of card CD001-4, lowest power that fires: may leave a faint line)');
    // 81.5 thousandths: rounded up, since below them nothing fires. A source that fires from nothing on is still told to fire.
    expect(lines({ ...fast, lowestFiringCommand: 0.0815 }, true).filter((text) => text.endsWith('S82'))).toHaveLength(
      4,
    );
    expect(lines({ ...fast, lowestFiringCommand: 0 }, true).filter((text) => text.endsWith('S1'))).toHaveLength(4);
  });
  it('from the head takes where it stands for zero, and gives it back', () => {
    const all = lines({ ...zero, zero: 'head' }, false);
    expect(all.slice(2, 9)).toEqual([...HEAD, 'G92 X0 Y0']);
    expect(all.slice(-4)).toEqual(['M5', 'G92.1', 'M2', '']);
  });
  it('is a step of its own, at the lowest power', () => {
    expect(outlineStep(layout, { ...machine, lowestFiringCommand: 0.05 })).toEqual({
      number: 1,
      name: 'outline only',
      does: 'follow',
      cells: [],
      settings: { ...PLAIN_FILL, powerFraction: 0.05, speedMmPerS: 40, intervalMm: 1, air: 'off' },
      shapes: [
        {
          do: 'follow',
          lines: [points([0, 0], [5, 0], [5, 4], [0, 4], [0, 0])],
        },
      ],
    });
  });
});

describe('the printable list, word for word', () => {
  it('is a page with what to set up, and a row to tick for each step', () => {
    const { lens, stock } = demoPairing('heron', 'birch');
    const liked = { length: 'mm', speed: 'mm/min', density: 'mm' } as const;
    const pairing = {
      machine: { ...machine, name: 'Heron', likedUnits: liked, addsRunUp: true },
      lens: { ...lens, name: 'fine' },
      stock: { ...stock, name: 'Ply' },
    };
    const setup = { ...UNSAID_SETUP, masked: true, wiped: true };
    const steps = [{ ...STEPS[0]!, settings: { ...PLAIN_FILL, focusOffsetMm: 1.5, runUpMm: 2 } }, STEPS[1]!];
    const page = listOfSteps(steps, layout, pairing, { bed: place, setup }).split('\n');
    const box = '<span class="box"></span>';
    const body = page.findIndex((text) => text.endsWith('</style></head><body>'));
    expect(page[1]).toMatch(
      /^<html lang="en"><head><meta charset="utf-8"><title>Settings of card CD001-4<\/title><style>/,
    );
    const heads = listed(
      'Done; No.; Layer or group; Colour; Does; Power; Speed; Interval; Passes; Focus; Air; Lines; Run-up',
    );
    const row = (place: number, ...cells: string[]): string =>
      `<tr><td>${box}</td><td>${place + 1}</td><td>${cells[0]!}</td><td><span class="swatch" style="background:${stepColour(place).hex}"></span></td>${cells
        .slice(1)
        .map((text) => `<td>${text}</td>`)
        .join('')}</tr>`;
    expect([page[0], ...page.slice(body + 1)]).toEqual([
      '<!doctype html>',
      '<h1>Card CD001-4</h1>',
      '<p>Ply on Heron, lens fine. 5 × 4 mm; upper left corner 10 mm from the bed&#8217;s left edge and 20 mm from its rear edge.</p>'.replaceAll(
        '&#8217;',
        '’',
      ),
      '<p>Set up: masked, wiped clean.</p>',
      '<p>Burn the steps from the first to the last: the strongest come last. Focus counts from the focus you set: plus raises the head. Stay with the machine.</p>',
      `<ul><li>${box} The face is masked without bubbles, wiped clean.</li></ul>`,
      `<table><thead><tr>${heads.map((head) => `<th scope="col">${head}</th>`).join('')}</tr></thead><tbody>`,
      row(0, ...listed('01_CELLS_1_2; fills; 20 %; 6000 mm/min; 0.1 mm; 1; +1.5 mm; off; along X, both ways; 2 mm')),
      row(1, '02_LETTERING_', 'follows lines', '20 %', '6000 mm/min', '', '1', 'as set', 'off', '', 'none'),
      '</tbody></table></body></html>',
      '',
    ]);
    const plain = listOfSteps(steps, layout, pairing, { bed: place, setup: UNSAID_SETUP }).split('\n');
    expect(plain.filter((text) => text.startsWith('<p>Set up'))).toEqual([]);
    expect(plain).toContain('<ul></ul>');
    const tilted = { ...layout, tilt: { fallMmPerMm: 0.05, levelAtMm: 2.5, spacerMm: 6 } };
    const list = listOfSteps(steps, tilted, pairing, { bed: place, setup: UNSAID_SETUP }).split('\n');
    expect(list.find((text) => text.startsWith('<ul>'))).toMatch(
      /^<ul><li>.*Tilt the board: .* a spacer of 6 mm under it 120 mm to the left .*<li>.*The board cannot slide/,
    );
  });
});

describe('cells as CSV, word for word', () => {
  it('are a row for each burn, empty where nothing is set or burned', () => {
    const both = { ...layout, cells: [cell(0, fill), cell(1, { ...follow, shape: fill.shape }, true)] };
    const [first, second] = parseCsv<Record<string, string>>(csvOfCells(both, machine), { columns: true }).map((row) =>
      Object.entries(row).flatMap(([column, value]) => (value === '' ? [] : [`${column} ${value}`])),
    );
    expect(first).toEqual(
      listed(
        'card CD001-4; cell 0; burn 0; does sweep; x_mm 1; y_mm 1; width_mm 2; height_mm 1.5; level_power 0.2; ' +
          'level_speed 100; power_percent 20; speed_mm_per_s 100; interval_mm 0.1; passes 1; focus_offset_mm 0; ' +
          'air low; direction horizontal; both_ways true; scan_offset_mm 0; lengthen_mm 0; line_angle_deg 0; ' +
          'cross_hatch false; delivered_w 2; areal_energy_j_per_mm2 0.2; line_energy_j_per_mm 0.02; burn_order 1; ' +
          'left_out false',
      ),
    );
    expect(second).toEqual(expect.arrayContaining(listed('cell 1; run_up_mm 1.5; frequency_khz 30; left_out true')));
    expect(second).not.toContainEqual(expect.stringMatching(/^burn_order/));
  });
  it('have text disarmed that begins like a formula, and nothing else', () => {
    const rows = [
      { a: '=1+1', b: -3, c: 'a=b', d: undefined },
      { a: '@x', b: '-y', c: '\tz', d: true },
    ];
    expect(csvOf(['a', 'b', 'c', 'd'], rows)).toBe("a,b,c,d\r\n'=1+1,-3,a=b,\r\n'@x,'-y,'\tz,true\r\n");
  });
});
