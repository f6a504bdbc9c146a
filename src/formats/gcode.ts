import type { BedPlace } from '../core/card/check';
import { signed } from '../core/card/channels';
import { beyond } from '../core/card/estimate';
import type { Layout } from '../core/card/layout';
import { cardPath, type BurnScope, type Stroke, type Sweep } from '../core/card/path';
import type { Air } from '../core/card/settings';
import { programAxes, toProgram } from '../core/machine/coordinates';
import { ZERO_PLACES, type Machine } from '../core/machine/machine';
import type { Point } from '../core/geometry/point';

/** S word of full rated power. */
export const FULL_POWER_S = 1000;

/** Where the head waits for a hand: this far left of the card and behind it, as far as the bed lets it; right of a board whose left end is raised. */
const CLEAR_MM = 8;

/** What begins at a line of a program: for whoever follows its progress, who need not understand the words. */
export interface ProgramPart {
  /** Index of its first line. */
  readonly line: number;
  readonly name: string;
  /** The cells that it burns; none for frame and common parts. */
  readonly cells: readonly number[];
  /** What a hand must do before the line after this one; null for parts that burn. */
  readonly hand: { readonly text: string; readonly focusOffsetMm: number | null } | null;
}

export interface Program {
  /** Lines end with a line feed; none is empty. */
  readonly text: string;
  readonly lines: number;
  readonly parts: readonly ProgramPart[];
}

const ZERO = '0'.charCodeAt(0);
const POINT = '.'.charCodeAt(0);

/** A number as programs here write it: to a micrometre, no trailing zeros. */
export function programNumber(valueMm: number): string {
  const text = valueMm.toFixed(3);
  // By hand: programs hold a million numbers, and a pattern takes longer over each than all else.
  let end = text.length;
  while (text.charCodeAt(end - 1) === ZERO) end--;
  if (text.charCodeAt(end - 1) === POINT) end--;
  return text.slice(0, end) === '-0' ? '0' : text.slice(0, end);
}

const AIR_WORDS: Readonly<Record<Air, string>> = { off: 'M9', low: 'M7', on: 'M8' };

/** Text that may stand in a comment of a program: no brackets, no line breaks, plain signs. */
export const programComment = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]/g, '')
    .replace(/[()]/g, '');

type Line = { readonly text: string; readonly part?: Omit<ProgramPart, 'line'> };

/**
 * A card as RS-274 G-code for a machine, line by line: absolute millimetres, feed in mm/min, zero and the sense
 * of both axes as the machine's record has them, power by the S word (0..1000). The words used are listed in docs/formats.md. Deterministic.
 *
 * The beam is never left on: every `G0` carries `S0`; at start and end, around every `M0` and every change of focus it is disarmed
 * (`M5`), the head goes clear before a hand is waited for, and it is armed again with `S0`. Run-up is moves with `S0`, left out for a
 * machine that adds it by itself. Focus is told relative to what the operator set: `Z` moves are made under `G91`, plus raises the head.
 */
