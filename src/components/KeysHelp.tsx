import { useEffect, useRef } from 'react';
import { Button } from './Button';
import styles from './KeysHelp.module.css';

const KEYS: readonly (readonly [keys: string, what: string])[] = [
  ['← ↑ → ↓', 'move over the cells of a card, or move a corner handle'],
  ['1 … 5', 'grade the cell in focus'],
  ['G N C B F R', 'good, no mark, charred, burned through, flare-up, residue stays'],
  ['0', 'clear the cell’s grade and outcome'],
  ['U', 'undo the last grade or outcome'],
  ['K or Enter', 'keep the chosen cell'],
  ['/', 'search the settings book'],
  ['Esc', 'back to the proposal; close this list'],
  ['?', 'show this list'],
];

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);

/** Keys that work on every page, and the list of all keys. */
export function KeysHelp() {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === '?') dialog.current?.showModal();
      if (event.key === '/') {
        event.preventDefault();
        const search = document.querySelector<HTMLInputElement>('[data-search]');
        if (search) search.focus();
        else window.location.assign('/book#search');
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button type="button" className={styles.open} onClick={() => dialog.current?.showModal()} aria-label="Keys">
        ?
      </button>
      <dialog ref={dialog} className={styles.dialog} aria-labelledby="keys-title">
        <h2 id="keys-title">Keys</h2>
        <dl>
          {KEYS.map(([keys, what]) => (
            <div key={keys}>
              <dt>
                <kbd>{keys}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        <Button onClick={() => dialog.current?.close()}>Close</Button>
      </dialog>
    </>
  );
}
