import { thicknessOf, type Stock } from './stock';

/** A setting is good for sheets as thick as the one it was found on, and so much thinner: thinner still, it scorches (from memory, without a source). */
const THINNEST_SHARE = 0.85;
/** Of a sheet that was measured in one place only, or not at all, nobody knows how thick it is elsewhere. */
const SPREAD_SHARE = 0.02;

/** Between which thicknesses a cut that was found on a sheet may be used. */
export function goodForThickness(stock: Stock): { readonly from: number; readonly to: number } {
  const { meanMm, spreadMm } = thicknessOf(stock);
  return { from: THINNEST_SHARE * meanMm, to: meanMm + Math.max(2 * (spreadMm ?? 0), SPREAD_SHARE * meanMm) };
}
