import type { ReactNode } from 'react';
import type { CardView } from '../views/views';

/** What a kind's finding screen is given by the card's page: data, and the frame to fill. */
export interface FindingProps {
  readonly view: CardView;
  readonly selected: number | null;
  /** Null goes back to the proposal. */
  readonly onSelect: (cellIndex: number | null) => void;
  readonly tabs: ReactNode;
  readonly title: ReactNode;
  readonly ladder: ReactNode;
  readonly onKept: () => void;
  /** After an answer was put. */
  readonly onAnswered: () => Promise<void>;
}
