import type { Seen } from '../../core/card/asks';
import type { MatchedTone, Pairing } from '../../core/card/contract';
import { squareFillTimeS } from '../../core/card/fill-time';
import type { Layout } from '../../core/card/layout';
import { bestPlace, settingsAt, surfaceOfGrid } from './surface';

/** Which setting gives a tone, by the surface of a grid, worked out once for all tones: the quickest place between its cells within the machine's cap. */
export function matcherOf(layout: Layout, seen: Seen, on: Pairing): (lightness: number) => MatchedTone {
  const { bareLightness: bare } = on.stock;
  const surface = surfaceOfGrid(layout, seen, bare);
  return (lightness) => {
    if (!surface) return { outcome: 'unsure' };
    const strength = surface.darkens ? bare - lightness : lightness - bare;
    if (!(strength >= 0 && strength <= surface.fit.range.strongest)) return { outcome: 'out-of-reach' };
    const place = bestPlace(surface, { lightness, powerCap: on.machine.powerCap, pace: 'fast-and-strong' }, on);
    if (!place) return { outcome: 'unsure' };
    return {
      outcome: 'found',
      levels: { [surface.across.channel]: place.across, [surface.down.channel]: place.down },
      lightness: place.lightness,
      sigma: place.sigma,
      timeS: squareFillTimeS(settingsAt(surface, place), on.machine, 100),
    };
  };
}
