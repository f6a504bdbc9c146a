import { useMemo, useState } from 'react';
import { cardKind } from '../../cards/registry';
import { paceOf } from '../../core/book/facts';
import { checkBed, type BedCheck } from '../../core/card/check';
import { PlanError, type BasePlan } from '../../core/card/contract';
import { estimateCard, type Estimate } from '../../core/card/estimate';
import { layCard } from '../../core/card/lay';
import type { Layout } from '../../core/card/layout';
import { freePlace, placeIsFree } from '../../core/card/place';
import type { PlanView } from '../../views/views';

export interface LaidPlan {
  readonly layout: Layout;
  readonly estimate: Estimate;
  /** Where the card goes on the sheet; null when no place is left. */
  readonly place: { readonly xMm: number; readonly yMm: number } | null;
  readonly placeIsFree: boolean;
  readonly bed: BedCheck | null;
}

/** The plan being made, laid again at each change. A plan that cannot be laid keeps the last drawing and says why. */
export function usePlan(view: PlanView) {
  const [plan, setPlan] = useState<BasePlan>(view.proposal.plan);
  const [wantedPlace, setWantedPlace] = useState<{ xMm: number; yMm: number } | null>(null);
  const [sheetOnBed, setSheetOnBed] = useState(view.sheetOnBed);
  const { pairing, usedAreas } = view;
  const pace = paceOf(view.known.facts);
  const kind = cardKind(view.kind);

  const attempt = useMemo((): { laid: LaidPlan | null; errors: Record<string, string> } => {
    try {
      const layout = layCard(kind, plan, pairing, { cardNumber: 0 });
      const estimate = estimateCard(layout, pairing.machine, null, pace);
      const sheet = { widthMm: pairing.stock.sheetWidthMm, heightMm: pairing.stock.sheetDepthMm };
      const free = freePlace(sheet, usedAreas, layout);
      const place = wantedPlace ?? (free && { xMm: free.x, yMm: free.y });
      const rect = place && { x: place.xMm, y: place.yMm, width: layout.widthMm, height: layout.heightMm };
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
        placeIsFree: rect !== null && placeIsFree(sheet, usedAreas, rect),
        bed,
      };
      return { laid, errors: {} };
    } catch (error) {
      if (!(error instanceof PlanError)) throw error;
      return { laid: null, errors: Object.fromEntries(error.problems.map(({ field, message }) => [field, message])) };
    }
  }, [plan, wantedPlace, sheetOnBed, pairing, usedAreas, kind, pace]);

  const [last, setLast] = useState<LaidPlan | null>(attempt.laid);
  if (attempt.laid && attempt.laid !== last) setLast(attempt.laid);
  return {
    kind,
    plan,
    setPlan,
    wantedPlace,
    setWantedPlace,
    sheetOnBed,
    setSheetOnBed,
    errors: attempt.errors,
    /** What is drawn: the plan as it is, or the last one that could be laid. */
    drawn: attempt.laid ?? last,
    valid: attempt.laid !== null,
  };
}
