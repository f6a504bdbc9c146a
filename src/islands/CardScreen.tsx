import { QueryClient, QueryClientProvider, useQuery, useQueryClient } from '@tanstack/react-query';
import { Suspense, useEffect, useState } from 'react';
import type { CardView } from '../views/views';
import { CARD_SCREENS } from '../cards/ui-registry';
import { isCardKind } from '../cards/registry';
import { Ladder } from '../components/Ladder';
import { PairingTitle } from '../components/PairingTitle';
import { send } from '../views/send';
import { BurnStage } from './card/BurnStage';
import { LookStage } from './card/LookStage';
import { PhotoStage } from './card/PhotoStage';
import { StageTabs } from './card/StageTabs';
import { stageAfter, stageInHash, stageOf, type Stage, wasSeen } from './card/stages';

const client = new QueryClient({
  // The server is on this machine: whether the machine has a network says nothing about it.
  defaultOptions: { queries: { retry: 2, refetchOnWindowFocus: true, networkMode: 'always' } },
});

/** How often to look again, in ms; false where nothing is under way. */
function lookAgainAfter(view: CardView): number | false {
  const stages = view.round?.cards.map(({ stage }) => stage) ?? [];
  const isUnderWay =
    view.burns.some((burn) => burn.endedAt === null) ||
    view.photos.some((photo) => photo.status === 'waiting' || photo.status === 'reading') ||
    stages.includes('burning');
  if (isUnderWay) return 500;
  // Between two cards of a round none burns, and the next is begun.
  return stages.includes('planned') && stages.some((stage) => stage !== 'planned') ? 2000 : false;
}

function Screen({ start }: { start: CardView }) {
  const queries = useQueryClient();
  const { card } = start;
  const { data: view } = useQuery({
    queryKey: ['card', card.id],
    queryFn: () => send<CardView>(`/api/cards/${card.id}`),
    initialData: start,
    staleTime: 500,
    refetchInterval: ({ state }) => (state.data ? lookAgainAfter(state.data) : false),
  });
  const [stage, setStage] = useState<Stage>(() => stageInHash(window.location.hash, card) ?? stageOf(start));
  useEffect(() => {
    const follow = (): void => setStage((now) => stageInHash(window.location.hash, card) ?? now);
    window.addEventListener('hashchange', follow);
    return () => window.removeEventListener('hashchange', follow);
  }, [card]);
  const [selected, setSelected] = useState<number | null>(null);
  const go = (next: Stage): void => {
    window.history.replaceState(null, '', `#${next}`);
    // A finding starts from its proposal, not from the cell that was looked at last.
    if (next === 'find') setSelected(null);
    setStage(next);
  };
  const goOn = (): void => go(stageAfter(stage, card));
  const refresh = (): Promise<void> => queries.invalidateQueries({ queryKey: ['card', card.id] });
  const shared = {
    view,
    tabs: <StageTabs stage={stage} view={view} onStage={go} />,
    title: <PairingTitle pairing={view.card.madeFor} href={`/bench/${view.pairing.id}`} />,
    ladder: <Ladder rungs={view.ladder} />,
    selected,
    onSelect: setSelected,
  };
  if (stage === 'burn') return <BurnStage {...shared} onChanged={refresh} onNext={goOn} />;
  if (stage === 'photo') return <PhotoStage {...shared} onChanged={refresh} onNext={goOn} />;
  // What was neither read nor answered has nothing to be found in.
  const seen = wasSeen(view);
  if (stage === 'look' || !seen || !isCardKind(card.kind))
    return <LookStage {...shared} onChanged={refresh} onNext={goOn} />;
  const { Finding } = CARD_SCREENS[card.kind];
  return (
    <Suspense fallback={<p>Opening …</p>}>
      <Finding {...shared} onKept={() => void refresh()} onAnswered={refresh} />
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
