import type { Layout, Station } from '../card/layout';
import { layoutOfStation } from '../card/station';
import { movedOrigin } from '../geometry/homography';
import type { Point } from '../geometry/point';
import type { FoundMarker } from './find-markers';
import { findMarkersOfCard } from './find-markers-of-card';
import { locateCard } from './locate-card';
import { readCard, type ReadRequest, type ReadResult } from './read-card';

export type StationResult =
  | (Extract<ReadResult, { outcome: 'read' }> & {
      /** Which station the photo shows: its place among the layout's stations. */
      readonly station: number;
    })
  | Exclude<ReadResult, { outcome: 'read' | 'needs-corners' }>
  | { readonly outcome: 'unreadable'; readonly reason: 'no-station' | 'several-stations' };

/** Numbers of neighbours share two of four markers: three tell them apart. */
const TELLING_MARKERS = 3;

/** How many of a station's markers were found, each once. */
function seenOf(layout: Layout, station: Station, found: readonly FoundMarker[]): number {
  const { markers } = layoutOfStation(layout, station).frame;
  return markers.filter(({ id }) => found.filter((marker) => marker.id === id).length === 1).length;
}

/**
 * Reads a photo of one station of a card: its markers tell which. Cells and places on the card are those of the whole card. A photo that shows
 * several stations, or too few markers to tell which one it is, is a result with its reason: where it stands on the bed is never guessed. Throws
 * RangeError for a card without stations.
 */
export function readStation(request: Omit<ReadRequest, 'corners' | 'found' | 'comparesRipples'>): StationResult {
  const { layout, photo } = request;
  const { stations } = layout;
  if (!stations || stations.length === 0) throw new RangeError('invalid layout: it has no stations');
  const found = findMarkersOfCard(photo, layout);
  const shown = stations.flatMap((station, index) =>
    seenOf(layout, station, found) >= TELLING_MARKERS ? [{ station, index }] : [],
  );
  const [only] = shown;
  if (!only) return notShown(layout, stations, found);
  if (shown.length > 1) return { outcome: 'unreadable', reason: 'several-stations' };
  const { station, index } = only;
  const result = readCard({
    ...request,
    layout: layoutOfStation(layout, station),
    corners: null,
    found,
    comparesRipples: true,
  });
  if (result.outcome === 'needs-corners') return { outcome: 'unreadable', reason: 'no-station' };
  if (result.outcome !== 'read') return result;
  const { x: dx, y: dy } = station.box;
  const onCard = ({ x, y }: Point): Point => ({ x: x + dx, y: y + dy });
  const cellOf = (own: number): number => station.cells[own]!;
  return {
    ...result,
    station: index,
    toPhoto: movedOrigin(result.toPhoto, { x: -dx, y: -dy }),
    cells: result.cells
      .map((cell) => ({ ...cell, cellIndex: cellOf(cell.cellIndex) }))
      .sort((one, other) => one.cellIndex - other.cellIndex),
    faults: result.faults.map((fault) => ({
      ...fault,
      area: fault.area && { ...fault.area, ...onCard(fault.area) },
      line: fault.line && [onCard(fault.line[0]), onCard(fault.line[1])],
      cells: fault.cells.map(cellOf),
    })),
  };
}

/** What a photo shows in which no station is told. */
function notShown(
  layout: Layout,
  stations: readonly Station[],
  found: readonly FoundMarker[],
): Exclude<StationResult, { outcome: 'read' }> {
  const location = locateCard(layoutOfStation(layout, stations[0]!), found);
  const own = new Set(stations.map(({ cardNumber }) => cardNumber));
  if (location.found === 'other-card' && !own.has(location.cardNumber))
    return { outcome: 'other-card', cardNumber: location.cardNumber };
  if (location.found !== 'several-cards') return { outcome: 'unreadable', reason: 'no-station' };
  return location.cardNumbers.some((number) => own.has(number))
    ? { outcome: 'unreadable', reason: 'several-stations' }
    : { outcome: 'several-cards', cardNumbers: location.cardNumbers };
}
