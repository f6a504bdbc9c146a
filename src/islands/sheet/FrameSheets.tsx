import { useState } from 'react';
import { Button, LinkButton } from '../../components/Button';
import { SelectField, TextField } from '../../components/Field';
import { Notice, ProblemNotice } from '../../components/Notice';
import { PhotoDrop } from '../../components/PhotoDrop';
import page from '../../components/Page.module.css';
import { QuantityField } from '../../components/QuantityField';
import { quantityKinds } from '../../components/quantity-kinds';
import { byteOfLinear, hexColour } from '../../core/color/srgb';
import { DEFAULT_LIKED_UNITS, plainNumber } from '../../core/quantities/format';
import { FORMAT_NAMES, SHEET_FORMATS, type SheetFormat } from '../../core/sheet/frame-sheet';
import type { FrameSheetRecord } from '../../records/frame-sheet';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import styles from './FrameSheets.module.css';
import { SheetDrawing } from './SheetDrawing';
import { inUse, printWords, sheetState } from './sheet-words';

const KINDS = quantityKinds(DEFAULT_LIKED_UNITS);

/** Frame sheets: printed once, measured once, and laid around cards from then on. */
export function FrameSheets({ sheets: given }: { sheets: readonly FrameSheetRecord[] }) {
  const [sheets, setSheets] = useState(given);
  const [format, setFormat] = useState<SheetFormat>('a5');
  const [name, setName] = useState('');
  const [ruleMm, setRuleMm] = useState<number | null>(null);
  const action = useAction();
  const used = inUse(sheets);
  const add = (): void =>
    action.run(async () => {
      const sheet = await send<FrameSheetRecord>('/api/frame-sheets', {
        method: 'POST',
        json: { name, format, ruleMm },
      });
      setSheets([sheet, ...sheets]);
      setName('');
    });
  return (
    <div className={page.page}>
      <div className={page.head}>
        <div>
          <h1>Frame sheets</h1>
          <p className={page.lead}>
            A printed frame with greys. With it around a card one photo tells what your camera makes of tones: phones
            bend them, and dark cells suffer most. Print it once, measure it once, use it for every photo.
          </p>
        </div>
        <LinkButton href="/stock">Stock room</LinkButton>
      </div>
      <div className={page.columns}>
        <section className={page.group} aria-label="Print it">
          <h2>1 · Print it</h2>
          <SelectField label="Paper" value={format} onChange={(event) => setFormat(event.target.value as SheetFormat)}>
            {SHEET_FORMATS.map((one) => (
              <option key={one} value={one}>
                {FORMAT_NAMES[one]}
              </option>
            ))}
          </SelectField>
          <SheetDrawing format={format} />
          <p>
            At 100 %, not “fit to page”, in black and white, on plain white paper. It must lie flat: glue it to board,
            or tape it down.
          </p>
          <LinkButton look="main" href={`/api/frame-sheets/print/${format}`}>
            {`The ${FORMAT_NAMES[format]} sheet as PDF`}
          </LinkButton>
        </section>
        <section className={page.group} aria-label="Note the print">
          <h2>2 · Note the print</h2>
          <TextField
            label="Name of this print"
            hint="the printer and the day, such as “office, November”"
            value={name}
            maxLength={60}
            onChange={(event) => setName(event.target.value)}
          />
          <QuantityField
            label="Its rule measures"
            kind={KINDS.length}
            value={ruleMm}
            onChange={setRuleMm}
            hint="with a ruler, from the first tick to the last: 100 mm where the print is to scale"
          />
          <ProblemNotice problem={action.problem} />
          <Button look="main" busy={action.busy} disabled={name.trim() === '' || ruleMm === null} onClick={add}>
            {`Note this ${FORMAT_NAMES[format]} print`}
          </Button>
        </section>
      </div>
      <section className={page.group} aria-label="Measure its greys">
        <h2>3 · Measure its greys</h2>
        <p>
          Take two photos of the sheet alone in one light, the second with the exposure set one to two stops darker,
          without touching the lamps. Even light, no shadow of yours on it.
        </p>
        {sheets.length === 0 && <Notice>No print is noted yet.</Notice>}
        <ul className={styles.list}>
          {sheets.map((sheet) => (
            <li key={sheet.id} className={page.card}>
              <PrintedSheet
                sheet={sheet}
                used={used.has(sheet.id)}
                onChanged={(changed) => setSheets(sheets.map((one) => (one.id === changed.id ? changed : one)))}
              />
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

interface PrintedProps {
  readonly sheet: FrameSheetRecord;
  readonly used: boolean;
  readonly onChanged: (sheet: FrameSheetRecord) => void;
}

/** One print: its greys, or what it takes to measure them. */
function PrintedSheet({ sheet, used, onChanged }: PrintedProps) {
  const { id, name, greys } = sheet;
  const action = useAction();
  const post = (path: string, file?: File): Promise<FrameSheetRecord> =>
    send(`/api/frame-sheets/${id}/${path}`, { method: 'POST', ...(file && { file }) });
  const upload = (files: readonly File[]): void =>
    action.run(async () => {
      for (const file of files) onChanged(await post('photos', file));
    });
  return (
    <>
      <h3>{name}</h3>
      <span className={page.soft}>{printWords(sheet)}</span>
      <span>{sheetState(sheet, used)}</span>
      {greys ? (
        <>
          <span className={page.soft}>light of each grey, in per cent of the paper’s:</span>
          <ol className={styles.greys}>
            {greys.reflectances.map((rgb, step) => (
              <li key={step}>
                {/* Drawn, not styled: styles in the page's own text are refused. */}
                <svg className={styles.grey} aria-hidden>
                  <rect
                    width="100%"
                    height="100%"
                    fill={hexColour([byteOfLinear(rgb[0]), byteOfLinear(rgb[1]), byteOfLinear(rgb[2])])}
                  />
                </svg>
                <span>{plainNumber(100 * rgb[1], 2)}</span>
              </li>
            ))}
          </ol>
        </>
      ) : (
        <>
          <PhotoDrop label={`Choose photos of ${name}`} multiple onFiles={upload} />
          <Button busy={action.busy} onClick={() => action.run(async () => onChanged(await post('photograph')))}>
            Take both with the simulated camera
          </Button>
        </>
      )}
      {action.busy && <Notice live>Looking at the photos of {name} …</Notice>}
      <ProblemNotice problem={action.problem} />
    </>
  );
}
