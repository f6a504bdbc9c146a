import { describe, expect, it } from 'vitest';
import { pointsOf } from '../core/part/drawing';
import { boxOfRing, signedAreaMm2 } from '../core/part/polygons';
import { readSvg, SvgFault } from './read-svg';
import { tuples } from '../../tests/support/tuples';

const svg = (inside: string, head = 'width="100mm" height="80mm" viewBox="0 0 100 80"'): string =>
  `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${head}>${inside}</svg>`;

/** Width and height of everything, closed or not, to a hundredth of a millimetre. */
function sizeOf(text: string): string {
  const { lines } = readSvg(text, 'a').drawing;
  const { width, height } = boxOfRing(lines.flatMap((line) => pointsOf(line)));
  return `${width.toFixed(2)} x ${height.toFixed(2)}`;
}
const areasOf = (text: string): number[] =>
  readSvg(text, 'a').drawing.lines.map((line) => Math.abs(signedAreaMm2(pointsOf(line))));

describe('reading an SVG drawing', () => {
  it('takes sizes as the drawing says them, and pixels at 96 an inch where it says none', () => {
    const rect = '<rect x="1" y="2" width="30" height="20"/>';
    const head = (words: string): string => sizeOf(svg(rect, words));
    expect(head('width="100mm" height="80mm" viewBox="0 0 100 80"')).toBe('30.00 x 20.00');
    expect(head('width="10cm" height="8cm" viewBox="0 0 1000 800"')).toBe('3.00 x 2.00');
    expect(head('width="1in" viewBox="10 10 254 200"')).toBe('3.00 x 2.00');
    expect(head('width="96" height="96"')).toBe('7.94 x 5.29');
    expect(head('viewBox="0 0 96 96"')).toBe('7.94 x 5.29');
    // Another shape than its box is drawn as large as fits, unless it says that it is stretched.
    expect(head('width="100mm" height="40mm" viewBox="0 0 100 80"')).toBe('15.00 x 10.00');
    expect(head('width="100mm" height="40mm" viewBox="0 0 100 80" preserveAspectRatio="none"')).toBe('30.00 x 10.00');
    expect(head('width="100mm" height="40mm" viewBox="0 0 100 80" preserveAspectRatio="xMidYMid slice"')).toBe(
      '30.00 x 20.00',
    );
    expect(readSvg(svg(rect), 'a').drawing.sizeSaidIn).toBe('lengths');
    expect(readSvg(svg(rect, 'width="96px" height="96"'), 'a').drawing.sizeSaidIn).toBe('pixels');
    expect(readSvg(svg(rect, 'viewBox="0 0 9 9"'), 'a').drawing.sizeSaidIn).toBe('pixels');
    expect(readSvg(svg(rect, 'width="100mm" height="80" viewBox="0 0 100 80"'), 'a').drawing.sizeSaidIn).toBe(
      'lengths',
    );
    // A box of five numbers is none: pixels are a 96th of an inch.
    expect(head('width="100mm" height="80mm" viewBox="0 0 100 80 9"')).toBe('7.94 x 5.29');
    expect(sizeOf(svg('<rect width="10mm" height="1cm"/>', 'width="96px" height="96px"'))).toBe('10.00 x 10.00');
  });

  it('knows every basic shape, by its area', () => {
    const [rect, round, circle, oval, triangle, path] = areasOf(
      svg(`<rect width="10" height="6"/><rect x="20" width="10" height="6" rx="2"/><circle cx="50" cy="10" r="5"/>
        <ellipse cx="80" cy="10" rx="6" ry="3"/><polygon points="0,40 10,40 0,50"/>
        <path d="M20 40 h10 v10 q-5 6 -10 0 z"/>`),
    );
    expect(rect).toBeCloseTo(60, 6);
    expect(round).toBeCloseTo(60 - (4 - Math.PI) * 4, 1);
    expect(circle).toBeCloseTo(25 * Math.PI, 1);
    expect(oval).toBeCloseTo(18 * Math.PI, 1);
    expect(triangle).toBeCloseTo(50, 6);
    // A parabola under a chord: two thirds of 10 by 3.
    expect(path).toBeCloseTo(120, 1);
    // A quarter of a circle about the corner, or about the one across: what is left of ten by ten.
    const [about, across] = areasOf(
      svg([1, 0].map((sweep) => `<path d="M10 0 A10 10 0 0 ${sweep} 0 10 L0 0z"/>`).join('')),
    );
    expect(about).toBeCloseTo(25 * Math.PI, 1);
    expect(across).toBeCloseTo(100 - 25 * Math.PI, 1);
    // By cubic curves a quarter of a circle is off by less than a thousandth of its radius.
    const [cubic] = areasOf(svg('<path d="M10 0 C10 5.5228 5.5228 10 0 10 L0 0z"/>'));
    expect(cubic).toBeCloseTo(25 * Math.PI, 1);
    const open = readSvg(svg('<line x2="10" y2="5"/><polyline points="0 20 5 25 10 20"/>'), 'a').drawing.lines;
    expect(open.map(({ closed, at }) => [closed, at.length])).toEqual(tuples([false, 4], [false, 6]));
  });

  it('rounds no corner that is round one way only, draws no oval without a width or a height, and is named by itself', () => {
    const areas = areasOf(
      svg('<rect width="10" height="6" rx="2" ry="0"/><rect y="20" width="10" height="6" rx="0" ry="2"/>'),
    );
    expect(areas).toEqual([60, 60]);
    const flat = svg('<ellipse rx="4" ry="0"/><ellipse rx="0" ry="4"/><rect width="10" height="6"/>');
    expect(readSvg(flat, 'a').drawing.lines).toHaveLength(1);
    expect(['  Gate  ', ' ', 'x'.repeat(99)].map((name) => readSvg(flat, name).drawing.name)).toEqual([
      'Gate',
      'drawing',
      'x'.repeat(80),
    ]);
  });

  it('applies transforms from the inside out, and those of what holds a shape', () => {
    // Turned by a quarter, then stretched along x: 10 high becomes 30 wide.
    expect(sizeOf(svg('<g transform="scale(3 1)"><rect width="4" height="10" transform="rotate(90)"/></g>'))).toBe(
      '30.00 x 4.00',
    );
    expect(sizeOf(svg('<g transform="rotate(90)"><rect width="4" height="10" transform="scale(3 1)"/></g>'))).toBe(
      '10.00 x 12.00',
    );
    expect(sizeOf(svg('<circle r="5" transform="matrix(2 0 0 1 7 7) skewX(0)"/>'))).toBe('20.00 x 10.00');
    // Places of two shapes against each other.
    expect(
      sizeOf(
        svg(
          '<rect width="2" height="2"/><g transform="translate(20 0)"><rect transform="translate(0 5)" width="2" height="2"/></g>',
        ),
      ),
    ).toBe('22.00 x 7.00');
  });

  it('draws what is drawn, and names what it leaves out', () => {
    const text =
      svg(`<defs><rect id="r" width="90" height="70"/></defs><clipPath id="c"><rect width="99" height="9"/></clipPath>
      <rect width="3" height="4"/><rect width="50" height="50" style="fill:red; display: none"/>
      <g visibility="hidden"><circle r="9"/></g><text x="1" y="1">words</text><use href="#r"/><use href="#r"/>`);
    expect(sizeOf(text)).toBe('3.00 x 4.00');
    expect(readSvg(text, 'a').leftOut).toEqual([
      '2 times something that is hidden',
      'text (turn it into paths to cut it)',
      '2 times a repeated symbol (turn it into paths to cut it)',
    ]);
    // Shapes of nothing are no lines, and a drawing within the drawing has a size of its own.
    const within = svg(
      '<rect width="3" height="4"/><rect width="0" height="4"/><rect width="3" height="0"/><polyline/><polygon points="1"/><path/><svg width="50" height="50"><rect width="9" height="9"/></svg>',
    );
    expect(sizeOf(within)).toBe('3.00 x 4.00');
    expect(readSvg(within, 'a').leftOut).toEqual(['a drawing within the drawing']);
  });

  it('goes on from where a closed line began, and joins strokes', () => {
    const { lines } = readSvg(svg('<path d="M10 10h5v5z l-5 0 v-5 z"/>'), 'a').drawing;
    expect(lines.map(({ closed }) => closed)).toEqual([true, true]);
    expect(sizeOf(svg('<path d="M10 10h5v5z l-5 0 v-5 z"/>'))).toBe('10.00 x 10.00');
    const four = svg('<line x2="9"/><line x1="9" x2="9" y2="9"/><line x1="9" y1="9" y2="9"/><line y1="9"/>');
    expect(readSvg(four, 'a').drawing.lines.map(({ closed }) => closed)).toEqual([true]);
  });

  it.each([
    ['no drawing at all', 'hello', 'cannot be read'],
    ['another kind of document', '<html></html>', 'no SVG drawing'],
    ['what ends early', '<svg><rect width="1"', 'cannot be read'],
    ['entities that grow', '<!DOCTYPE svg [<!ENTITY a "&b;&b;">]><svg><path d="&a;"/></svg>', 'cannot be read'],
    ['nothing to cut', svg('<text>words</text>'), 'text (turn it into paths'],
    ['a path that is none', svg('<path d="M0 0 L nowhere"/>'), 'cannot be read'],
    ['what goes far past every bed', svg('<path d="M0 0 L1e9 0 L0 5 z"/>'), 'goes nowhere'],
    ['what goes far past every bed the other way', svg('<path d="M0 0 L5 0 L0 -1e9 z"/>'), 'goes nowhere'],
    ['shares of something for lengths', svg('<circle cx="50%" cy="9" r="4"/>'), 'no length that could be cut'],
    [
      'what a style moves',
      svg('<rect width="9" height="9" style="fill:none; transform: scale(2)"/>'),
      'save it as plain SVG',
    ],
    ['too many lines', svg('<path d="M0 0h1v1z"/>'.repeat(1700)), 'cut it in parts'],
    ['too many lines of one path', svg(`<path d="${'M0 0h1v1z'.repeat(1700)}"/>`), 'cut it in parts'],
    ['a line of too many places', svg(`<path d="M0 0${'h1v1'.repeat(60_000)}"/>`), 'cut it in parts'],
    ['a shape of nothing alone', svg('<rect width="0" height="9"/>'), 'Nothing in this drawing is a line to cut.'],
    ['nothing at all', '', 'cannot be read'],
    [
      'a size of nothing',
      svg('<rect width="1" height="1"/>', 'width="0mm" height="0mm" viewBox="0 0 1 1"'),
      'size of nothing',
    ],
    ...['width="0mm" height="9mm"', 'width="9mm" height="0mm"'].map((sides) => [
      `a size of nothing one way: ${sides}`,
      svg('<rect width="1" height="1"/>', `${sides} viewBox="0 0 1 1" preserveAspectRatio="none"`),
      'size of nothing',
    ]),
  ])('refuses %s in words', (_, text, words) => {
    expect(() => readSvg(text, 'a')).toThrow(SvgFault);
    expect(() => readSvg(text, 'a')).toThrow(words);
  });
});
