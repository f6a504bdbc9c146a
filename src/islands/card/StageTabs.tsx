import type { CardView } from '../../views/views';
import { cardKind } from '../../cards/registry';
import styles from './StageTabs.module.css';

export const STAGES = ['burn', 'photo', 'look', 'find'] as const;
export type Stage = (typeof STAGES)[number];

/** The steps of a kind: a photo only where one is asked for. */
export function stagesOf(kind: string): readonly Stage[] {
  const photo = cardKind(kind).asks.some((ask) => ask.by === 'photo');
  return STAGES.filter((stage) => stage !== 'photo' || photo);
}

/** Where a card stands: the first step that is not done. */
export function stageOf(view: CardView): Stage {
  const stages = stagesOf(view.card.kind);
  const burned = view.burns.some((burn) => burn.status === 'done');
  if (!burned && view.photos.length === 0) return 'burn';
  if (view.search?.go) return 'burn';
  if (stages.includes('photo') && view.reading === null && view.answers.length === 0) return 'photo';
  return view.answers.length > 0 || view.kept.length > 0 ? 'find' : 'look';
}

/** The card's way through the job, as numbered steps; a step that has nothing to show yet cannot be entered. */
export function StageTabs({ stage, view, onStage }: { stage: Stage; view: CardView; onStage: (stage: Stage) => void }) {
  const burned = view.burnedCells.length > 0;
  const seen = view.reading !== null || view.answers.length > 0;
  const facts: Readonly<Record<Stage, { name: string; done: boolean; open: boolean }>> = {
    burn: { name: 'Burn', done: view.burns.some((burn) => burn.status === 'done'), open: true },
    photo: { name: 'Photo', done: view.reading !== null, open: burned || view.photos.length > 0 },
    look: { name: 'Look', done: view.answers.length > 0, open: burned || seen },
    find: { name: 'Find', done: view.kept.length > 0, open: seen },
  };
  return (
    <nav className={styles.tabs} aria-label={`Steps of card ${view.card.layout.code}`}>
      <p className={styles.code}>Card {view.card.layout.code}</p>
      <ol>
        {stagesOf(view.card.kind).map((id, index) => (
          <li key={id}>
            <button
              type="button"
              aria-current={id === stage ? 'step' : undefined}
              disabled={!facts[id].open}
              onClick={() => onStage(id)}
            >
              <span aria-hidden="true">{facts[id].done ? '✓' : index + 1}</span> {facts[id].name}
              {facts[id].done && <span className="visuallyHidden"> (done)</span>}
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}
