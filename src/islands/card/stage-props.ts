import type { ReactNode } from 'react';
import type { CardView } from '../../views/views';

/** What the card's page hands to each of its steps. */
export interface StageProps {
  readonly view: CardView;
  readonly tabs: ReactNode;
  readonly title: ReactNode;
  readonly ladder: ReactNode;
  readonly selected: number | null;
  readonly onSelect: (cellIndex: number) => void;
  readonly onChanged: () => Promise<void>;
  readonly onNext: () => void;
}
