import { cardKind } from '../../cards/registry';
import { hasMarkers, type Layout } from '../../core/card/layout';
import { asksForHoles } from '../../core/card/usual-asks';
import type { CardView } from '../../views/views';

export const STAGES = ['burn', 'photo', 'look', 'find'] as const;
export type Stage = (typeof STAGES)[number];

interface LaidCard {
  readonly kind: string;
  readonly layout: Layout;
}

/**
 * The steps of a card: a photo only where its kind asks for one and it can be placed in it, a burn only where it was not burned long ago.
 */
export function stagesOf({ kind, layout }: LaidCard): readonly Stage[] {
  const { asks } = cardKind(kind);
  const placed = hasMarkers(layout) || layout.frame.settings.markers === 'on-sheet' || layout.adopted;
  const photo = asksForHoles(asks) || (placed && asks.some((ask) => ask.by === 'photo'));
  return STAGES.filter((stage) => (stage !== 'photo' || photo) && (stage !== 'burn' || !layout.adopted));
}

/** Whether something was seen of a card that may be found in it: by a photo in whatever light, or by an answer. */
export const wasSeen = ({ reading, through, answers }: Pick<CardView, 'reading' | 'through' | 'answers'>): boolean =>
  reading !== null || through !== null || answers.length > 0;

/** Where a card stands: the first step that is not done. */
export function stageOf(
  view: Pick<CardView, 'card' | 'burns' | 'photos' | 'reading' | 'answers' | 'kept' | 'search'>,
): Stage {
  const burned = view.card.layout.adopted || view.burns.some((burn) => burn.status === 'done');
  if (!burned && view.photos.length === 0) return 'burn';
  if (view.search?.go) return 'burn';
  const photo = stagesOf(view.card).includes('photo') && !isPhotoSpare(view.card);
  if (photo && view.reading === null && view.answers.length === 0) return 'photo';
  return view.answers.length > 0 || view.kept.length > 0 ? 'find' : 'look';
}

/** The step after `stage`, a photo that may be left out passed by; the last one is followed by itself. */
export function stageAfter(stage: Stage, card: LaidCard): Stage {
  const stages = stagesOf(card).filter((one) => one === stage || one !== 'photo' || !isPhotoSpare(card));
  return stages[Math.min(stages.length - 1, stages.indexOf(stage) + 1)]!;
}

/** Whether a photo only spares the eye: what drops is told by a tap as well. */
const isPhotoSpare = ({ kind }: LaidCard): boolean => asksForHoles(cardKind(kind).asks);

/** Steps as earlier addresses named them. */
const EARLIER: Readonly<Record<string, Stage>> = { read: 'look', pick: 'find' };

/** The step that an address's "#look" names, if the card has it. */
export function stageInHash(hash: string, card: LaidCard): Stage | null {
  const name = hash.slice(1);
  const wanted = EARLIER[name] ?? (name as Stage);
  return stagesOf(card).includes(wanted) ? wanted : null;
}
