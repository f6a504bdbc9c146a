/**
 * How long a dot comes out that is lit along a sweep: as much longer than drawn at every speed as the mark of its beam is, and shorter by speed times
 * how much later the beam comes on than it goes out. The first part is the stock's and the setting's, the second the machine's.
 */
export interface DotLaw {
  /** The beam comes on so much later than it goes out; negative where it goes out later. */
  readonly slowOnS: number;
  readonly fromMmPerS: number;
  readonly toMmPerS: number;
}

/** By how much shorter a dot comes out at a speed than at rest: negative where it comes out longer. 0.05 ms at 200 mm/s: 0.01 mm. */
export const shorterAt = ({ slowOnS }: Pick<DotLaw, 'slowOnS'>, speedMmPerS: number): number => slowOnS * speedMmPerS;
