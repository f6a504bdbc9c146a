import type { CardView } from '../../views/views';
import { stagesOf, wasSeen, type Stage } from './stages';
import styles from './StageTabs.module.css';

/** The card's way through the job, as numbered steps; a step that has nothing to show yet cannot be entered. */
export function StageTabs({ stage, view, onStage }: { stage: Stage; view: CardView; onStage: (stage: Stage) => void }) {
  const burned = view.burnedCells.length > 0;
  const seen = wasSeen(view);
  const facts: Readonly<Record<Stage, { name: string; done: boolean; open: boolean }>> = {
    burn: { name: 'Burn', done: view.burns.some((burn) => burn.status === 'done'), open: true },
    photo: {
      name: 'Photo',
      done: view.reading !== null || view.through !== null,
      open: burned || view.photos.length > 0,
    },
    look: { name: 'Look', done: view.answers.length > 0, open: burned || seen },
    find: { name: 'Find', done: view.kept.length > 0, open: seen },
  };
  return (
    <nav className={styles.tabs} aria-label={`Steps of card ${view.card.layout.code}`}>
      <p className={styles.code}>Card {view.card.layout.code}</p>
      <ol>
        {stagesOf(view.card).map((id, index) => (
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
