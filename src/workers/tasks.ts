import sharp from 'sharp';
import { burnPrograms, casualShot, exposedLess, jpegOf, photograph, type Piece, type Shot } from '../bench/bench';
import { lightTableShot } from '../bench/camera';
import { bendReading } from '../bench/bend';
import { bendFlap, lookAtStitches } from '../bench/flap';
import { caliperReading, depthReading, isLoose } from '../bench/gauges';
import { tapPart } from '../bench/tap';
import { edgeOfMate, tryMate } from '../bench/try-mate';
import { trySlot } from '../bench/try-slot';
import { letsThroughOf } from '../bench/light-through';
import { lightTable, onLightTable, withoutLoose } from '../bench/light-table';
import { turnedOver } from '../bench/turned-over';
import { printedSheet } from '../bench/printed-sheet';
import { cardKind } from '../cards/registry';
import { PlanError } from '../core/card/contract';
import { asksForHoles } from '../core/card/usual-asks';
import { burnMotion } from '../core/card/burn-motion';
import { estimateCard } from '../core/card/estimate';
import { layCard } from '../core/card/lay';
import { paceFrom } from '../core/motion/pace-fit';
import { flattened } from '../core/reading/flattened';
import { locateSheet, pxPerMmOf } from '../core/reading/sheet/locate-sheet';
import { measureGreys } from '../core/reading/sheet/measure-greys';
import { tonesBySheet } from '../core/reading/sheet/sheet-tones';
import { toneOfPlace } from '../core/reading/sheet/tone-of-place';
import type { RgbImage } from '../core/image/raster';
import { atLeast, findMarkers } from '../core/reading/find-markers';
import { readHoles } from '../core/reading/backlit/read-holes';
import { readEitherFace } from '../core/reading/either-face';
import { readBacklit } from '../core/reading/backlit/read-backlit';
import { readCard, type ReadStep } from '../core/reading/read-card';
import { readStation } from '../core/reading/read-station';
import type { Layout } from '../core/card/layout';
import { bundleOfCard } from '../formats/bundle';
import { svgOfCard } from '../formats/card-svg';
import { csvOfCells } from '../formats/csv-cells';
import { gcodeChunks, programOfCard } from '../formats/gcode';
import { outlineProgram } from '../formats/outline';
import { openPhoto, previewOf } from './open-photo';
import type { BenchBurn, Jobs, Task } from './protocol';

/** What each task does, away from the threads it runs in. */
type Tasks = {
  readonly [Name in Task]: (
    job: Jobs[Name]['job'],
    send: (progress: Jobs[Name]['progress']) => void,
  ) => Promise<Jobs[Name]['answer']>;
};

/** A piece on a frame sheet may be a card: its markers are seen with the sheet's. */
const MARKERS_OF_SHEET_AND_CARD = 8;

/** Pixels per millimetre of the PNG preview. */
const PREVIEW_PX_PER_MM = 20;

const pngOfCard = (layout: Layout): Promise<Buffer> => {
  const density = 25.4 * PREVIEW_PX_PER_MM;
  return sharp(Buffer.from(svgOfCard(layout)), { density })
    .flatten({ background: '#fff' })
    .resize({ width: Math.round(layout.widthMm * PREVIEW_PX_PER_MM) })
    .withMetadata({ density })
    .png()
    .toBuffer();
};

