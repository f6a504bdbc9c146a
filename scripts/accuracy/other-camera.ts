import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { availableParallelism } from 'node:os';
import { grid } from '../../src/cards/grid';
import type { Layout } from '../../src/core/card/layout';
import { layCard } from '../../src/core/card/lay';
import { mergeCells } from '../../src/core/reading/merge-cells';
import type { CellReading } from '../../src/core/reading/observations';
import { measureGreys } from '../../src/core/reading/sheet/measure-greys';
import type { MeasuredSheets } from '../../src/core/reading/sheet/sheet-tones';
import { frameSheet } from '../../src/core/sheet/frame-sheet';
import { readCard, type ReadResult } from '../../src/core/reading/read-card';
import { DEMO_MACHINES, DEMO_STOCKS } from '../../src/demo/world';
import { paintFace } from '../../stand-ins/other-camera/face';
import { HAZARDS, staged, type Hazard } from '../../stand-ins/other-camera/hazards';
import { inSheet, USUAL_PRINT } from '../../stand-ins/other-camera/sheet';
import { opened, snap, usualSnap, type Snap } from '../../stand-ins/other-camera/shoot';
import { isChartReaderHere, readByChart } from './chart-reader';
import { bootstrapped, isMarked, isOff, isSilent, percent, shareOf, type CellError } from './figures';
import { PAIRINGS } from './pairings';

/** A way to come by a reading: what is done to the photo, and what is known of the camera. */
interface Trial {
  readonly name: string;
  readonly hazard: Hazard;
  readonly cameraIsTrue: boolean;
  readonly photos: 'one' | 'two exposures' | 'two merged' | 'on a frame sheet';
}

const hazardOf = (name: string): Hazard => HAZARDS.find((one) => one.name.startsWith(name))!;
const CURVE = hazardOf('phone’s contrast curve');
const TRIALS: readonly Trial[] = [
  ...HAZARDS.map((hazard) => ({ name: hazard.name, hazard, cameraIsTrue: hazard !== CURVE, photos: 'one' as const })),
  { name: 'ordinary, frame sheet', hazard: hazardOf('ordinary'), cameraIsTrue: false, photos: 'on a frame sheet' },
  { name: 'ordinary, camera never checked', hazard: hazardOf('ordinary'), cameraIsTrue: false, photos: 'one' },
  { name: 'phone’s contrast curve, two exposures', hazard: CURVE, cameraIsTrue: false, photos: 'two exposures' },
  {
    name: 'lamp’s glare, two exposures',
    hazard: hazardOf('lamp’s glare'),
    cameraIsTrue: false,
    photos: 'two exposures',
  },
  { name: 'phone’s contrast curve, frame sheet', hazard: CURVE, cameraIsTrue: false, photos: 'on a frame sheet' },
  {
    name: 'overexposed, frame sheet',
    hazard: hazardOf('overexposed by'),
    cameraIsTrue: false,
    photos: 'on a frame sheet',
  },
  {
    name: 'lamp’s glare, frame sheet',
    hazard: hazardOf('lamp’s glare'),
    cameraIsTrue: false,
    photos: 'on a frame sheet',
  },
  { name: 'veil, frame sheet', hazard: hazardOf('veil'), cameraIsTrue: false, photos: 'on a frame sheet' },
  {
    name: 'lamp’s glare, two photos merged',
    hazard: hazardOf('lamp’s glare'),
    cameraIsTrue: true,
    photos: 'two merged',
  },
  { name: 'ordinary, two photos merged', hazard: hazardOf('ordinary'), cameraIsTrue: true, photos: 'two merged' },
  { name: 'veil, two photos merged', hazard: hazardOf('veil'), cameraIsTrue: true, photos: 'two merged' },
];

export interface PhotoRead {
  readonly trial: string;
  readonly stock: string;
  readonly outcome: ReadResult['outcome'];
  readonly cells: readonly CellError[];
  /** What a general chart reader makes of the same cells, where it is installed and was asked. */
  readonly byChart: readonly CellError[];
}

