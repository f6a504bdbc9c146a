import { useState, type KeyboardEvent } from 'react';
import { TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import type { MatesAsk, Seen } from '../../core/card/asks';
import { letterOf } from '../../core/card/channels';
import type { Layout } from '../../core/card/layout';
import { ownMates, pairsOfCard, stepsOfPair } from '../../core/card/mates-of-card';
import { nameOfMate, nextMates, type PairOfMates } from '../../core/joint/mates';
import type { LikedUnits } from '../../core/quantities/format';
import styles from './MatesPart.module.css';

interface Props {
  readonly ask: MatesAsk;
  readonly layout: Layout;
  readonly seen: Seen;
  readonly liked: LikedUnits;
  readonly onAnswer: (pair: PairOfMates, value: string | null) => void;
  readonly onUndo: () => void;
}

/** Every hole with every part: keys say how the pair in focus goes, Enter leads to the one that tells most next. */
export function MatesPart({ ask, layout, seen, liked, onAnswer, onUndo }: Props) {
  const own = ownMates(layout);
  const pairs = pairsOfCard(layout, seen);
  const isOwnHole = layout.mates?.own === 'hole';
  const next = nextMates(pairs);
  const [chosen, setChosen] = useState<{ cellIndex: number; other: number } | null>(null);
  const nameOf = (pair: PairOfMates): string => {
    const { hole, part } = stepsOfPair(layout, pair);
    return `part ${nameOfMate('part', part)} into hole ${nameOfMate('hole', hole)}`;
  };
  const pairAt = (hole: number, part: number): PairOfMates | undefined =>
    pairs.find((pair) => {
      const steps = stepsOfPair(layout, pair);
      return steps.hole === hole && steps.part === part;
    });
  const others = layout.mates?.othersMm.length ?? 0;
  const [holes, parts] = isOwnHole ? [own.length, others] : [others, own.length];
  const focus = (pair: Pick<PairOfMates, 'cellIndex' | 'other'> | null): void => {
    if (!pair) return;
    document.querySelector<HTMLButtonElement>(`[data-pair="${pair.cellIndex} ${pair.other}"]`)?.focus();
  };
  const onKey = (event: KeyboardEvent, pair: PairOfMates, hole: number, part: number): void => {
    if (event.metaKey || event.altKey || (event.ctrlKey && event.key !== 'z')) return;
    const step = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowDown: [1, 0], ArrowUp: [-1, 0] }[event.key];
    const option = ask.options.find(({ key }) => key === event.key.toLowerCase());
    if (step) focus(pairAt(hole + step[0]!, part + step[1]!) ?? null);
    else if (event.key === 'Enter') focus(next);
    else if (event.key === '0' || event.key === 'Backspace') onAnswer(pair, null);
    else if (event.key.toLowerCase() === 'u' || event.ctrlKey) onUndo();
    else if (option) onAnswer(pair, option.id);
    else return;
    event.preventDefault();
  };
  const tighter = (mm: number) => letterOf('tighter', mm, liked);
  const shown = pairs.find(({ cellIndex, other }) => chosen?.cellIndex === cellIndex && chosen.other === other) ?? next;
  return (
    <TicketPart title={ask.question}>
      <p>
        {next
          ? `Try next: ${nameOf(next)}. Holes have letters, parts their number burned on.`
          : 'What is left lies between pairs that went alike: enough for an answer.'}
      </p>
      <table className={styles.pairs}>
        <thead>
          <tr>
            <th scope="col">
              <span className={styles.corner}>{tighter(1).unit} tighter a side</span>
            </th>
            {Array.from({ length: parts }, (_, part) => (
              <th key={part} scope="col">
                {nameOfMate('part', part)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {Array.from({ length: holes }, (_row, hole) => (
            <tr key={hole}>
              <th scope="row">{nameOfMate('hole', hole)}</th>
              {Array.from({ length: parts }, (_column, part) => {
                const pair = pairAt(hole, part);
                if (!pair) return <td key={part} />;
                const said = ask.options.find(({ id }) => id === pair.fit);
                return (
                  <td key={part}>
                    <button
                      type="button"
                      data-pair={`${pair.cellIndex} ${pair.other}`}
                      data-fit={pair.fit ?? undefined}
                      data-next={pair === next || undefined}
                      aria-label={`${nameOf(pair)}, ${tighter(pair.tighterMm).means} tighter a side: ${said?.name ?? 'not tried'}`}
                      onFocus={() => setChosen(pair)}
                      onKeyDown={(event) => onKey(event, pair, hole, part)}
                    >
                      <span>{said ? said.key.toUpperCase() : '·'}</span>
                      <small>{tighter(pair.tighterMm).text}</small>
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {shown && (
        <div role="group" aria-label={nameOf(shown)} className={styles.answers}>
          <p>{nameOf(shown)}:</p>
          {ask.options.map(({ id, key, name }) => (
            <Button
              key={id}
              shortcut={key.toUpperCase()}
              aria-pressed={shown.fit === id}
              onClick={() => onAnswer(shown, id)}
            >
              {name}
            </Button>
          ))}
        </div>
      )}
    </TicketPart>
  );
}
