import sharp from 'sharp';
import { csvOfCells } from '../formats/csv';
import { gcodeOfCard } from '../formats/gcode';
import { svgOfCard } from '../formats/card-svg';
import type { CardRecord } from '../db/cards';

export interface ExportedFile {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Buffer;
}

export const EXPORT_FORMATS = ['svg', 'gcode', 'csv', 'png'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** Pixels per millimetre of the PNG preview. */
const PREVIEW_PX_PER_MM = 20;

async function pngOfCard(card: CardRecord): Promise<Buffer> {
  const { widthMm } = card.layout;
  return sharp(Buffer.from(svgOfCard(card.layout)), { density: 25.4 * PREVIEW_PX_PER_MM })
    .flatten({ background: '#fff' })
    .resize({ width: Math.round(widthMm * PREVIEW_PX_PER_MM) })
    .withMetadata({ density: 25.4 * PREVIEW_PX_PER_MM })
    .png()
    .toBuffer();
}

/** A card as a file. Equal cards give equal bytes. */
export async function exportCard(card: CardRecord, format: ExportFormat): Promise<ExportedFile> {
  const name = `card-${card.layout.code}`;
  switch (format) {
    case 'svg':
      return { name: `${name}.svg`, mediaType: 'image/svg+xml', bytes: Buffer.from(svgOfCard(card.layout)) };
    case 'gcode':
      return {
        name: `${name}.gcode`,
        mediaType: 'text/plain; charset=utf-8',
        bytes: Buffer.from(gcodeOfCard(card.layout, card.madeFor.machine, card.bed)),
      };
    case 'csv':
      return { name: `${name}.csv`, mediaType: 'text/csv; charset=utf-8', bytes: Buffer.from(csvOfCells(card.layout)) };
    case 'png':
      return { name: `${name}.png`, mediaType: 'image/png', bytes: await pngOfCard(card) };
  }
}
