import { useEffect, useRef } from 'react';
import { Button } from './Button';
import styles from './KeysHelp.module.css';

const KEYS: readonly (readonly [keys: string, what: string])[] = [
  ['← ↑ → ↓', 'move over the cells of a card, or move a corner handle'],
  ['1 … 5', 'grade the cell in focus, on cards that ask for grades'],
  ['A … Z', 'answer about the cell in focus: the letter stands on each button'],
  ['0', 'take back all that was said of the cell'],
  ['U', 'undo the last answer'],
  ['Enter', 'on to the next reading of a gauge, or to what the card says'],
  ['K', 'keep what was found'],
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
