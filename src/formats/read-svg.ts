import { SaxesParser, type SaxesTagPlain } from 'saxes';
import svgpath from 'svgpath';
import type { Point } from '../core/geometry/point';
import {
  FLATNESS_MM,
  joined,
  lineOf,
  MOST_LINES,
  MOST_POINTS,
  type Drawing,
  type DrawnLine,
} from '../core/part/drawing';
import { arcPoints, cubicPoints, quadraticPoints } from '../core/part/flatten';

/** A drawing that cannot be taken, in words for whoever sent it. */
export class SvgFault extends Error {
  override readonly name = 'SvgFault';
}

export interface ReadSvg {
  readonly drawing: Drawing;
  /** What of the file is not among the lines, in words: text, pictures, what is hidden. */
  readonly leftOut: readonly string[];
}

/** CSS pixels to an inch, and what else lengths are said in, in mm (CSS Values and Units 3, section 6.2). */
const MM_PER_PX = 25.4 / 96;
const MM_PER: Readonly<Record<string, number>> = {
  px: MM_PER_PX,
  mm: 1,
  cm: 10,
  q: 0.25,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
};

const NUMBER = String.raw`[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?`;
const LENGTH = new RegExp(`^\\s*(${NUMBER})\\s*([a-zA-Z%]*)\\s*$`);

type Attributes = Readonly<Record<string, string>>;

/** A length in user units; null for what is none, or a share of something. */
function userUnits(text: string | undefined): number | null {
  const [, number, unit] = LENGTH.exec(text ?? '') ?? [];
  if (number === undefined) return null;
  if (unit === '') return Number(number);
  const mm = MM_PER[unit!.toLowerCase()];
  return mm === undefined ? null : (Number(number) * mm) / MM_PER_PX;
}

/** A length of a shape: nothing where it is not said. Throws SvgFault for one that nobody can tell here, as a share of something: never a wrong one. */
function lengthOf(text: string | undefined): number {
  if (text === undefined) return 0;
  const units = userUnits(text);
  if (units === null)
    throw new SvgFault(`A shape says “${text}”, which is no length that could be cut: save it in mm or px.`);
  return units;
}

/** A radius that follows the other one where it is not said. */
const radiusOf = (text: string | undefined): number | null =>
  text === undefined || text.trim() === 'auto' ? null : lengthOf(text);

/** What shapes are as paths (SVG 2, chapter 10), in user units; null for what draws nothing. */
const SHAPES: Readonly<Record<string, (of: Attributes) => string | null>> = {
  path: ({ d }) => d ?? null,
  rect: (of) => {
    const [x, y] = [lengthOf(of.x), lengthOf(of.y)];
    const [width, height] = [lengthOf(of.width), lengthOf(of.height)];
    if (!(width > 0 && height > 0)) return null;
    const [ownX, ownY] = [radiusOf(of.rx), radiusOf(of.ry)];
    const rx = Math.min(ownX ?? ownY ?? 0, width / 2);
    const ry = Math.min(ownY ?? ownX ?? 0, height / 2);
    if (!(rx > 0 && ry > 0)) return `M${x} ${y}h${width}v${height}h${-width}z`;
    const [across, down] = [width - 2 * rx, height - 2 * ry];
    const corner = (dx: number, dy: number): string => `a${rx} ${ry} 0 0 1 ${dx} ${dy}`;
    return `M${x + rx} ${y}h${across}${corner(rx, ry)}v${down}${corner(-rx, ry)}h${-across}${corner(-rx, -ry)}v${-down}${corner(rx, -ry)}z`;
  },
  circle: ({ cx, cy, r }) => ellipse(lengthOf(cx), lengthOf(cy), lengthOf(r), lengthOf(r)),
  ellipse: ({ cx, cy, rx, ry }) =>
    ellipse(lengthOf(cx), lengthOf(cy), radiusOf(rx) ?? radiusOf(ry) ?? 0, radiusOf(ry) ?? radiusOf(rx) ?? 0),
  line: ({ x1, y1, x2, y2 }) => `M${lengthOf(x1)} ${lengthOf(y1)}L${lengthOf(x2)} ${lengthOf(y2)}`,
  polyline: ({ points }) => throughPoints(points, ''),
  polygon: ({ points }) => throughPoints(points, 'z'),
};

const ellipse = (cx: number, cy: number, rx: number, ry: number): string | null =>
  rx > 0 && ry > 0 ? `M${cx - rx} ${cy}a${rx} ${ry} 0 0 1 ${2 * rx} 0a${rx} ${ry} 0 0 1 ${-2 * rx} 0z` : null;

function throughPoints(points: string | undefined, end: string): string | null {
  const numbers = (points ?? '').match(new RegExp(NUMBER, 'g')) ?? [];
  const pairs = numbers.flatMap((x, index) =>
    index % 2 === 0 && numbers[index + 1] ? [`${x} ${numbers[index + 1]}`] : [],
  );
  return pairs.length > 1 ? `M${pairs.join('L')}${end}` : null;
}

