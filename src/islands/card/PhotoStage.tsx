import { useState } from 'react';
import type { LitFrom, PhotoView } from '../../records/photo';
import { cardKind } from '../../cards/registry';
import { isSeeThrough } from '../../core/stock/see-through';
import { asksForHoles, asksOn, asksThrough } from '../../core/card/usual-asks';
import { BenchFrame, TicketPart } from '../../components/BenchFrame';
import { Button, LinkButton } from '../../components/Button';
import { SelectField } from '../../components/Field';
import { CardDrawing } from '../../components/CardDrawing';
import { CardPhotos, CardPiece } from '../../components/CardPhotos';
import { Mat } from '../../components/Mat';
import { PhotoDrop } from '../../components/PhotoDrop';
import { Notice, ProblemNotice } from '../../components/Notice';
import { fittingSheet, type SheetFormat } from '../../core/sheet/frame-sheet';
import { momentWords, nextPhotoShows, type FinishMoment } from '../../core/card/work-setup';
import { grown } from '../../core/geometry/point';
import { mixColours } from '../../core/color/mix';
import { burnedColourOf } from '../../core/stock/families';
import { plainNumber } from '../../core/quantities/format';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { CornersMat, type Corners } from './CornersMat';
import {
  asksForCorners,
  countWords,
  IN_VIEW,
  isBeyondBench,
  nextPhotoWords,
  ON_LIGHT_TABLE,
  placedBy,
  stateOf,
  cameraWords,
  mirroredWords,
  stationWords,
  tonesAdvice,
  veilAdvice,
} from './photo-words';
import { FaultChips, FaultMarks, FaultNotices } from './PhotoFaults';
import type { StageProps } from './stage-props';
import styles from './PhotoStage.module.css';

