import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import type { BenchView } from '../app/views';
import type { PickerProps } from './picker-props';
import type { CardKindName } from './registry';

interface KindScreens {
  readonly Planner: LazyExoticComponent<ComponentType<{ view: BenchView }>>;
  readonly Picker: LazyExoticComponent<ComponentType<PickerProps>>;
}

/** The screens of each kind of card, fetched when they are needed. */
export const CARD_SCREENS = {
  grid: {
    Planner: lazy(() => import('./grid/ui/GridPlanner')),
    Picker: lazy(() => import('./grid/ui/GridPicker')),
  },
} as const satisfies Record<CardKindName, KindScreens>;