/** What holds shapes that are drawn where it stands. */
const HOLDS_SHAPES = new Set(['svg', 'g', 'a', 'switch']);
/** What draws something that is no line to cut, by how it is called. */
const NO_LINES: Readonly<Record<string, string>> = {
  text: 'text (turn it into paths to cut it)',
  image: 'a picture',
  use: 'a repeated symbol (turn it into paths to cut it)',
  foreignObject: 'something that is no drawing',
};

const styleOf = (of: Attributes, name: string): string | undefined =>
  new RegExp(`(?:^|;)\\s*${name}\\s*:\\s*([^;]+)`).exec(of.style ?? '')?.[1]?.trim() ?? of[name];

const isHidden = (of: Attributes): boolean =>
  styleOf(of, 'display') === 'none' || ['hidden', 'collapse'].includes(styleOf(of, 'visibility') ?? '');

/** User units to millimetres, as a matrix, and whether the drawing itself says how large it is. */
function placed(of: Attributes): { readonly matrix: number[]; readonly sizeSaidIn: Drawing['sizeSaidIn'] } {
  const box = (of.viewBox?.match(new RegExp(NUMBER, 'g')) ?? []).map(Number);
  const [width, height] = [userUnits(of.width), userUnits(of.height)];
  const unitOf = (text: string | undefined): string => LENGTH.exec(text ?? '')?.[2]?.toLowerCase() ?? '%';
  const isSaid = [of.width, of.height].some((text) => !['', 'px', '%'].includes(unitOf(text)));
  const sizeSaidIn = isSaid ? 'lengths' : 'pixels';
  const [wide, high] = box.slice(2);
  if (box.length !== 4 || !(wide! > 0 && high! > 0)) return { matrix: [MM_PER_PX, 0, 0, MM_PER_PX, 0, 0], sizeSaidIn };
  // One side alone says the other by the box's own shape.
  const [ownX, ownY] = [width === null ? null : width / wide!, height === null ? null : height / high!];
  const isStretched = /^\s*none/.test(of.preserveAspectRatio ?? '');
  const isSliced = /\bslice\b/.test(of.preserveAspectRatio ?? '');
  const even = (isSliced ? Math.max : Math.min)(ownX ?? ownY ?? 1, ownY ?? ownX ?? 1);
  const [scaleX, scaleY] = isStretched ? [ownX ?? ownY ?? 1, ownY ?? ownX ?? 1] : [even, even];
  const [a, d] = [scaleX * MM_PER_PX, scaleY * MM_PER_PX];
  if (!(a > 0 && d > 0)) throw new SvgFault('The drawing says a size of nothing.');
  // Where the box begins does not matter: a drawing is taken from its own upper left corner.
  return { matrix: [a, 0, 0, d, 0, 0], sizeSaidIn };
}

interface Holder {
  readonly name: string;
  readonly transforms: readonly string[];
  readonly isDrawn: boolean;
}

/**
 * The lines of an SVG drawing in millimetres: paths and basic shapes under their transforms, flattened, joined where their ends meet. Sizes go by
 * `width`, `height` and `viewBox`; a drawing that says none in lengths is taken at 96 pixels an inch, and says so. Styles of a style sheet, symbols,
 * text and pictures are left out and named. Throws SvgFault for what is no drawing, has nothing to cut, or too much.
 *
 * `<svg width="30mm" height="20mm" viewBox="0 0 300 200"><rect width="100" height="50"/></svg>`: one closed line of 10 by 5 mm.
 */