export function PhotoStage({ view, tabs, title, ladder, selected, onSelect, onChanged, onNext }: StageProps) {
  const { card, photos, round } = view;
  /** Cards of its round that a burn is over of: they lie on one piece. */
  const beside = round?.cards.filter(({ stage }) => stage !== 'planned' && stage !== 'burning') ?? [];
  const { layout, madeFor } = card;
  const action = useAction();
  const [sending, setSending] = useState<string | null>(null);
  const [shownId, setShownId] = useState<number | null>(null);
  const [corners, setCorners] = useState<Corners | null>(null);
  const [litFrom, setLitFrom] = useState<LitFrom>('front');
  const asks = asksOn(cardKind(card.kind).asks, madeFor.stock);
  const holes = asksForHoles(asks);
  const asked = asksThrough(asks) && !holes;
  const backlit = holes || (asked && litFrom === 'behind');
  const { setup } = card.plan;
  const [chosen, setChosen] = useState<FinishMoment | null>(null);
  const shows =
    chosen ??
    nextPhotoShows(
      setup,
      photos.map((photo) => photo.finish),
    );
  const beyondBench = isBeyondBench(setup, shows);
  const placed = placedBy(layout);
  const byMarkers = placed === 'markers';
  const seeThrough = isSeeThrough(madeFor.stock);
  const { stations } = layout;
  const stationsRead = stationWords(layout, view.reading?.shown ?? []);
  const firstLook = photos.length === 0 ? 'main' : 'plain';
  const onBench = view.burns.some((burn) => burn.place === 'bench' && burn.linesDone > 0);
  const shown = photos.find((photo) => photo.id === shownId) ?? photos[0];
  const [byHandId, setByHandId] = useState<number | null>(null);
  const advice = view.reading && tonesAdvice(view.reading.tones, placed);
  const veil = backlit ? null : veilAdvice(madeFor.stock);
  const faults = shown?.status === 'read' ? shown.faults : [];
  /** Of a photo of one place, that place alone is shown. */
  const shownBox = shown?.station == null ? undefined : stations?.[shown.station]?.box;
  const counting = [...(view.reading?.photoIds ?? []), ...(view.through?.photoIds ?? [])];
  const sameLight = ({ litFrom: from }: PhotoView): number[] => [
    ...((from === 'behind' ? view.through : view.reading)?.photoIds ?? []),
  ];
  const nextWords = view.reading && !stations && nextPhotoWords(view.reading.cells, layout);
  const askCorners = shown && !stations && asksForCorners(shown, byHandId === shown.id);
  /** Corners belong to one photo: with another the handles start afresh. */
  const show = (id: number | null): void => {
    setShownId(id);
    setByHandId(null);
    setCorners(null);
    setChosen(null);
  };

  const upload = (files: readonly File[]): void =>
    action.run(async () => {
      for (const file of files) {
        setSending(file.name);
        try {
          const query = new URLSearchParams({
            name: file.name.slice(0, 120),
            ...(shows && { finish: shows }),
            ...(backlit && { lit: 'behind' }),
          });
          await send(`/api/cards/${card.id}/photos?${query}`, { method: 'POST', file });
          show(null);
        } finally {
          setSending(null);
        }
      }
      await onChanged();
    });

  const takePhotos = (
    count: 1 | 2,
    {
      sheet = null,
      closer = false,
      turned = false,
    }: { sheet?: SheetFormat | null; closer?: boolean; turned?: boolean } = {},
  ): void =>
    action.run(async () => {
      setSending('the simulated camera');
      try {
        const query = new URLSearchParams({
          state: shows === 'after' ? 'wiped' : 'raw',
          photos: String(count),
          ...(sheet && { sheet }),
          ...(closer && { closer: 'true' }),
          ...(turned && { face: 'back' }),
          ...(backlit && { lit: 'behind' }),
        });
        await send(`/api/cards/${card.id}/photograph?${query}`, { method: 'POST' });
        show(null);
      } finally {
        setSending(null);
      }
      await onChanged();
    });
  const readAgain = (): void =>
    action.run(async () => {
      await send(`/api/photos/${shown!.id}/corners`, { method: 'PUT', json: { corners } });
      show(null);
      await onChanged();
    });
  const count = (photo: PhotoView, counts: boolean): void =>
    action.run(async () => {
      await send(`/api/photos/${photo.id}/counts`, { method: 'PUT', json: { counts } });
      await onChanged();
    });
  const move = (photo: PhotoView, cardId: number): void =>
    action.run(async () => {
      await send(`/api/photos/${photo.id}/move`, { method: 'POST', json: { cardId } });
      window.location.assign(`/cards/${cardId}#photo`);
    });

  const readToo = (photo: PhotoView, cardId: number): void =>
    action.run(async () => {
      await send(`/api/photos/${photo.id}/also`, { method: 'POST', json: { cardId } });
      await onChanged();
    });

  const ticket = (
    <>
      {tabs}
      <TicketPart title="Photo of the card">
        {holes && (
          <Notice title="What has dropped">
            Tap the sheet until all that is loose has fallen out, lay it on a light table, and take a photo from above:
            holes shine. Or go on and say it by keys.
          </Notice>
        )}
        <FaultNotices faults={faults} layout={layout} />
        {nextWords && <Notice title="What would help">{nextWords}</Notice>}
        {stationsRead && <Notice>{stationsRead}</Notice>}
        {shows && (
          <SelectField
            label="It shows the piece"
            value={shows}
            onChange={(event) => setChosen(event.target.value as FinishMoment)}
          >
            <option value="before">{momentWords(setup, 'before')}</option>
            <option value="after">{momentWords(setup, 'after')}</option>
          </SelectField>
        )}
        {asked && (
          <SelectField
            label="Its light comes"
            value={litFrom}
            onChange={(event) => setLitFrom(event.target.value as LitFrom)}
          >
            <option value="front">from a lamp or a window</option>
            <option value="behind">from a light table under it</option>
          </SelectField>
        )}
        <PhotoDrop label="Choose a photo" multiple={stations !== undefined} camera onFiles={upload}>
          JPEG, PNG or WebP, to 25 MB. {IN_VIEW[placed]},{' '}
          {holes ? 'the room dark' : backlit ? ON_LIGHT_TABLE : 'even light, no flash'}.
          {byMarkers && seeThrough && ' Either face up: markers tell which one it is.'}
          {round && ' What else it shows of this round is read from it, too.'}
        </PhotoDrop>
        {veil && <p>{veil}</p>}
        {onBench && backlit && (
          <Button look={firstLook} busy={action.busy} disabled={beyondBench} onClick={() => takePhotos(1)}>
            Take it on the simulated light table
          </Button>
        )}
        {onBench && stations && (
          <Button look={firstLook} busy={action.busy} disabled={beyondBench} onClick={() => takePhotos(1)}>
            {cameraWords(stations.length, view.reading?.shown ?? [])}
          </Button>
        )}
        {onBench && !backlit && !stations && (
          <>
            {byMarkers && (
              <>
                <Button look={firstLook} busy={action.busy} disabled={beyondBench} onClick={() => takePhotos(1)}>
                  {beside.length > 1
                    ? `Take all ${beside.length} with the simulated camera`
                    : 'Take it with the simulated camera'}
                </Button>
                {beside.length > 1 && (
                  <Button busy={action.busy} disabled={beyondBench} onClick={() => takePhotos(1, { closer: true })}>
                    Take this card from closer by
                  </Button>
                )}
                <Button busy={action.busy} disabled={beyondBench} onClick={() => takePhotos(2)}>
                  Take two, one of them darker
                </Button>
                {seeThrough && (
                  <Button busy={action.busy} disabled={beyondBench} onClick={() => takePhotos(1, { turned: true })}>
                    Turn it over and take its back
                  </Button>
                )}
              </>
            )}
            {beside.length < 2 && (
              <Button
                look={byMarkers ? 'plain' : firstLook}
                busy={action.busy}
                disabled={beyondBench}
                onClick={() => takePhotos(1, { sheet: fittingSheet(layout) })}
              >
                Take it on a frame sheet
              </Button>
            )}
            {beyondBench && <p>The simulated bench only takes soot off: it neither sands nor stains.</p>}
          </>
        )}
        {advice && (
          <p>
            {advice} <a href="/frame-sheets">Frame sheets</a>
          </p>
        )}
        {sending && <Notice live>Receiving from {sending} …</Notice>}
        <ProblemNotice problem={action.problem} />
        {photos.length === 0 && <Button onClick={onNext}>No photo: look at the piece by eye</Button>}
      </TicketPart>
      {photos.length > 0 && (
        <TicketPart title="Photos so far">
          <ul className={styles.list}>
            {photos.map((photo) => (
              <li key={photo.id} className={photo.id === shown?.id ? styles.shown : ''}>
                <button type="button" onClick={() => show(photo.id)}>
                  <strong>{photo.fileName}</strong>
                  <span role="status">{stateOf(photo, placed)}</span>
                  <span>
                    {[
                      photo.station !== null && `place ${stations?.[photo.station]?.name ?? ''}`,
                      photo.litFrom === 'behind' && 'on a light table',
                      photo.mirrored && mirroredWords(madeFor.stock),
                      photo.status === 'read' && countWords(photo, sameLight(photo)),
                      momentWords(setup, photo.finish),
                      `${plainNumber((photo.widthPx * photo.heightPx) / 1e6)} MP`,
                      `${plainNumber(photo.byteCount / 1e6)} MB`,
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </button>
                {photo.status === 'other-card' && photo.otherCards[0] && (
                  <div className={styles.actions}>
                    <Button busy={action.busy} onClick={() => move(photo, photo.otherCards[0]!.id)}>
                      Read it as {photo.otherCards[0].code}
                    </Button>
                    <LinkButton href={`/cards/${photo.otherCards[0].id}`}>Open that card</LinkButton>
                  </div>
                )}
                {photo.status === 'several-cards' && (
                  <p>
                    {photo.otherCards.length > 0
                      ? `Cards in it: ${photo.otherCards.map((other) => other.code).join(', ')}; this one is not among them.`
                      : 'Cover or crop all but one and take it again.'}
                  </p>
                )}
                {(photo.status === 'several-cards' || photo.status === 'read') && photo.otherCards.length > 0 && (
                  <div className={styles.actions}>
                    {photo.otherCards.map((other) => (
                      <Button key={other.id} busy={action.busy} onClick={() => readToo(photo, other.id)}>
                        Read it for {other.code}, too
                      </Button>
                    ))}
                  </div>
                )}
                {photo.status === 'read' && photo.id === shown?.id && (
                  <div className={styles.actions}>
                    {counting.includes(photo.id) && (
                      <Button look="main" onClick={onNext}>
                        See what was read
                      </Button>
                    )}
                    {/* Corners are set on a face that is up. */}
                    {!stations && !photo.mirrored && (
                      <Button
                        onClick={() => {
                          show(photo.id);
                          setByHandId(photo.id);
                        }}
                      >
                        Set the corners by hand
                      </Button>
                    )}
                    {photo.leftOut ? (
                      <Button busy={action.busy} onClick={() => count(photo, true)}>
                        Count this photo again
                      </Button>
                    ) : (
                      (photo.litFrom === 'behind' || (view.reading?.photoIds.length ?? 0) > 1) &&
                      counting.includes(photo.id) && (
                        <Button busy={action.busy} onClick={() => count(photo, false)}>
                          Leave this photo aside
                        </Button>
                      )
                    )}
                  </div>
                )}
              </li>
            ))}
          </ul>
          {askCorners && (
            <>
              <Notice look="straw" title="Corners by hand">
                {byMarkers
                  ? 'Drag the four handles to the card’s corners (outer corners of the markers).'
                  : holes
                    ? 'Drag the four handles onto the outer corners of the four corner squares, whether they dropped or not: the upper left one onto the square that the card’s lettering has there, however the sheet lies in the picture.'
                    : 'Drag the four handles onto the outer corners of the four corner cells; the rows and columns are fitted from there.'}{' '}
                Arrow keys move the handle in focus.
              </Notice>
              <Button look="main" disabled={!corners} busy={action.busy} onClick={readAgain}>
                Read with these corners
              </Button>
            </>
          )}
        </TicketPart>
      )}
    </>
  );

  return (
    <BenchFrame
      title={title}
      ladder={ladder}
      ticket={ticket}
      mat={
        askCorners ? (
          <CornersMat key={shown.id} photo={shown} layout={layout} corners={corners} onCorners={setCorners} />
        ) : (
          <Mat
            key={shownBox ? `place ${shown!.station}` : 'card'}
            label="The card"
            extent={grown(shownBox ?? { x: 0, y: 0, width: layout.widthMm, height: layout.heightMm }, 4)}
            overlay={(drawn) => <FaultChips faults={faults} layout={layout} view={drawn} />}
          >
            {() => (
              <>
                <CardPiece layout={layout} colour={madeFor.stock.colour} />
                {shown?.status === 'read' ? (
                  <CardPhotos layout={layout} shown={[{ photoId: shown.id, station: shown.station }]} />
                ) : (
                  <CardDrawing
                    layout={layout}
                    markColour={burnedColourOf(madeFor.stock)}
                    look={() => ({ fill: mixColours(madeFor.stock.colour, '#ffffff', 0.18) })}
                    describe={(cell) => `cell ${cell.index + 1}`}
                    selected={selected}
                    onSelect={onSelect}
                  />
                )}
                <FaultMarks faults={faults} />
              </>
            )}
          </Mat>
        )
      }
    />
  );
}
