import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../../stand-ins/demo';
import { paintFace } from '../../../stand-ins/other-camera/face';
import { HAZARDS, staged, type Hazard } from '../../../stand-ins/other-camera/hazards';
import { inSheet, printedShare, USUAL_PRINT } from '../../../stand-ins/other-camera/sheet';
import { opened, snap } from '../../../stand-ins/other-camera/shoot';
import { grid } from '../../cards/grid';
import { layCard } from '../card/lay';
import { frameSheet, GREY_STEPS } from '../sheet/frame-sheet';
import { LOW_CONFIDENCE } from './observations';
import { readCard } from './read-card';

const pairing = demoPairing('heron', 'birch');
const { plan } = grid.propose({ pairing, facts: [] });
const layout = layCard(grid, { ...plan, leaveOutFailing: false }, pairing, { cardNumber: 100 });

const hazardOf = (name: string): Hazard => HAZARDS.find((one) => one.name === name)!;

/** The proposed grid of another pairing, painted and ready to be photographed with something wrong. */
function stagedOn(on: typeof pairing, cardNumber: number, hazard: string, seed: string) {
  const proposed = grid.propose({ pairing: on, facts: [] }).plan;
  const card = layCard(grid, { ...proposed, leaveOutFailing: false }, on, { cardNumber });
  const { face, shot } = staged(hazardOf(hazard), seed, card);
  return { card, shot, painted: paintFace(card, on.stock, face) };
}

/** A sample, one photo each; the report of accuracy takes them all, and more of them. */
const SAMPLE = [
  'ordinary',
  'overexposed by 0.3 to 0.8 stop',
  'lamp’s glare',
  'hard shadow',
  'smoke round strong cells',
  'two lamps of two colours',
  'cut flush at its markers',
];

describe('a photo by another camera than the bench’s', () => {
  it.each(HAZARDS.filter(({ name }) => SAMPLE.includes(name)).map((hazard) => [hazard.name, hazard] as const))(
    '%s: cells are right or marked',
    async (_, hazard) => {
      const { face, shot } = staged(hazard, 's0', layout);
      const painted = paintFace(layout, pairing.stock, face);
      const photo = await opened(await snap(painted, { widthPx: 1200, heightPx: 900, ...shot }));
      const result = readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: true });
      // Where all of the stock is at the end of the camera's range there is nothing to go by, and that is said.
      if (result.outcome === 'unreadable' && /overexposed/.test(hazard.name))
        return expect(result.reason).toBe('overexposed');
      if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
      const off = (cell: (typeof result.cells)[number]): number =>
        Math.abs(cell.lightness - painted.truth[cell.cellIndex]!);
      const { cells } = result;
      const right = cells.filter((cell) => off(cell) <= 2);
      const silent = cells.filter((cell) => off(cell) > 2 && cell.confidence >= LOW_CONFIDENCE);
      expect(silent.length).toBeLessThanOrEqual(1);
      expect(right.length / cells.length).toBeGreaterThan(0.85);
      if (['ordinary', 'two lamps of two colours'].includes(hazard.name))
        expect(cells.filter((cell) => cell.confidence < LOW_CONFIDENCE)).toEqual([]);
    },
  );
  it.each([
    ['phone’s contrast curve', 's0'],
    // Nine tenths of its bare stock are blown out.
    ['overexposed by 0.3 to 0.8 stop', 'report 7'],
  ])('%s on a frame sheet: as right as an ordinary one', async (name, seed) => {
    const size = { widthPx: 2000, heightPx: 1500 };
    const { face, shot } = staged(hazardOf(name), seed, layout);
    const painted = paintFace(layout, pairing.stock, face);
    const photo = await opened(
      await snap(inSheet(painted, frameSheet('a5'), USUAL_PRINT, 'print'), { ...shot, ...size }),
    );
    const reflectances = GREY_STEPS.map((_, step) => printedShare(USUAL_PRINT, step)).map(
      (share) => [share, share, share] as const,
    );
    const sheets = { a5: { reflectances, contrastSigma: 0.01 } };
    const read = (by: typeof sheets | undefined) =>
      readCard({ photo, layout, stock: pairing.stock, corners: null, cameraIsTrue: false, ...(by && { sheets: by }) });
    const result = read(sheets);
    if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
    expect(result.tones).toMatchObject({ told: 'by-sheet', format: 'a5' });
    for (const { cellIndex, lightness } of result.cells)
      expect(Math.abs(lightness - painted.truth[cellIndex]!)).toBeLessThan(1);
    expect(result.cells.filter(({ confidence }) => confidence < LOW_CONFIDENCE).length).toBeLessThanOrEqual(1);
    const without = read(undefined);
    if (without.outcome !== 'read')
      return expect(without).toMatchObject({ outcome: 'unreadable', reason: 'overexposed' });
    expect(without.tones).toMatchObject({ told: 'not-told', why: 'sheet-not-measured' });
    expect(without.cells.filter(({ confidence }) => confidence < LOW_CONFIDENCE).length).toBeGreaterThan(
      0.9 * without.cells.length,
    );
  });
  it('veil on grey stock, which no colour tells: the markers do', async () => {
    const grey = demoPairing('tern', 'twoLayer');
    const { card, shot, painted } = stagedOn(grey, 101, 'veil', 'report 5');
    const result = readCard({
      photo: await opened(await snap(painted, shot)),
      layout: card,
      stock: grey.stock,
      corners: null,
      cameraIsTrue: true,
    });
    if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
    // Three quarters of the cells were silently wrong by colour alone.
    const off = result.cells.filter(({ cellIndex, lightness }) => Math.abs(lightness - painted.truth[cellIndex]!) > 2);
    expect(off.filter(({ confidence }) => confidence >= LOW_CONFIDENCE)).toEqual([]);
  });
  it('phone’s contrast curve on dark stock, two exposures: no waves between tones a step of light apart', async () => {
    const dark = demoPairing('marl', 'slate');
    const { card, shot, painted } = stagedOn(dark, 1017, 'phone’s contrast curve', 'report 17');
    const shoot = async (how: typeof shot) => opened(await snap(painted, how));
    const stops = 1.5;
    const again = { ...shot, seed: `${shot.seed} again`, roll: (shot.roll ?? 0) + 2, tilt: (shot.tilt ?? 0) + 1 };
    const result = readCard({
      photo: await shoot(shot),
      layout: card,
      stock: dark.stock,
      corners: null,
      cameraIsTrue: false,
      second: {
        photo: await shoot({ ...again, exposure: (shot.exposure ?? 0.75) / 2 ** stops }),
        logRatio: stops * Math.LN2,
        logRatioSigma: 0.01,
      },
    });
    if (result.outcome !== 'read') return expect(result).toMatchObject({ outcome: 'read' });
    // A curve that followed all that it could was 5 L* off here at every other tone, and silent at a sixth of the cells.
    for (const { cellIndex, lightness } of result.cells)
      expect(Math.abs(lightness - painted.truth[cellIndex]!)).toBeLessThan(2);
  });
});
