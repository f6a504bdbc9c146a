/** A photo of a piece beside a frame sheet, whose tone is to be matched. */
export interface MatchPhoto {
  readonly id: number;
  readonly fileName: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Photo pixels for each millimetre in the middle of the sheet. */
  readonly pxPerMm: number;
  readonly createdAt: string;
}
