import { useState } from 'react';
import { BenchFrame, Figures, TicketPart } from '../components/BenchFrame';
import { Button, LinkButton } from '../components/Button';
import { DragHandle } from '../components/DragHandle';
import { CheckField, SelectField } from '../components/Field';
import { Mat } from '../components/Mat';
import { Notice, ProblemNotice } from '../components/Notice';
import { PhotoDrop } from '../components/PhotoDrop';
import { QuantityField } from '../components/QuantityField';
import { quantityKinds } from '../components/quantity-kinds';
import type { Point } from '../core/geometry/point';
import { DEFAULT_LIKED_UNITS, plainNumber } from '../core/quantities/format';
import type { ToneOfPlace } from '../core/reading/sheet/tone-of-place';
import type { MatchPhoto } from '../records/match-photo';
import { send } from '../views/send';
import { useAction } from '../views/use-action';
import type { MatchView } from '../views/views';
import styles from './MatchScreen.module.css';

const LENGTH = quantityKinds(DEFAULT_LIKED_UNITS).length;
/** Of the sheet, for a key press; with Shift ten times as far. */
const STEP_MM = 0.5;

interface Places {
  readonly mark: Point;
  readonly bare: Point;
}

const firstPlaces = ({ widthPx, heightPx }: MatchPhoto): Places => ({
  mark: { x: widthPx * 0.5, y: heightPx * 0.5 },
  bare: { x: widthPx * 0.42, y: heightPx * 0.42 },
});

/** A round place on the photo, with its name. */
function Place({
  name,
  at,
  radiusPx,
  stepPx,
  textPx,
  look,
  onMove,
}: {
  name: string;
  at: Point;
  radiusPx: number;
  stepPx: number;
  textPx: number;
  look: string;
  onMove: (to: Point) => void;
}) {
  return (
    <g>
      <DragHandle
        className={styles.place}
        at={at}
        radius={radiusPx}
        step={stepPx}
        label={`${name}: drag it, or move it by the arrow keys`}
        onMove={onMove}
      />
      <circle className={`${styles.ring} ${look}`} cx={at.x} cy={at.y} r={radiusPx} />
      <text className={styles.name} x={at.x} y={at.y - radiusPx - textPx * 0.4} fontSize={textPx}>
        {name}
      </text>
    </g>
  );
}