/** Photos of each hazard that a general chart reader is given as well. */
const BY_CHART = 3;

const STOPS = 1.5;

const SHEET = frameSheet('a5');
/** A card on a sheet takes a part of the picture only: as large in it as the others are in theirs. */
const SHEET_SIZE = { widthPx: 3200, heightPx: 2400 };

/** The greys of the sheet, measured by two photos of a phone that bends tones; each process does it once. */
const sheets = atFirst(async (): Promise<MeasuredSheets> => {
  const alone = inSheet(null, SHEET, USUAL_PRINT, 'report');
  const how = { ...usualSnap('sheet'), widthPx: 2400, heightPx: 1800, contrast: 0.7 };
  const first = await opened(await snap(alone, how));
  const exposure = how.exposure / 2 ** STOPS;
  const second = await opened(await snap(alone, { ...how, seed: 'sheet again', exposure, roll: how.roll + 2 }));
  const told = measureGreys(first, { photo: second, logRatio: STOPS * Math.LN2, logRatioSigma: 0.01 });
  if ('fault' in told) throw new Error(`the sheet's greys: ${told.fault}`);
  return { [told.format]: told.greys };
});

/** Done when it is first asked for, and never again. */
function atFirst<Value>(work: () => Promise<Value>): () => Promise<Value> {
  let made: Promise<Value> | null = null;
  return () => (made ??= work());
}

async function readOne({ name, hazard, cameraIsTrue, photos }: Trial, turn: number): Promise<PhotoRead> {
  const pair = PAIRINGS[turn % PAIRINGS.length]!;
  const stock = DEMO_STOCKS[pair.stock];
  const { machine, lenses } = DEMO_MACHINES[pair.machine];
  const pairing = { machine, lens: lenses[pair.lens]!, stock };
  const { plan } = grid.propose({ pairing, facts: [] });
  const layout: Layout = layCard(grid, { ...plan, leaveOutFailing: false }, pairing, { cardNumber: 1000 + turn });
  const { face, shot } = staged(hazard, `report ${turn}`, layout);
  const painted = paintFace(layout, stock, face);
  const onSheet = photos === 'on a frame sheet';
  const scene = onSheet ? inSheet(painted, SHEET, USUAL_PRINT, 'report') : painted;
  const shoot = async (how: Snap) => opened(await snap(scene, onSheet ? { ...how, ...SHEET_SIZE } : how));
  const photo = await shoot(shot);
  const again = { ...shot, seed: `${shot.seed} again`, roll: (shot.roll ?? 0) + 2, tilt: (shot.tilt ?? 0) + 1 };
  const second =
    photos === 'two exposures'
      ? {
          photo: await shoot({ ...again, exposure: (shot.exposure ?? 0.75) / 2 ** STOPS }),
          logRatio: STOPS * Math.LN2,
          logRatioSigma: 0.01,
        }
      : null;
  const known = onSheet ? await sheets() : {};
  const read = (one: typeof photo) =>
    readCard({ photo: one, layout, stock, corners: null, cameraIsTrue, second, sheets: known });
  const result = read(photo);
  const cellsOf = (one: ReadResult): readonly CellReading[] => (one.outcome === 'read' ? one.cells : []);
  const cells =
    photos === 'two merged'
      ? mergeCells(
          [result, read(await shoot(staged(hazard, `report ${turn} turned`, layout).shot))].map((one) => ({
            cells: cellsOf(one),
            isMirrored: false,
          })),
        )
      : cellsOf(result);
  const asked = isChartReaderHere && turn < BY_CHART && photos === 'one' && result.outcome === 'read';
  const chart = asked ? await readByChart(photo, layout, result.toPhoto, stock.bareLightness) : [];
  return {
    trial: name,
    stock: stock.name,
    outcome: result.outcome,
    cells: cells.map(({ cellIndex, lightness, lightnessSigma, confidence }) => {
      const truth = painted.truth[cellIndex]!;
      return { stock: stock.name, error: lightness - truth, truth, sigma: lightnessSigma, confidence };
    }),
    byChart: [...chart].map(([cellIndex, lightness]) => {
      const truth = painted.truth[cellIndex]!;
      return { stock: stock.name, error: lightness - truth, truth, sigma: NaN, confidence: NaN };
    }),
  };
}

