import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { ChartPicture } from './ChartPicture';
import { readableTicks, rowsOfPlot, shareAlong, type Plot } from './plot';

const plot: Plot = {
  label: 'L* & power',
  x: { title: 'power, %', log: true, from: 1, to: 100, ticks: [1, 10, 100].map((at) => ({ at, text: `${at} %` })) },
  y: { title: 'L*', log: false, from: 20, to: 60, ticks: [{ at: 40, text: '40' }] },
  points: [
    { x: 10, y: 40, sigma: 10, cellIndex: 7 },
    { x: 100, y: 60, hollow: true },
  ],
  fit: [
    { x: 1, y: 20, low: 20, high: 30 },
    { x: 100, y: 60, low: 50, high: 60 },
  ],
  pick: { x: 10, low: 1, high: 100 },
};
const draw = (change: Partial<Plot> = {}): string =>
  renderToStaticMarkup(createElement(ChartPicture, { plot: { ...plot, ...change } }));
/** An attribute of each element of a kind, as numbers. */
const numbers = (svg: string, element: string, name: string): number[] =>
  [...svg.matchAll(new RegExp(`<${element}\\b[^>]*?\\b${name}="([^"]*)"`, 'g'))].map((found) => Number(found[1]));

describe('a chart that is written down', () => {
  it('has every value as far along its axis as it is', () => {
    expect(shareAlong(plot.x, 10)).toBeCloseTo(0.5, 9);
    // From elsewhere than 1, whose logarithm is none.
    expect(shareAlong({ ...plot.x, from: 10, to: 1000 }, 100)).toBeCloseTo(0.5, 9);
    expect(shareAlong(plot.y, 30)).toBeCloseTo(0.25, 9);
    const svg = draw();
    const [area] = [...svg.matchAll(/<rect x="([\d.]+)" y="([\d.]+)" width="([\d.]+)" height="([\d.]+)"/g)].map(
      (found) => found.slice(1).map(Number),
    ) as [number[]];
    const [left, top, width, height] = area as [number, number, number, number];
    expect(numbers(svg, 'circle', 'cx')).toEqual([left + width / 2, left + width]);
    // Larger is higher.
    expect(numbers(svg, 'circle', 'cy')).toEqual([top + height / 2, top]);
    // The bar is one standard uncertainty either way: a quarter of the axis.
    expect(svg).toContain(`y1="${top + (height * 3) / 4}" y2="${top + height / 4}"`);
    const [, curve] = /class="fit" d="([^"]*)"/.exec(svg)!;
    expect(curve).toBe(`M${left} ${top + height}L${left + width} ${top}`);
    const [, band] = /class="band" d="([^"]*)"/.exec(svg)!;
    const at = (y: number): number => top + height * (1 - (y - 20) / 40);
    expect(band).toBe(`M${left} ${at(30)}L${left + width} ${at(60)}L${left + width} ${at(50)}L${left} ${at(20)}Z`);
    expect(svg).toMatch(new RegExp(`class="interval" x="${left}"[^>]*width="${width}"`));
    expect(svg).toMatch(new RegExp(`class="chosen" x1="${left + width / 2}"`));
  });

  it('is titled, with its units, and says nothing of what it has not', () => {
    const svg = draw({ fit: [], pick: null });
    for (const words of ['L* &amp; power', 'power, %', '10 %', '40']) expect(svg).toContain(words);
    for (const part of ['class="fit"', 'class="band"', 'class="chosen"', 'class="interval"']) {
      expect(draw()).toContain(part);
      expect(svg).not.toContain(part);
    }
    expect(draw({ pick: { x: 10 } })).not.toContain('class="interval"');
    // A ring is white inside.
    expect([...svg.matchAll(/<circle[^>]*fill="([^"]*)"/g)].map((found) => found[1] === '#fff')).toEqual([false, true]);
  });

  it('letters round numbers of a log axis, none on top of another', () => {
    expect(readableTicks([16, 18, 20, 30, 40, 50, 60, 70], 16, 70)).toEqual([20, 30, 50]);
    expect(readableTicks([0.1, 0.2, 0.3, 0.5, 1, 2, 3, 5, 10], 0.1, 10)).toEqual([0.1, 0.2, 0.5, 1, 2, 5, 10]);
    // Too short for two round ones: what there is.
    expect(readableTicks([6, 7, 8, 9], 6, 9)).toEqual([6, 7, 8, 9]);
  });

  it('has all of its data as rows', () => {
    expect(rowsOfPlot(plot)).toEqual([
      ['what', 'power, %', 'L*', 'standard uncertainty', 'low', 'high', 'cell'],
      ['measured', 10, 40, 10, '', '', 7],
      ['measured', 100, 60, '', '', '', ''],
      ['fit', 1, 20, '', 20, 30, ''],
      ['fit', 100, 60, '', 50, 60, ''],
      ['chosen', 10, '', '', 1, 100, ''],
    ]);
    expect(rowsOfPlot({ ...plot, pick: null })).toHaveLength(5);
  });
});