export const TASKS: Tasks = {
  async lay({ kind, plan, pairing, cardNumber, pace }) {
    try {
      const layout = layCard(cardKind(kind), plan, pairing, { cardNumber });
      return { laid: true, layout, estimate: estimateCard(layout, pairing.machine, null, pace) };
    } catch (error) {
      if (!(error instanceof PlanError)) throw error;
      return { laid: false, problems: error.problems };
    }
  },

  async program({ layout, pairing: { machine }, bed, scope, pace }) {
    return {
      program: programOfCard(layout, machine, bed, scope),
      estimate: estimateCard(layout, machine, scope, pace),
    };
  },

  async export({ format, layout, pairing, bed, setup }, send) {
    const { machine } = pairing;
    let chunks = 0;
    const put = (bytes: Uint8Array): void => {
      chunks++;
      send(bytes);
    };
    if (format === 'gcode') for (const text of gcodeChunks(layout, machine, bed)) put(Buffer.from(text));
    else if (format === 'csv') put(Buffer.from(csvOfCells(layout, machine)));
    else if (format === 'svg') put(Buffer.from(svgOfCard(layout)));
    else if (format === 'png') put(await pngOfCard(layout));
    else if (format === 'zip') put(bundleOfCard(layout, pairing, { bed, setup, png: await pngOfCard(layout) }));
    else put(Buffer.from(outlineProgram(layout, machine, bed, format === 'outline-lit')));
    return { chunks };
  },

  async pace({ machine, burns }) {
    // A hand's stops are on the stopwatch too, and no model knows them.
    const timed = burns.filter((burn) => estimateCard(burn.layout, burn.machine, burn.scope).handStops === 0);
    return paceFrom(
      timed.map(({ layout, machine: then, scope, tookS }) => ({ ...burnMotion(layout, then, scope), tookS })),
      machine,
    );
  },

  async read(job, send) {
    const started = performance.now();
    send({ step: 'opening' });
    const opened = await openPhoto(job.bytes);
    const tookS = (): number => (performance.now() - started) / 1000;
    if (!opened.opened) return { outcome: 'unreadable', reason: opened.reason, previewJpeg: null, tookS: tookS() };
    const { photo } = opened;
    const previewJpeg = await previewOf(photo);
    const { layout, stock, corners, cameraIsTrue, spot, seeThrough } = job;
    const onProgress = (step: ReadStep): void => send({ step });
    if (job.litFrom === 'behind') {
      const backlit = asksForHoles(cardKind(layout.kind).asks)
        ? readHoles({ photo, layout, corners, onProgress })
        : readEitherFace(photo.width, ({ turn }) =>
            readBacklit({ photo: turn(photo), layout, stock, corners, cameraIsTrue, onProgress }),
          );
      if (backlit.outcome !== 'read') return { ...backlit, previewJpeg, tookS: tookS() };
      const { rectified, open, outcome, ...told } = backlit;
      const openAt = (x: number, y: number): [number, number, number] => [open.at(x, y), open.at(x, y), open.at(x, y)];
      const straightenedJpeg = await jpegOfRgb(flattened(rectified, { at: openAt }, WHITE));
      return { outcome: 'read-through', ...told, straightenedJpeg, previewJpeg, tookS: tookS() };
    }
    const other = job.second && (await openPhoto(job.second.bytes));
    const second = job.second && other?.opened ? { ...job.second, photo: other.photo } : null;
    const request = { photo, layout, stock, cameraIsTrue, spot, second, sheets: job.sheets, onProgress };
    const result = layout.stations
      ? readStation(request)
      : readEitherFace(photo.width, ({ turn, isMirrored }) =>
          readCard({
            ...request,
            photo: turn(photo),
            second: second && { ...second, photo: turn(second.photo) },
            corners,
            throughSheet: isMirrored && seeThrough,
          }),
        );
    if (result.outcome !== 'read') return { ...result, previewJpeg, tookS: tookS() };
    const { rectified, field, stockLinear, ...rest } = result;
    const straightenedJpeg = await jpegOfRgb(flattened(rectified, field, stockLinear));
    return { station: null, ...rest, straightenedJpeg, previewJpeg, tookS: tookS() };
  },

  async photograph({ burn, onSheet, litFrom, turned, cutOut, ...shot }) {
    const whole = pieceOf(burn);
    const burned = litFrom === 'behind' ? withoutLoose(whole, cutOut) : whole;
    const piece = turned ? turnedOver(burned, letsThroughOf(burn.sheet)) : burned;
    if (litFrom === 'behind') return { jpeg: await shoot(onLightTable(piece, ROOM_LIGHT), shot, lightTableShot) };
    const seen = onSheet ? printedSheet(onSheet, piece, PRINT_SEED, shot.shotSeed, printPxPerMm(shot)) : piece;
    return { jpeg: await shoot(seen, shot) };
  },

  async 'photograph-sheet'({ order, ...shot }) {
    return { jpeg: await shoot(printedSheet(order, null, PRINT_SEED, '', printPxPerMm(shot)), shot) };
  },

  async 'measure-greys'({ bytes, second: { bytes: secondBytes, ...ratio } }) {
    const [first, second] = [await openPhoto(bytes), await openPhoto(secondBytes)];
    if (!first.opened || !second.opened) return { fault: 'damaged' };
    return measureGreys(first.photo, { ...ratio, photo: second.photo });
  },

  async 'place-tone'({ bytes, sheets, place, bare }) {
    const opened = await openPhoto(bytes);
    if (!opened.opened) return { fault: 'damaged' };
    const { photo } = opened;
    const markers = findMarkers(photo, atLeast(MARKERS_OF_SHEET_AND_CARD));
    const sheet = locateSheet(markers);
    const by = tonesBySheet(photo, markers, sheets);
    if (!sheet || !by) return { fault: 'no-sheet' };
    if (!('undone' in by)) return { fault: by.fault };
    const tone = place && toneOfPlace(photo, markers, sheets, place, bare);
    if (tone && 'fault' in tone) return tone;
    const { width: widthPx, height: heightPx } = photo;
    return { widthPx, heightPx, pxPerMm: pxPerMmOf(sheet), previewJpeg: await previewOf(photo), tone };
  },

  async gauge({ burn, measures, box, turn }) {
    const piece = pieceOf(burn);
    const gauge = { owner: burn.machine.name, turn };
    if (measures === 'depth') return depthReading(piece, box, gauge);
    if (measures === 'bend') return bendReading(piece, box, { family: burn.sheet.family, seed: burn.burnSeed });
    if (measures === 'top-x') return caliperReading(piece, box, { axis: 'x', on: 'part', face: 'upper' }, gauge);
    const on = measures.startsWith('hole') ? 'hole' : 'part';
    return caliperReading(piece, box, { axis: measures.endsWith('x') ? 'x' : 'y', on }, gauge);
  },

  async tap({ burn, boxes }) {
    const piece = pieceOf(burn);
    return boxes.map((box) => tapPart(piece, box));
  },

  async 'count-passes'({ burn, box }) {
    // A hand is waited for before every pass but the first.
    const last = burn.programs.at(-1)!;
    const ends = [...last.hands.map(({ line }) => line), last.lines].sort((a, b) => a - b);
    for (const [pass, lines] of ends.entries())
      if (isLoose(pieceOf({ ...burn, programs: [{ ...last, lines }] }), box))
        return { loose: pass + 1, passes: ends.length };
    return { loose: null, passes: ends.length };
  },

  async 'try-slots'({ burn, boxes }) {
    const piece = pieceOf(burn);
    return boxes.map(({ takes, ...box }) =>
      trySlot(piece, box, { family: burn.sheet.family, seed: burn.burnSeed, ...(takes && { part: takes }) }),
    );
  },

  async 'try-mates'({ holes, parts, pairs }) {
    const edgesOf = ({ burn, boxes }: typeof holes, side: 'hole' | 'part') => {
      const piece = pieceOf(burn);
      return boxes.map((box) => edgeOfMate(piece, box, side));
    };
    const [holeEdges, partEdges] = [edgesOf(holes, 'hole'), edgesOf(parts, 'part')];
    const families = [holes.burn.sheet.family, parts.burn.sheet.family] as const;
    return pairs.map(({ hole, part }) =>
      tryMate({
        hole: holeEdges[hole]!,
        part: partEdges[part]!,
        families,
        seed: `${holes.burn.burnSeed} ${hole} ${parts.burn.burnSeed} ${part}`,
      }),
    );
  },

  async 'bend-flaps'({ burn, flaps, stitches }) {
    const piece = pieceOf(burn);
    return {
      flaps: flaps.map((box) => bendFlap(piece, box, { family: burn.sheet.family, seed: burn.burnSeed })),
      stitches: stitches.map((box) => lookAtStitches(piece, box)),
    };
  },

  async 'light-table'({ burn, cutOut }) {
    const { data, width, height } = lightTable(withoutLoose(pieceOf(burn), cutOut));
    const png = await sharp(data, { raw: { width, height, channels: 1 } })
      .png()
      .toBuffer();
    return { png };
  },
};

