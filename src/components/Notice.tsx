import type { ReactNode } from 'react';
import type { ProblemBody } from '../views/problem';
import styles from './Notice.module.css';

interface Props {
  readonly look?: 'plain' | 'straw' | 'heat';
  readonly title?: string;
  readonly children: ReactNode;
  readonly live?: boolean;
}

export function Notice({ look = 'plain', title, children, live = false }: Props) {
  return (
    <div className={`${styles.notice} ${styles[look]}`} {...(live ? { role: 'alert' } : {})}>
      {title && <strong>{title}</strong>}
      <div>{children}</div>
    </div>
  );
}

/** What happened, what is safe, what to do. */
export function ProblemNotice({ problem }: { problem: ProblemBody | null }) {
  if (!problem) return null;
  return (
    <Notice look="heat" title={problem.title} live>
      <p>{problem.detail}</p>
      <p>
        {problem.whatIsSafe} {problem.whatToDo}
      </p>
    </Notice>
  );
}
