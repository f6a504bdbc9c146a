import type { CardRecord } from '../records/card';
import type { ZeroPlace } from '../core/machine/machine';
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
  zip: 'application/zip',
  outline: 'text/plain; charset=utf-8',
  'outline-lit': 'text/plain; charset=utf-8',
};

/** Ends of names where they are not the format's own. */
const ENDINGS: Readonly<Partial<Record<ExportFormat, string>>> = {
  outline: '-outline.gcode',
  'outline-lit': '-outline-lit.gcode',
};

/** A card as a file, by the machine's own zero or another one, made in a thread and sent on as it is made. Equal cards give equal bytes. */
export function exportCard(
  ctx: AppContext,
  card: CardRecord,
  format: ExportFormat,
  zero: ZeroPlace | null = null,
  name = `card-${card.layout.code}`,
): ExportedFile {
  const { layout, madeFor, bed } = card;
  const { setup } = card.plan;
  const pairing = zero === null ? madeFor : { ...madeFor, machine: { ...madeFor.machine, zero } };
  const bytes = new ReadableStream<Uint8Array>({
    async start(controller) {
      try {
        await ctx.work.do('export', { format, layout, pairing, bed, setup }, (chunk) => controller.enqueue(chunk));
        controller.close();
      } catch (error) {
        controller.error(error);
      }
    },
  });
  return { name: `${name}${ENDINGS[format] ?? `.${format}`}`, mediaType: MEDIA_TYPES[format], bytes };
}