const isAsked = ({ name }: Trial, words: string): boolean => name.includes(words);

/** Reads the photos of every trial of such a name whose number leaves this remainder, and writes what came of each on a line. */
export async function readPart(part: number, parts: number, photosEach: number, words: string): Promise<void> {
  for (let turn = part; turn < photosEach; turn += parts)
    for (const trial of TRIALS.filter((one) => isAsked(one, words)))
      process.stdout.write(`${JSON.stringify(await readOne(trial, turn))}\n`);
}

/** All photos of the trials that are asked for, read on every core. */
async function readAll(photosEach: number, words: string): Promise<PhotoRead[]> {
  const all = photosEach * TRIALS.filter((trial) => isAsked(trial, words)).length;
  const parts = availableParallelism();
  const photos: PhotoRead[] = [];
  await Promise.all(
    Array.from({ length: parts }, async (_, part) => {
      const child = spawn(
        process.execPath,
        [process.argv[1]!, 'part', String(part), String(parts), String(photosEach), words],
        {
          stdio: ['ignore', 'pipe', 'inherit'],
        },
      );
      let text = '';
      for await (const chunk of child.stdout) {
        const lines = (text + String(chunk)).split('\n');
        text = lines.pop()!;
        photos.push(...lines.map((line) => JSON.parse(line) as PhotoRead));
        process.stderr.write(`photo ${photos.length} of ${all}\r`);
      }
      const [code] = child.exitCode === null ? ((await once(child, 'exit')) as [number]) : [child.exitCode];
      if (code !== 0) throw new Error(`a part of the report ended with ${code}`);
    }),
  );
  return photos;
}

const cellsOf = (photos: readonly PhotoRead[]): CellError[] => photos.flatMap(({ cells }) => cells);

function rowOf(name: string, photos: readonly PhotoRead[]): string {
  const cells = cellsOf(photos);
  const unmarked = cells.filter((cell) => !isMarked(cell));
  const [low, high] = bootstrapped(photos, (some) => 1000 * shareOf(cellsOf(some), isSilent));
  const within = (sigmas: number): string =>
    percent(
      shareOf(unmarked, ({ error, sigma }) => Math.abs(error) <= sigmas * sigma),
      0,
    );
  const unread = photos.filter(({ outcome }) => outcome !== 'read').length;
  return `| ${[
    name,
    `${photos.length}${unread > 0 ? `, ${unread} refused` : ''}`,
    cells.length,
    percent(shareOf(cells, ({ error }) => Math.abs(error) <= 1)),
    percent(shareOf(cells, (cell) => !isOff(cell))),
    percent(shareOf(cells, (cell) => !isSilent(cell))),
    percent(shareOf(cells, isMarked)),
    `${(1000 * shareOf(cells, isSilent)).toFixed(1)} (${low.toFixed(1)}–${high.toFixed(1)})`,
    within(1),
    within(2),
  ].join(' | ')} |`;
}

function stockRow(name: string, photos: readonly PhotoRead[], stocks: readonly string[]): string {
  const figures = stocks.map((stock) => {
    const cells = cellsOf(photos).filter((cell) => cell.stock === stock);
    return `${cells.filter(isSilent).length} of ${cells.length}, ${percent(shareOf(cells, isMarked), 0)}`;
  });
  return `| ${[name, ...figures].join(' | ')} |`;
}

/** The same photos by a general chart reader, which says nothing of how sure it is: only how many cells it has right. Null where it was not asked. */
function chartRow(name: string, photos: readonly PhotoRead[]): string | null {
  const asked = photos.filter(({ byChart }) => byChart.length > 0);
  if (asked.length === 0) return null;
  const within = (cells: readonly CellError[]): string => percent(shareOf(cells, (cell) => !isOff(cell)));
  const theirs = asked.flatMap(({ byChart }) => byChart);
  return `| ${[name, asked.length, theirs.length, within(theirs), within(cellsOf(asked))].join(' | ')} |`;
}

