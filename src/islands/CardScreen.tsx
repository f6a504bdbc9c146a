import { QueryClient, QueryClientProvider, useQuery, useQueryClient } from '@tanstack/react-query';
import { Suspense, useEffect, useState } from 'react';
import type { CardView } from '../app/views';
import { CARD_SCREENS } from '../cards/ui-registry';
import type { CardKindName } from '../cards/registry';
import { Ladder } from '../components/Ladder';
import { BurnStage } from './card/BurnStage';
import { PhotoStage } from './card/PhotoStage';
import { ReadStage } from './card/ReadStage';
import { StageTabs, type Stage } from './card/StageTabs';
import { PairingTitle } from './PairingTitle';
import { send } from './api';

const client = new QueryClient({ defaultOptions: { queries: { retry: 2, refetchOnWindowFocus: true } } });

const isUnderWay = (view: CardView): boolean =>
  view.burns.some((burn) => burn.endedAt === null) ||
  view.photos.some((photo) => photo.status === 'waiting' || photo.status === 'reading');

/** The step that the address names, if it names one. */
function stageInAddress(): Stage | null {
  const wanted = window.location.hash.slice(1) as Stage;
  return ['burn', 'photo', 'read', 'pick'].includes(wanted) ? wanted : null;
}

function stageOf(view: CardView): Stage {
  if (view.reading) return view.kept.length > 0 || view.verdicts.length > 0 ? 'pick' : 'read';
  if (view.photos.length > 0 || view.burns.some((burn) => burn.status === 'done')) return 'photo';
  return 'burn';
}

function Screen({ start }: { start: CardView }) {
  const queries = useQueryClient();
  const { card } = start;
  const { data: view } = useQuery({
    queryKey: ['card', card.id],
    queryFn: () => send<CardView>(`/api/cards/${card.id}`),
    initialData: start,
    staleTime: 500,
    refetchInterval: ({ state }) => (state.data && isUnderWay(state.data) ? 500 : false),
  });
  const [stage, setStage] = useState<Stage>(() => stageInAddress() ?? stageOf(start));
  useEffect(() => {
    const follow = (): void => setStage((now) => stageInAddress() ?? now);
    window.addEventListener('hashchange', follow);
    return () => window.removeEventListener('hashchange', follow);
  }, []);
  const [selected, setSelected] = useState<number | null>(null);
  const go = (next: Stage): void => {
    window.history.replaceState(null, '', `#${next}`);
    // Picking starts from the proposal, not from the cell that was looked at last.
    if (next === 'pick') setSelected(null);
    setStage(next);
  };
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['card', card.id] });
  const shared = {
    view,
    tabs: <StageTabs stage={stage} view={view} onStage={go} />,
    title: <PairingTitle pairing={view.card.madeFor} />,
    ladder: (
      <Ladder
        rungs={view.ladder}
        links={{
          stock: `/stock/${view.pairing.stock.id}`,
          safety: `/stock/${view.pairing.stock.id}#safety`,
          range: `/bench/${view.pairing.id}/plan`,
          grid: `/bench/${view.pairing.id}`,
          ...(view.kept[0] ? { book: `/book/${view.kept[0].settingId}` } : {}),
        }}
      />
    ),
    selected,
    onSelect: setSelected,
  };
  if (stage === 'burn') return <BurnStage {...shared} onChanged={refresh} onNext={() => go('photo')} />;
  // What was not read yet can be neither graded nor picked from.
  if (stage === 'photo' || !view.reading)
    return <PhotoStage {...shared} onChanged={refresh} onNext={() => go('read')} />;
  if (stage === 'read') return <ReadStage {...shared} onChanged={refresh} onNext={() => go('pick')} />;
  const { Picker } = CARD_SCREENS[card.kind as CardKindName];
  return (
    <Suspense fallback={<p>Opening the grid …</p>}>
      <Picker {...shared} onKept={() => void refresh()} />
    </Suspense>
  );
}

export function CardScreen({ view }: { view: CardView }) {
  return (
    <QueryClientProvider client={client}>
      <Screen start={view} />
    </QueryClientProvider>
  );
}
