import type { CardView } from '../../app/views';
import styles from './StageTabs.module.css';

export type Stage = 'burn' | 'photo' | 'read' | 'pick';

/** The card's way through the job, as numbered steps; a step that has nothing to show yet cannot be entered. */
export function StageTabs({ stage, view, onStage }: { stage: Stage; view: CardView; onStage: (stage: Stage) => void }) {
  const burned = view.burns.length > 0;
  const steps: readonly { id: Stage; name: string; done: boolean; open: boolean }[] = [
    { id: 'burn', name: 'Burn', done: view.burns.some((burn) => burn.status === 'done'), open: true },
    { id: 'photo', name: 'Photo', done: view.reading !== null, open: burned || view.photos.length > 0 },
    { id: 'read', name: 'Read', done: view.verdicts.length > 0, open: view.reading !== null },
    { id: 'pick', name: 'Pick', done: view.kept.length > 0, open: view.reading !== null },
  ];
  return (
    <nav className={styles.tabs} aria-label={`Steps of card ${view.card.layout.code}`}>
      <p className={styles.code}>Card {view.card.layout.code}</p>
      <ol>
        {steps.map((step, index) => (
          <li key={step.id}>
            <button
              type="button"
              aria-current={step.id === stage ? 'step' : undefined}
              disabled={!step.open}
              onClick={() => onStage(step.id)}
            >
              <span aria-hidden="true">{step.done ? '✓' : index + 1}</span> {step.name}
              {step.done && <span className="visuallyHidden"> (done)</span>}
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}
