/** "L* of patches over power" -> "l-of-patches-over-power" */
const fileName = (label: string): string =>
  label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '') || 'chart';

/** Hands a text to the browser as a file that is named after what it shows. */
export function saveText(
  text: string,
  { type, label, ending }: { readonly type: string; readonly label: string; readonly ending: string },
): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${fileName(label)}.${ending}`;
  link.click();
  URL.revokeObjectURL(url);
}

/** Saves a drawing as a picture that stands by itself (SVG 1.1). */
export function saveDrawing(drawing: Element, label: string): void {
  const text = `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(drawing)}\n`;
  saveText(text, { type: 'image/svg+xml', label, ending: 'svg' });
}

/** Saves rows as CSV (RFC 4180); what writes it is fetched when it is needed. */
export async function saveRows(rows: readonly (readonly (string | number)[])[], label: string): Promise<void> {
  const { stringify } = await import('csv-stringify/browser/esm/sync');
  saveText(stringify(rows as (string | number)[][], { record_delimiter: 'windows' }), {
    type: 'text/csv',
    label,
    ending: 'csv',
  });
}
