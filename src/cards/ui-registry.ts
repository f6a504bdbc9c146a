import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import type { FindingProps } from '../components/finding-props';
import type { CardKindName } from './registry';

interface KindScreens {
  readonly Finding: LazyExoticComponent<ComponentType<FindingProps>>;
}

/** The screens of each kind of card, fetched when they are needed. */
export const CARD_SCREENS = {
  grid: { Finding: lazy(() => import('./grid/ui/Finding')) },
  'sheet-check': { Finding: lazy(() => import('./sheet-check/ui/Finding')) },
  'a-b': { Finding: lazy(() => import('./a-b/ui/Finding')) },
  threshold: { Finding: lazy(() => import('./threshold/ui/Finding')) },
  ceiling: { Finding: lazy(() => import('./ceiling/ui/Finding')) },
  'line-width': { Finding: lazy(() => import('./line-width/ui/Finding')) },
  interval: { Finding: lazy(() => import('./interval/ui/Finding')) },
  tone: { Finding: lazy(() => import('./tone/ui/Finding')) },
  showpiece: { Finding: lazy(() => import('./showpiece/ui/Finding')) },
  picture: { Finding: lazy(() => import('./picture/ui/Finding')) },
  focus: { Finding: lazy(() => import('./focus/ui/Finding')) },
  'scan-offset': { Finding: lazy(() => import('./scan-offset/ui/Finding')) },
  'run-up': { Finding: lazy(() => import('./run-up/ui/Finding')) },
  bed: { Finding: lazy(() => import('./bed/ui/Finding')) },
  cut: { Finding: lazy(() => import('./cut/ui/Finding')) },
  'cut-check': { Finding: lazy(() => import('./cut-check/ui/Finding')) },
  'cut-focus': { Finding: lazy(() => import('./cut-focus/ui/Finding')) },
  'pass-count': { Finding: lazy(() => import('./pass-count/ui/Finding')) },
  passes: { Finding: lazy(() => import('./passes/ui/Finding')) },
  kerf: { Finding: lazy(() => import('./kerf/ui/Finding')) },
  slots: { Finding: lazy(() => import('./slots/ui/Finding')) },
  knobs: { Finding: lazy(() => import('./knobs/ui/Finding')) },
  score: { Finding: lazy(() => import('./score/ui/Finding')) },
  hinge: { Finding: lazy(() => import('./hinge/ui/Finding')) },
  part: { Finding: lazy(() => import('./part/ui/Finding')) },
} as const satisfies Record<CardKindName, KindScreens>;
