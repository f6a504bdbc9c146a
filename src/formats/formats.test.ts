import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { demoPairing } from '../../stand-ins/demo';
import { bed as bedCard } from '../cards/bed';
import { grid } from '../cards/grid';
import { layCard } from '../core/card/lay';
import { PROTOCOL_VERSION } from '../workers/protocol';
import { TASKS } from '../workers/tasks';
import { svgOfCard } from './card-svg';
import { programOfCard } from './gcode';

const pairing = demoPairing('marl', 'alder');
const bed = { leftMm: 80, rearMm: 120 };

describe('PNG preview', () => {
  it('records its physical size', async () => {
    const { plan } = grid.propose({ pairing, facts: [] });
    const layout = layCard(grid, plan, pairing, { cardNumber: 41 });
    const chunks: Uint8Array[] = [];
    const of = { layout, pairing, bed, setup: plan.setup };
    const job = { version: PROTOCOL_VERSION, task: 'export', format: 'png', ...of } as const;
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
    expect(parts.map(({ name }) => name)).toContain('marker upper-right B2');
  });
});
