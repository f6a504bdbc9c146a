import type { Known, Proposal } from '../../core/card/contract';
import { proposeFrame } from '../../core/card/frame-settings';
import { proposeTones } from '../../core/card/propose-tones';
import { proposeSetup } from '../../core/card/work-setup';
import { pondAtDusk } from '../../core/picture/pond';
import { WHOLE } from '../../core/picture/sample';
import { expectedMarkOf } from '../../core/stock/families';
import { PICTURE_VERSION, type PicturePlan } from './plan';

/** So small that both burns of it together take less than three minutes on a slow head. */
const WIDTH_MM = 15;
const GAP_MM = 2;

/**
 * A small picture through the kept tone table, and beside it once more without; where no table is kept, without alone. Light parts are burned where
 * a burn brightens the stock. Throws RangeError where the wavelength cannot mark.
 */
export function proposePicture(known: Known): Proposal<PicturePlan> {
  const { pairing } = known;
  const { tones, reasons } = proposeTones(known);
  const frame = proposeFrame(pairing);
  const negative = expectedMarkOf(pairing.stock) === 'brighter';
  return {
    plan: {
      version: PICTURE_VERSION,
      ...tones,
      picture: { name: 'Pond at dusk', ...pondAtDusk() },
      crop: WHOLE,
      widthMm: WIDTH_MM,
      negative,
      wholeRange: true,
      beside: tones.table !== null,
      gapMm: GAP_MM,
      frame: frame.settings,
      setup: proposeSetup(pairing),
    },
    reasons: {
      ...reasons,
      picture: 'a drawing of our own to begin with: choose yours',
      negative: negative
        ? 'a burn brightens this stock: what is light in the picture is burned'
        : 'a burn darkens this stock: what is dark in the picture is burned',
      corrected: tones.table
        ? 'a table is kept for these settings'
        : 'no table is kept for these settings yet: burn a tone wedge first for even tones',
      'frame.marker.powerFraction': frame.reasons.marker,
      'frame.lettering.powerFraction': frame.reasons.lettering,
    },
  };
}
