import { useMemo, useState } from 'react';
import { cardKind } from '../../cards/registry';
import { paceOf } from '../../core/book/motion-facts';
import { checkBed, type BedCheck } from '../../core/card/check';
import { PlanError, type BasePlan } from '../../core/card/contract';
import { estimateCard, type Estimate } from '../../core/card/estimate';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { cardIsFree, freePiece, freePlace } from '../../core/card/place';
import type { UsedArea } from '../../records/card';
import { send } from '../../views/send';
import type { BenchView, PlanView } from '../../views/views';

export interface LaidPlan {
  readonly layout: Layout;
  readonly estimate: Estimate;
  /** Where the card goes on the sheet; null when no place is left. */
  readonly place: { readonly xMm: number; readonly yMm: number } | null;
  readonly placeIsFree: boolean;
  /** Which sheet or blank it lies on, counted from 1, and what lies there already. */
  readonly piece: number;
  readonly onPiece: readonly UsedArea[];
  readonly bed: BedCheck | null;
}

/** The plan being made, laid again at each change. A plan that cannot be laid keeps the last drawing and says why. */
export function usePlan(view: PlanView) {
  const [plan, setPlan] = useState<BasePlan>(view.proposal.plan);
  const [wantedPlace, setWantedPlace] = useState<{ xMm: number; yMm: number } | null>(null);
  const [wantedPiece, setWantedPiece] = useState<number | null>(null);
  const [sheetOnBed, setSheetOnBed] = useState(view.sheetOnBed);
  const [usedAreas, setUsedAreas] = useState(view.usedAreas);
  const { pairing } = view;
  const pace = paceOf(view.known.facts);
  const kind = cardKind(view.kind);

  const attempt = useMemo((): { laid: LaidPlan | null; errors: Record<string, string> } => {
    try {
      const layout = layCard(kind, plan, pairing, { cardNumber: 0 });
      const estimate = estimateCard(layout, pairing.machine, null, pace);
      const { stock } = pairing;
      const free = wantedPiece === null ? freePiece(stock, usedAreas, layout) : null;
      const piece = wantedPiece ?? free?.piece ?? 1;
      const onPiece = usedAreas.filter((area) => area.piece === piece);
      const first = free ?? freePlace(stock, onPiece, layout);
      const place = wantedPlace ?? (first && { xMm: first.x, yMm: first.y });
      const bed =
        place &&
        checkBed(estimate.reach, pairing, {
          leftMm: sheetOnBed.leftMm + place.xMm,
          rearMm: sheetOnBed.rearMm + place.yMm,
        });
      const laid = {
        layout,
        estimate,
        place,
        piece,
        onPiece,
        placeIsFree: place !== null && cardIsFree(stock, onPiece, layout, { x: place.xMm, y: place.yMm }),
        bed,
      };
      return { laid, errors: {} };
    } catch (error) {
      if (!(error instanceof PlanError)) throw error;
      return { laid: null, errors: Object.fromEntries(error.problems.map(({ field, message }) => [field, message])) };
    }
  }, [plan, wantedPlace, wantedPiece, sheetOnBed, pairing, usedAreas, kind, pace]);

  const [last, setLast] = useState<LaidPlan | null>(attempt.laid);
  if (attempt.laid && attempt.laid !== last) setLast(attempt.laid);
  return {
    kind,
    plan,
    setPlan,
    wantedPlace,
    setWantedPlace,
    /** What has come to lie on the stock since the page was opened: a place that was only proposed moves out of its way. */
    lookAgain: async (): Promise<void> =>
      setUsedAreas((await send<BenchView>(`/api/pairings/${pairing.id}`)).usedAreas),
    /** Another sheet or blank; its first free place, unless one is told. */
    setWantedPiece: (piece: number | null): void => {
      setWantedPiece(piece);
      setWantedPlace(null);
    },
    sheetOnBed,
    setSheetOnBed,
    errors: attempt.errors,
    /** What is drawn: the plan as it is, or the last one that could be laid. */
    drawn: attempt.laid ?? last,
    valid: attempt.laid !== null,
  };
}
