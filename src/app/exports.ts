import type { CardRecord } from '../records/card';
import { type ExportFormat } from '../workers/protocol';
import type { AppContext } from './context';

export interface ExportedFile {
  readonly name: string;
  readonly mediaType: string;
  /** Bytes, or a stream of them that is still being made. */
  readonly bytes: Buffer | ReadableStream<Uint8Array>;
}

const MEDIA_TYPES: Readonly<Record<ExportFormat, string>> = {
  svg: 'image/svg+xml',
  gcode: 'text/plain; charset=utf-8',
  csv: 'text/csv; charset=utf-8',
  png: 'image/png',
};

/** A card as a file, made in a thread and sent on as it is made. Equal cards give equal bytes. */
export function exportCard(ctx: AppContext, card: CardRecord, format: ExportFormat): ExportedFile {
  const { layout, madeFor: pairing, bed } = card;
  const bytes = new ReadableStream<Uint8Array>({
    async start(controller) {
      try {
        await ctx.work.do('export', { format, layout, pairing, bed }, (chunk) => controller.enqueue(chunk));
        controller.close();
      } catch (error) {
        controller.error(error);
      }
    },
  });
  return { name: `card-${layout.code}.${format}`, mediaType: MEDIA_TYPES[format], bytes };
}
