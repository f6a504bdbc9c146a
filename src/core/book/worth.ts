/** What something costs: time at the machine, and stock. */
export interface Cost {
  readonly seconds: number;
  readonly areaMm2: number;
}

/** The pieces that a stock is bought for. */
export interface Pieces {
  readonly count: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

/** A test against the pieces that are made after it. */
export interface Worth {
  /** The test costs as much as so many pieces: of time or of stock, whichever it takes more of. */
  readonly inPieces: number;
  /** It pays where more than this share of the pieces would be spoiled without it; 1 or more where it costs as much as all of them. */
  readonly breakEven: number;
}

/**
 * What a further test is worth: it costs time and stock once, and saves the pieces that would be spoiled without it. How many that would be is not
 * known; from which share of them on it pays, is. Of time and stock the dearer one counts. Throws RangeError for pieces that are none, or that take
 * no stock.
 *
 * A test of 120 s and 10 cm² before 20 pieces of 600 s and 50 cm² each costs as much as 0.2 of a piece: it pays from 1 % on.
 */
export function worthOf(test: Cost, piece: Cost, count: number): Worth {
  if (!(count >= 1) || !(piece.areaMm2 > 0)) throw new RangeError(`invalid pieces: ${count} of ${piece.areaMm2} mm²`);
  // Where nobody knows how long a piece takes, stock alone is weighed.
  const ofTime = piece.seconds > 0 ? test.seconds / piece.seconds : 0;
  const inPieces = Math.max(ofTime, test.areaMm2 / piece.areaMm2);
  return { inPieces, breakEven: inPieces / count };
}

/** Fewer spoiled pieces than this nobody can foretell: a test that pays from here on is burned without thinking. From memory, without a source. */
const SURELY_PAYS = 0.05;

const rounded = (value: number): string => (value < 0.95 ? value.toPrecision(1) : String(Math.round(value)));

/** "as much as 0.2 of a piece: it pays if it keeps more than 1 % of your 20 pieces from being spoiled" */
export function worthWords({ inPieces, breakEven }: Worth, count: number): string {
  const cost = `As much as ${rounded(inPieces)} of a piece`.replace(/ ([1-9]\d*) of a piece$/, (_, pieces: string) =>
    pieces === '1' ? ' a piece' : ` ${pieces} pieces`,
  );
  if (breakEven >= 1)
    return `${cost}, and you make ${count === 1 ? 'one' : `only ${count}`}: burn a piece straight away and go by that.`;
  if (count === 1) return `${cost}: it pays if without it you would spoil yours more often than ${inOf(breakEven)}.`;
  const share = breakEven <= 1 / count ? 'one of your' : `more than ${inOf(breakEven)} of your`;
  const sure = breakEven <= SURELY_PAYS ? ' Burn it.' : '';
  return `${cost}: it pays if it saves ${share} ${count}.${sure}`;
}

/** "1 in 3": from which share on, by whole numbers. */
const inOf = (share: number): string =>
  share > 0.6 ? `${Math.round(10 * share)} in 10` : `1 in ${Math.max(2, Math.round(1 / share))}`;
