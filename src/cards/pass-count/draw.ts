import { cutText } from '../../core/card/constants-text';
import type { Drawn, Pairing } from '../../core/card/contract';
import { deliveredBy } from '../../core/card/energy';
import { rectOutline, type Burn } from '../../core/card/shape';
import type { PassCountPlan } from './plan';

/** One square; before every pass but the first a hand looks whether it has dropped. */
export function drawPassCount({ sizeMm, mostPasses, cut }: PassCountPlan, on: Pairing): Drawn {
  const box = { x: 0, y: 0, width: sizeMm, height: sizeMm };
  const burns = Array.from({ length: mostPasses }, (_, pass): Burn => ({
    shape: { do: 'follow', lines: [rectOutline(box)] },
    settings: cut,
    ...(pass > 0 && {
      before: {
        text: `${pass === 1 ? '1 pass is' : `${pass} passes are`} done. Tap the sheet: has the square dropped? Then stop here, and say ${pass}; if not, go on`,
      },
    }),
  }));
  return {
    widthMm: sizeMm,
    heightMm: sizeMm,
    cells: [
      {
        box,
        levels: { size: sizeMm },
        burns,
        risk: deliveredBy(cut, on).lineJPerMm * mostPasses,
        expected: null,
        leftOut: false,
      },
    ],
    before: [],
    after: [],
    labels: [],
    units: `UP TO ${mostPasses} PASSES`,
    caption: `PASS AFTER PASS, UP TO ${mostPasses}`,
    constants: cutText(cut, on.machine.likedUnits),
    markers: 'none',
    air: cut.air,
  };
}
