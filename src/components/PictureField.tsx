import { useMemo, useRef, useState, type PointerEvent } from 'react';
import { MOST_PLACES, unpackGreys, type Greys } from '../core/picture/greys';
import { darknessOfPixels, WHOLE, type Crop } from '../core/picture/sample';
import { Button } from './Button';
import { Notice } from './Notice';
import { pictureUrl } from './picture-url';
import styles from './PictureField.module.css';

export interface NamedPicture extends Greys {
  readonly name: string;
}

interface Props {
  readonly label: string;
  readonly picture: NamedPicture;
  readonly crop: Crop;
  readonly hint?: string | undefined;
  readonly error?: string | undefined;
  readonly onChange: (picture: NamedPicture, crop: Crop) => void;
}

/** Pixels that are looked at of a chosen file: more than are kept of it, so that each is a mean. */
const LOOKED_AT = 4 * MOST_PLACES;
/** A stroke shorter than this, as a share of the picture, is a press and no crop. */
const LEAST_STROKE = 0.03;

/** Pixels along the longer side that a drawing is looked at with: it has none of its own. */
const DRAWN_PX = 1600;

/** A drawing as pixels, as the browser draws it in an image: it runs no script there and fetches nothing. Throws where it cannot. */
async function drawnFrom(file: File): Promise<ImageBitmap> {
  const url = URL.createObjectURL(file);
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const { naturalWidth: width, naturalHeight: height } = image;
    // In a shape that nobody said it would come out squeezed.
    if (!(width > 0 && height > 0)) throw new Error('the drawing says no size');
    const scale = DRAWN_PX / Math.max(width, height);
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return canvas.transferToImageBitmap();
  } finally {
    URL.revokeObjectURL(url);
  }
}

/** A file as a picture in greys. Throws where the browser cannot open it. */
async function openPicture(file: File): Promise<NamedPicture> {
  const bitmap = file.type === 'image/svg+xml' ? await drawnFrom(file) : await createImageBitmap(file);
  const sizeWithin = (most: number): { columns: number; rows: number } => {
    const scale = Math.min(1, Math.sqrt(most / (bitmap.width * bitmap.height)));
    return {
      columns: Math.max(1, Math.floor(bitmap.width * scale)),
      rows: Math.max(1, Math.floor(bitmap.height * scale)),
    };
  };
  const looked = sizeWithin(LOOKED_AT);
  const { columns, rows } = sizeWithin(MOST_PLACES);
  const canvas = new OffscreenCanvas(looked.columns, looked.rows);
  const context = canvas.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, looked.columns, looked.rows);
  bitmap.close();
  const greys = darknessOfPixels(context.getImageData(0, 0, looked.columns, looked.rows), columns, rows);
  return { name: file.name.replace(/\.[^.]*$/, '').slice(0, 80) || 'picture', ...greys };
}

/** A picture to be chosen from a file, and the part of it that is wanted, drawn on it with the pointer. */
export function PictureField({ label, picture, crop, hint, error, onChange }: Props) {
  const { columns, rows } = picture;
  const [fault, setFault] = useState<string | null>(null);
  const [from, setFrom] = useState<{ x: number; y: number } | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const url = useMemo(() => {
    const bytes = unpackGreys(picture);
    return pictureUrl(columns, rows, (place) => [255 - bytes[place]!, 255 - bytes[place]!, 255 - bytes[place]!, 255]);
  }, [picture, columns, rows]);

  const choose = (file: File | undefined): void => {
    if (!file) return;
    setFault(null);
    openPicture(file).then(
      (chosen) => onChange(chosen, WHOLE),
      () =>
        setFault(
          `“${file.name}” is no picture that can be opened here: take a PNG, a JPEG or an SVG. The one before still stands.`,
        ),
    );
  };
  const at = ({ clientX, clientY, currentTarget }: PointerEvent<SVGSVGElement>): { x: number; y: number } => {
    const place = new DOMPoint(clientX, clientY).matrixTransform(currentTarget.getScreenCTM()!.inverse());
    const within = (share: number): number => Math.min(1, Math.max(0, Math.round(share * 1000) / 1000));
    return { x: within(place.x / columns), y: within(place.y / rows) };
  };
  const drag = (event: PointerEvent<SVGSVGElement>): void => {
    if (!from) return;
    const to = at(event);
    const [width, height] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
    if (width < LEAST_STROKE || height < LEAST_STROKE) return;
    onChange(picture, { left: Math.min(from.x, to.x), top: Math.min(from.y, to.y), width, height });
  };
  const box = { x: crop.left * columns, y: crop.top * rows, width: crop.width * columns, height: crop.height * rows };
  const isWhole = crop.width === 1 && crop.height === 1;
  const outside = `M0 0H${columns}V${rows}H0ZM${box.x} ${box.y}v${box.height}h${box.width}v${-box.height}Z`;

  return (
    <div className={styles.field} role="group" aria-label={label}>
      <h3>{picture.name}</h3>
      <svg
        className={styles.preview}
        viewBox={`0 0 ${columns} ${rows}`}
        role="img"
        aria-label={`${picture.name}${isWhole ? '' : ', cropped'}`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setFrom(at(event));
        }}
        onPointerMove={drag}
        onPointerUp={() => setFrom(null)}
      >
        {url && <image href={url} width={columns} height={rows} preserveAspectRatio="none" />}
        {!isWhole && <path d={outside} fillRule="evenodd" className={styles.outside} />}
        {!isWhole && <rect {...box} className={styles.crop} />}
      </svg>
      <div className={styles.row}>
        <input
          ref={input}
          type="file"
          accept="image/png,image/jpeg,image/svg+xml"
          aria-label="Picture file"
          hidden
          onChange={(event) => {
            choose(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
        <Button onClick={() => input.current?.click()}>Choose a picture</Button>
        {!isWhole && <Button onClick={() => onChange(picture, WHOLE)}>All of it</Button>}
      </div>
      <p className={styles.hint}>Draw a box on it to burn a part. {hint && `${capital(hint)}.`}</p>
      {(fault ?? error) && <Notice look="heat">{fault ?? error}</Notice>}
    </div>
  );
}

const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);