export function readSvg(text: string, name: string): ReadSvg {
  const lines: DrawnLine[] = [];
  const leftOut = new Map<string, number>();
  const holders: Holder[] = [];
  let matrix: number[] | null = null;
  let sizeSaidIn: Drawing['sizeSaidIn'] = 'pixels';
  let points = 0;
  const leaveOut = (what: string): void => void leftOut.set(what, (leftOut.get(what) ?? 0) + 1);

  const open = ({ name: tag, attributes }: SaxesTagPlain): void => {
    const local = tag.slice(tag.indexOf(':') + 1);
    const parent = holders.at(-1);
    if (!parent) {
      if (local !== 'svg') throw new SvgFault('This is no SVG drawing.');
      ({ matrix, sizeSaidIn } = placed(attributes));
    }
    // Moved by a style its shapes would silently lie elsewhere, or be of another size.
    if (/(?:^|;)\s*(?:transform|zoom|scale|rotate|translate)\s*:/.test(attributes.style ?? ''))
      throw new SvgFault('A shape of this drawing is moved or scaled by its style: save it as plain SVG.');
    const isInner = parent !== undefined && local === 'svg';
    const isDrawn = (parent?.isDrawn ?? true) && HOLDS_SHAPES.has(local) && !isHidden(attributes) && !isInner;
    // The outermost comes first: it is applied last.
    const transforms = [...(parent?.transforms ?? []), ...(attributes.transform ? [attributes.transform] : [])];
    holders.push({ name: tag, transforms, isDrawn });
    if (!parent?.isDrawn) return;
    if (isHidden(attributes)) return leaveOut('something that is hidden');
    if (isInner) return leaveOut('a drawing within the drawing');
    if (NO_LINES[local]) return leaveOut(NO_LINES[local]);
    const path = SHAPES[local]?.(attributes);
    if (!path) return;
    for (const line of flattened(path, transforms, matrix!)) {
      points += line.at.length / 2;
      lines.push(line);
      if (points > MOST_POINTS || lines.length > 4 * MOST_LINES) throw tooMuch();
    }
  };

  const parser = new SaxesParser();
  let fault: Error | null = null;
  parser.on('error', (error) => {
    fault ??= error;
  });
  parser.on('opentag', (tag) => open(tag));
  parser.on('closetag', () => void holders.pop());
  try {
    parser.write(text).close();
  } catch (error) {
    if (error instanceof SvgFault) throw error;
    fault ??= error as Error;
  }
  if (fault) throw new SvgFault(`This file cannot be read as SVG: ${fault.message}`);
  if (matrix === null) throw new SvgFault('This is no SVG drawing.');
  const all = joined(lines);
  if (all.length > MOST_LINES) throw tooMuch();
  if (all.length === 0) {
    const without = [...leftOut.keys()].join(', ');
    throw new SvgFault(`Nothing in this drawing is a line to cut${without ? `; it has ${without}` : ''}.`);
  }
  return {
    drawing: { name: name.trim().slice(0, 80) || 'drawing', sizeSaidIn, lines: moved(all) },
    leftOut: [...leftOut].map(([what, count]) => (count > 1 ? `${count} times ${what}` : what)),
  };
}

const tooMuch = (): SvgFault =>
  new SvgFault(`This drawing has over ${MOST_LINES} lines or ${MOST_POINTS / 1000} thousand places: cut it in parts.`);

/** The drawing with its upper left corner at 0, 0. */
function moved(lines: readonly DrawnLine[]): DrawnLine[] {
  let [left, top] = [Infinity, Infinity];
  for (const { at } of lines)
    for (let index = 0; index < at.length; index += 2) {
      left = Math.min(left, at[index]!);
      top = Math.min(top, at[index + 1]!);
    }
  return lines.map(({ closed, at }) => ({
    closed,
    at: at.map((mm, index) => Math.round((mm - (index % 2 === 0 ? left : top)) * 1000) / 1000),
  }));
}

/** Every line of a path, in mm. Throws SvgFault for a path or a transform that cannot be read. */
function flattened(path: string, transforms: readonly string[], matrix: readonly number[]): DrawnLine[] {
  const drawn = transforms.toReversed().reduce((so, transform) => so.transform(transform), svgpath(path));
  // The library keeps what it could not read to itself.
  const { err } = drawn as unknown as { readonly err: string };
  if (err) throw new SvgFault(`A path of this drawing cannot be read: ${err}`);
  const lines: DrawnLine[] = [];
  let line: Point[] = [];
  const end = (closed: boolean): void => {
    if (line.length > 1) lines.push(lineOf(line, closed));
  };
  const put = (more: readonly Point[]): void => {
    if (more.some(({ x, y }) => !Number.isFinite(x) || !Number.isFinite(y) || Math.abs(x) > 1e5 || Math.abs(y) > 1e5))
      throw new SvgFault('A path of this drawing goes nowhere that could be cut.');
    line.push(...more);
    if (line.length > MOST_POINTS) throw tooMuch();
  };
  drawn
    .matrix([...matrix])
    .abs()
    .unshort()
    .iterate((segment, _, x, y) => {
      const at = { x, y };
      switch (segment[0]) {
        case 'M':
          end(false);
          line = [];
          return put([{ x: segment[1], y: segment[2] }]);
        case 'L':
          return put([{ x: segment[1], y: segment[2] }]);
        case 'H':
          return put([{ x: segment[1], y }]);
        case 'V':
          return put([{ x, y: segment[1] }]);
        case 'C': {
          const [, ax, ay, bx, by, toX, toY] = segment;
          return put(cubicPoints(at, { x: ax, y: ay }, { x: bx, y: by }, { x: toX, y: toY }, FLATNESS_MM));
        }
        case 'Q': {
          const [, ax, ay, toX, toY] = segment;
          return put(quadraticPoints(at, { x: ax, y: ay }, { x: toX, y: toY }, FLATNESS_MM));
        }
        case 'A': {
          const [, rx, ry, turnedDeg, large, sweep, toX, toY] = segment;
          const arc = { rx, ry, turnedDeg, isLarge: large === 1, isClockwise: sweep === 1 };
          return put(arcPoints(at, arc, { x: toX, y: toY }, FLATNESS_MM));
        }
        default: {
          // What follows without a move of its own begins where this one began.
          end(true);
          line = line.slice(0, 1);
        }
      }
    });
  end(false);
  return lines;
}