/** The tone of an old or a customer's piece, from its photo beside a frame sheet, and where to see what gives it today. */
export function MatchScreen({ view, pairingIds }: { view: MatchView; pairingIds: readonly number[] }) {
  const [photos, setPhotos] = useState(view.photos);
  const [shownId, setShownId] = useState(photos[0]?.id ?? null);
  const [placesOf, setPlacesOf] = useState<Readonly<Record<number, Places>>>({});
  const [sizeMm, setSizeMm] = useState<number | null>(3);
  const [hasBare, setHasBare] = useState(true);
  const [piece, setPiece] = useState(view.pieces[0]?.id ?? null);
  const [tone, setTone] = useState<ToneOfPlace | null>(null);
  const action = useAction();
  const shown = photos.find(({ id }) => id === shownId);
  const places = shown && (placesOf[shown.id] ?? firstPlaces(shown));
  const show = (id: number): void => {
    setShownId(id);
    setTone(null);
  };
  const add = (taken: Promise<MatchPhoto>): void =>
    action.run(async () => {
      const photo = await taken;
      setPhotos((now) => [photo, ...now.filter(({ id }) => id !== photo.id)]);
      show(photo.id);
    });
  const upload = ([file]: readonly File[]): void => {
    if (!file) return;
    const query = new URLSearchParams({ name: file.name.slice(0, 120) });
    add(send<MatchPhoto>(`/api/matches?${query}`, { method: 'POST', file }));
  };
  const move = (which: keyof Places, to: Point): void => {
    if (!shown || !places) return;
    setPlacesOf({ ...placesOf, [shown.id]: { ...places, [which]: to } });
    // What was told was of another place.
    setTone(null);
  };
  const tell = (): void =>
    action.run(async () => {
      if (!shown || !places || sizeMm === null) return;
      const radiusPx = (sizeMm / 2) * shown.pxPerMm;
      const json = { place: { ...places.mark, radiusPx }, bare: hasBare ? { ...places.bare, radiusPx } : null };
      setTone(null);
      setTone(await send<ToneOfPlace>(`/api/matches/${shown.id}/tone`, { method: 'POST', json }));
    });
  const compare = (told: ToneOfPlace): string => {
    const query = new URLSearchParams(pairingIds.map((id) => ['pairing', String(id)]));
    query.set('lightness', told.lightness.toFixed(1));
    query.set('sigma', told.sigma.toFixed(2));
    if (told.overBare) query.set('over', told.overBare.ratio.toFixed(4));
    return `/compare?${query}`;
  };

  return (
    <BenchFrame
      side="Photos"
      title={<h1>Match a piece</h1>}
      ladder={
        <ul className={styles.photos}>
          {photos.map(({ id, fileName }) => (
            <li key={id}>
              <button type="button" aria-pressed={id === shownId} onClick={() => show(id)}>
                <img src={`/api/matches/${id}/image`} alt="" />
                {fileName}
              </button>
            </li>
          ))}
        </ul>
      }
      mat={
        shown && places ? (
          <Mat
            key={shown.id}
            label="The photo of the piece"
            ruled={false}
            extent={{ x: 0, y: 0, width: shown.widthPx, height: shown.heightPx }}
          >
            {(drawn) => (
              <g>
                <image href={`/api/matches/${shown.id}/image`} width={shown.widthPx} height={shown.heightPx} />
                {(hasBare ? (['bare', 'mark'] as const) : (['mark'] as const)).map((which) => (
                  <Place
                    key={which}
                    name={which === 'mark' ? 'the tone' : 'bare stock'}
                    at={places[which]}
                    radiusPx={Math.max(((sizeMm ?? 3) / 2) * shown.pxPerMm, 4 / drawn.pxPerMm)}
                    stepPx={STEP_MM * shown.pxPerMm}
                    textPx={15 / drawn.pxPerMm}
                    look={which === 'bare' ? styles.bare! : ''}
                    onMove={(to) => move(which, to)}
                  />
                ))}
              </g>
            )}
          </Mat>
        ) : (
          <Notice title="No photo yet">
            Lay the old piece on a frame sheet whose greys were measured, in even light, and take a photo of both.
          </Notice>
        )
      }
      ticket={
        <>
          <TicketPart title="A photo of the piece">
            <PhotoDrop label="Choose a photo of the piece" camera onFiles={upload}>
              JPEG, PNG or WebP, to 25 MB. The piece on a measured <a href="/frame-sheets">frame sheet</a>, even light,
              no flash.
            </PhotoDrop>
            {view.pieces.length > 0 && (
              <>
                <SelectField
                  label="Or take a burned card for the piece"
                  value={String(piece)}
                  onChange={(event) => setPiece(Number(event.target.value))}
                >
                  {view.pieces.map(({ id, words }) => (
                    <option key={id} value={id}>
                      {words}
                    </option>
                  ))}
                </SelectField>
                <Button
                  busy={action.busy}
                  onClick={() =>
                    add(send<MatchPhoto>('/api/matches/photograph', { method: 'POST', json: { cardId: piece } }))
                  }
                >
                  Take it with the simulated camera
                </Button>
              </>
            )}
          </TicketPart>
          {shown && (
            <TicketPart title="Which tone?">
              <p>Drag the ring onto the tone to match, and the dashed one onto bare stock beside it.</p>
              <QuantityField label="Size of a place" kind={LENGTH} value={sizeMm} onChange={setSizeMm} />
              <CheckField
                label="Bare stock is in the photo"
                hint="what stands beside it is told most surely"
                checked={hasBare}
                onChange={(event) => {
                  setHasBare(event.target.checked);
                  setTone(null);
                }}
              />
              <Button look="main" busy={action.busy} disabled={sizeMm === null} onClick={tell}>
                Tell the tone
              </Button>
              {tone && (
                <>
                  <Figures
                    rows={[
                      [
                        'By the sheet’s paper',
                        `L* ${plainNumber(tone.lightness, 3)} ± ${plainNumber(2 * tone.sigma, 2)}`,
                      ],
                      ...(tone.overBare
                        ? [
                            [
                              'Of bare stock’s light',
                              `${plainNumber(100 * tone.overBare.ratio, 3)} % ± ${plainNumber(200 * tone.overBare.ratio * tone.overBare.sigmaShare, 2)}`,
                            ] as const,
                          ]
                        : []),
                    ]}
                  />
                  <p className={styles.hint}>
                    On the same kind of stock go by its bare stock; on another by the paper. Both are foretold, and to
                    be proven by a card.
                  </p>
                  <LinkButton look="main" href={compare(tone)}>
                    See what gives it today
                  </LinkButton>
                </>
              )}
            </TicketPart>
          )}
          <ProblemNotice problem={action.problem} />
        </>
      }
    />
  );
}