export function* gcodeLines(
  layout: Layout,
  machine: Machine,
  place: BedPlace,
  scope: BurnScope | null = null,
): Generator<Line> {
  const arm = machine.rampPower === 'follows-speed' ? 'M4 S0' : 'M3 S0';
  const axes = programAxes(machine, { ...place, widthMm: layout.widthMm, heightMm: layout.heightMm });
  const at = (point: Point): string => {
    const { x, y } = toProgram(axes, { x: place.leftMm + point.x, y: place.rearMm + point.y });
    return `X${programNumber(x)} Y${programNumber(y)}`;
  };
  // Mirrors stand nowhere: they only look back to where they began, which is within every lens's field.
  const clearMm = machine.head === 'galvo' ? 0 : CLEAR_MM;
  const clear = at({
    // Beside the lower end of a tilted board: left of its raised one the head would come nearer to it than anywhere on the card.
    x: layout.tilt
      ? Math.min(layout.widthMm + clearMm, machine.bedWidthMm - place.leftMm)
      : Math.max(-clearMm, -place.leftMm),
    y: Math.max(-clearMm, -place.rearMm),
  });
  let feed = '';
  let air = 'M9';
  let focus = 0;
  let frequency: number | null = null;

  const cut = (to: Point, speedMmPerS: number, s: number): Line => {
    const word = `F${programNumber(speedMmPerS * 60)}`;
    const text = `G1 ${at(to)}${word === feed ? '' : ` ${word}`} S${s}`;
    feed = word;
    return { text };
  };
  function* wait(text: string, focusOffsetMm: number | null): Generator<Line> {
    yield { text: 'M5' };
    yield { text: `G0 ${clear} S0` };
    yield {
      text: `M0 (${programComment(text)})`,
      part: { name: 'waiting for a hand', cells: [], hand: { text, focusOffsetMm } },
    };
    yield { text: arm };
  }
  function* setFocus(offsetMm: number): Generator<Line> {
    if (offsetMm === focus) return;
    const delta = offsetMm - focus;
    focus = offsetMm;
    if (!machine.automaticFocus) {
      const way = offsetMm === 0 ? 'back to the focus you set' : offsetMm > 0 ? 'raise the head' : 'lower the head';
      return yield* wait(
        offsetMm === 0
          ? 'focus offset 0 mm: back to the focus you set'
          : `focus offset ${signed(offsetMm)} mm: ${way} ${programNumber(Math.abs(offsetMm))} mm from the focus you set`,
        offsetMm,
      );
    }
    yield { text: 'M5' };
    yield { text: 'G91' };
    yield { text: `G0 Z${programNumber(delta)} S0` };
    yield { text: 'G90' };
    yield { text: arm };
  }
  function* sweep(step: Sweep): Generator<Line> {
    const runUp = machine.addsRunUp ? 0 : step.runUpMm;
    const length = Math.hypot(step.to.x - step.from.x, step.to.y - step.from.y);
    if (length === 0) return;
    const ux = (step.to.x - step.from.x) / length;
    const uy = (step.to.y - step.from.y) / length;
    const along = (distance: number): Point => ({ x: step.from.x + ux * distance, y: step.from.y + uy * distance });
    yield { text: `G0 ${at(along(-runUp))} S0` };
    let head = -runUp;
    for (const { fromMm, toMm, powerFraction } of step.lit) {
      if (fromMm > head + 1e-9) yield cut(along(fromMm), step.speedMmPerS, 0);
      yield cut(along(toMm), step.speedMmPerS, Math.round(powerFraction * FULL_POWER_S));
      head = toMm;
    }
    if (runUp > 0) yield cut(along(length + runUp), step.speedMmPerS, 0);
  }
  function* stroke({ points, runUpMm, speedMmPerS, powerFraction }: Stroke): Generator<Line> {
    if (points.length < 2) return;
    const runUp = machine.addsRunUp ? 0 : runUpMm;
    const s = Math.round(powerFraction * FULL_POWER_S);
    yield { text: `G0 ${at(beyond(points[1]!, points[0]!, runUp))} S0` };
    if (runUp > 0) yield cut(points[0]!, speedMmPerS, 0);
    for (const point of points.slice(1)) yield cut(point, speedMmPerS, s);
    if (runUp > 0) yield cut(beyond(points.at(-2)!, points.at(-1)!, runUp), speedMmPerS, 0);
  }

  yield { text: `(card ${layout.code}, ${programNumber(layout.widthMm)} x ${programNumber(layout.heightMm)} mm)` };
  yield {
    text: '(focus: set it by your own habit first; Z here is relative to that, plus raises the head, minus lowers it)',
  };
  yield {
    text: `(zero: ${programComment(ZERO_PLACES[machine.zero])}; X counts to the ${machine.xPlus}, Y ${machine.yPlus === 'away' ? 'away from you' : 'toward you'})`,
  };
  for (const text of ['G21', 'G90', 'G94', 'G17', 'M5', 'M9']) yield { text };
  // Wherever the head stands now becomes zero: it was put over the card's front left corner.
  if (machine.zero === 'head') yield { text: 'G92 X0 Y0' };
  yield { text: arm };
  for (const step of cardPath(layout, machine, scope)) {
    if (step.step === 'part') {
      const word = AIR_WORDS[step.air];
      yield { text: `(${step.name})`, part: { name: step.name, cells: step.cells, hand: null } };
      if (word !== air) yield { text: (air = word) };
      // RS-274 has no word for it: whoever sets the source up reads it here.
      if (step.frequencyKHz !== null && step.frequencyKHz !== frequency)
        yield { text: `(frequency ${programNumber((frequency = step.frequencyKHz))} kHz)` };
      yield* setFocus(step.focusOffsetMm);
    } else if (step.step === 'hand') yield* wait(step.text, null);
    else if (step.step === 'sweep') yield* sweep(step);
    else yield* stroke(step);
  }
  yield* setFocus(0);
  yield { text: 'M5', part: { name: 'end', cells: [], hand: null } };
  yield { text: 'M9' };
  yield { text: `G0 ${clear} S0` };
  if (machine.zero === 'head') yield { text: 'G92.1' };
  yield { text: 'M2' };
}

/** The whole program with its parts. Equal input gives equal bytes. */
export function programOfCard(
  layout: Layout,
  machine: Machine,
  place: BedPlace,
  scope: BurnScope | null = null,
): Program {
  const texts: string[] = [];
  const parts: ProgramPart[] = [];
  for (const { text, part } of gcodeLines(layout, machine, place, scope)) {
    if (part) parts.push({ line: texts.length, ...part });
    texts.push(text);
  }
  return { text: `${texts.join('\n')}\n`, lines: texts.length, parts };
}

/** The program in chunks of some kilobytes, for sending it on while it is being made. */
export function* gcodeChunks(layout: Layout, machine: Machine, place: BedPlace): Generator<string> {
  let chunk = '';
  for (const { text } of gcodeLines(layout, machine, place)) {
    chunk += `${text}\n`;
    if (chunk.length >= 32_768) {
      yield chunk;
      chunk = '';
    }
  }
  if (chunk !== '') yield chunk;
}