/** One office printer stands by the bench: its prints are alike. */
const PRINT_SEED = 'by the bench';

/** How fine a print must be for a camera of a scale, in pixels per millimetre: twice as fine as it sees with a whole sheet in view. */
const printPxPerMm = ({ scale }: { readonly scale: number }): number => Math.min(20, 28 * scale);

/** Light of the room that is left when the lamps are off, beside the light table's. */
const ROOM_LIGHT = 0.012;

/** White a little below the brightest that a picture can hold: glass and its like let no more through than that. */
const WHITE = [0.95, 0.95, 0.95] as const;

const jpegOfRgb = ({ data, width, height }: RgbImage): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels: 3 } })
    .jpeg({ quality: 88 })
    .toBuffer();

/** The bench's camera takes a piece. */
async function shoot(
  piece: Piece,
  { shotSeed, scale, stopsLess }: { shotSeed: string; scale: number; stopsLess: number },
  usual: (seed: string) => Shot = casualShot,
): Promise<Buffer> {
  const shot = exposedLess(usual(shotSeed), stopsLess);
  const [widthPx, heightPx] = [Math.round(shot.widthPx * scale), Math.round(shot.heightPx * scale)];
  return jpegOf(photograph(piece, { ...shot, widthPx, heightPx }));
}

/** The piece that was burned last: gauges are set on one piece many times in a row. */
let last: { readonly burn: string; readonly piece: Piece } | null = null;

function pieceOf(burn: BenchBurn): Piece {
  const { programs, machine, sheet, place, burnSeed, wiped, part } = burn;
  const told = JSON.stringify(burn);
  if (last?.burn !== told)
    last = { burn: told, piece: burnPrograms(programs, machine, sheet, place, burnSeed, wiped, part) };
  return last.piece;
}