const CHART = `Beside a general chart reader (\`scanin\` of Debian's argyll), up to ${BY_CHART} photos of each kind that ours read: it is given the card's corners and averages each cell and four
strips of bare stock beside it. What it cannot do: find the card, tell that a cell is not to be trusted, undo tones, added light or smoke.

| what | photos | cells | within 2 L*, chart reader | within 2 L*, ours |
|---|---|---|---|---|
`;
const NO_CHART = `A general chart reader to compare with (Debian's argyll) was not installed where this report was made.`;

/**
 * The section of the report on photos by another renderer than the bench's, each with something wrong with it. Of kinds whose name has not these words
 * the rows that were written before are kept.
 */
export async function otherCameraReport(photosEach: number, words: string, before: string): Promise<string> {
  const photos = await readAll(photosEach, words);
  const stocks = PAIRINGS.map(({ stock }) => DEMO_STOCKS[stock].name);
  /** Rows of one of the section's three tables. */
  const rows = (table: number, row: (name: string, some: readonly PhotoRead[]) => string | null): string[] =>
    TRIALS.flatMap((trial) => {
      const { name } = trial;
      const written = isAsked(trial, words)
        ? row(
            name,
            photos.filter((photo) => photo.trial === name),
          )
        : before.split('\n').filter((line) => line.startsWith(`| ${name} |`))[table];
      return written ?? [];
    });
  const byChart = rows(2, chartRow);
  return `## What goes wrong with photos

Photos of each kind, 2 MP JPEG, by a second renderer that shares no code with the bench or the reading (stand-ins/other-camera): cards of ${stocks.length} demo
stocks with flat cells from nearly bare to nearly black, tilt to 18 degrees, one lamp near the card. Wanted of each: at least 85 % of cells within 2 L* of the
truth, at least 95 % right or marked, at most 2 in 1000 off and not marked; of ordinary photos 99 % within 1 L*, under 2 % marked, 68 and 95 % within one and
two sigmas. The interval of silent errors is bootstrapped by photo. Sigmas are judged on cells that are not marked.

| what | photos | cells | within 1 L* | within 2 L* | right or marked | marked | silent in 1000 | within 1 sigma | within 2 sigma |
|---|---|---|---|---|---|---|---|---|---|
${rows(0, rowOf).join('\n')}

By stock: cells off by over 2 L* and not marked, and the share that is marked.

| what | ${stocks.join(' | ')} |
|---|${stocks.map(() => '---|').join('')}
${rows(1, (name, some) => stockRow(name, some, stocks)).join('\n')}

${byChart.length > 0 ? `${CHART}${byChart.join('\n')}` : NO_CHART}

What the reading cannot do: tell a camera's tones from one photo (cells far from bare stock are marked until two exposures tell them); tell light that was
added evenly all over the card, or any on grey stock that its markers do not tell, from more light. Of a veil that is all that one photo has: brighter stock
under less light with a veil sends the camera the same picture as darker stock under more light without. On dark stock with light marks half a hundredth of white is worth
several L*, so that either every ordinary photo of slate would be marked, or a veil of a wall over all of it is not seen: the latter was chosen. A dark cloth behind
the camera, or the card turned away from what shines on it, takes it away. A frame sheet takes out what is added to card and sheet alike, and by its
dark greys and the bare stock most of what lies over the one more than over the other, as one broad lobe; marks that it leaves unsure are marked. How far it
is trusted was chosen on the photos of this report; of 150 photos, half of them others, 2.5 cells in 1000 were off and not marked then. A second photo
tells a veil that differs between both: the one with more contrast counts then, and cells that as much light might still move by too much are marked. As much
of it in both is seen by neither.
`;
}
