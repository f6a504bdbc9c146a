import { MOST_PLACES, type Greys } from '../picture/greys';
import type { Crop } from '../picture/sample';
import type { PlanProblem } from './contract';
import { countIn } from './shape';

/** A picture as it was chosen: 0 for white and 255 for black, in even steps of L*. */
export interface ChosenPicture extends Greys {
  readonly name: string;
}

/** A part of a chosen picture at a width, its places as far apart as the lines that burn it. */
export interface SizedPicture {
  readonly picture: ChosenPicture;
  readonly crop: Crop;
  readonly widthMm: number;
  readonly intervalMm: number;
}

/** Places across and down of what is burned of a picture. */
export function placesOfPicture({ picture, crop, widthMm, intervalMm }: SizedPicture): {
  readonly columns: number;
  readonly rows: number;
} {
  const heightMm = (widthMm * crop.height * picture.rows) / (crop.width * picture.columns);
  return { columns: countIn(widthMm, intervalMm), rows: countIn(heightMm, intervalMm) };
}

/** Fewer lines are no picture. */
const LEAST_PLACES = 24;

/** What is wrong with a chosen picture, before anything of it is looked up: `called` as the plan's field of it is. */
export function checkChosen(sized: SizedPicture, called: 'picture' | 'drawing'): PlanProblem[] {
  const { picture, crop, widthMm, intervalMm } = sized;
  const { columns, rows, data } = picture;
  if (columns * rows > MOST_PLACES || data.length !== 4 * Math.ceil((columns * rows) / 3))
    return [
      { field: called, message: `A ${called} has at most ${MOST_PLACES / 1000} thousand places, and a grey for each.` },
    ];
  const { left, top, width, height } = crop;
  const isWithin = left >= 0 && top >= 0 && left + width <= 1 + 1e-9 && top + height <= 1 + 1e-9;
  if (!isWithin || !(width >= 0.01 && height >= 0.01))
    return [{ field: 'crop.left', message: `A crop lies within the ${called} and is at least a hundredth of it.` }];
  if (!(widthMm > 0 && intervalMm > 0)) return [];
  const places = placesOfPicture(sized);
  return Math.min(places.columns, places.rows) >= LEAST_PLACES
    ? []
    : [{ field: 'widthMm', message: `A ${called} is at least ${LEAST_PLACES} lines high and as many dots wide.` }];
}
