import { Suspense } from 'react';
import type { BenchView } from '../app/views';
import { CARD_SCREENS } from '../cards/ui-registry';

export function PlanScreen({ view, kind }: { view: BenchView; kind: 'grid' }) {
  const { Planner } = CARD_SCREENS[kind];
  return (
    <Suspense fallback={<p>Opening the mat …</p>}>
      <Planner view={view} />
    </Suspense>
  );
}
