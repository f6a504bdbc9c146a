import { useState } from 'react';
import { Figures } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { SelectField, TextField } from '../../components/Field';
import { Notice, ProblemNotice } from '../../components/Notice';
import page from '../../components/Page.module.css';
import { QuantityField } from '../../components/QuantityField';
import { quantityKinds, WATTS } from '../../components/quantity-kinds';
import {
  DIARY_KIND_NAMES,
  DIARY_KINDS,
  diaryWords,
  doubtsOf,
  type DiaryEntry,
  type DiaryKind,
} from '../../core/machine/diary';
import { dayOf, momentOf } from '../../core/quantities/day';
import { formatDuration, formatPower, plainNumber } from '../../core/quantities/format';
import type { DiaryRecord, DiaryView } from '../../records/diary';
import type { MachineRecord } from '../../records/machine';
import { fieldMessage } from '../../views/problem';
import { send } from '../../views/send';
import { useAction } from '../../views/use-action';
import { useRequestKey } from '../../views/use-request-key';
import styles from './DiaryPart.module.css';

/** What each doubt means for what is in the book, in words. */
const DOUBT_WORDS = {
  source: 'everything that its light did',
  power: 'powers of marks and cuts',
  lens: 'focus and spot',
  motion: 'run-up, scan offset and length of dots',
  batch: '',
  stock: '',
  thickness: '',
  bed: 'the level of the bed',
} as const;

/** What a card tells is noted where it was found. */
const TYPED_KINDS = DIARY_KIND_NAMES.filter((name) => name !== 'inferred');

const hours = (value: number): string => formatDuration(value * 3600);
const now = (): string => new Date().toISOString();
const today = (): string => dayOf(now());

function doubtWords(entries: readonly DiaryEntry[], entry: DiaryEntry): string {
  const doubts = doubtsOf(entries, entry);
  return doubts.length === 0 ? '' : `makes doubtful: ${doubts.map((doubt) => DOUBT_WORDS[doubt]).join(', ')}`;
}

function Entry({
  entry,
  standing,
  onStrike,
}: {
  entry: DiaryRecord;
  standing: readonly DiaryRecord[];
  onStrike: () => void;
}) {
  const { at, note, reading, struck } = entry;
  return (
    <li className={struck ? styles.struck : undefined}>
      <div>
        <strong>{dayOf(at)}</strong> {diaryWords(standing, entry)}
        {reading && `: ${plainNumber(reading.watts, 3)} W at ${formatPower(reading.command)}`}
        {struck && ' (struck out)'}
        {note !== '' && <p>{note}</p>}
        {!struck && <p className={page.soft}>{doubtWords(standing, entry)}</p>}
      </div>
      <Button onClick={onStrike}>{struck ? 'Let it stand' : 'Strike out'}</Button>
    </li>
  );
}

/** A machine's diary: what was done to it and happened to it, and what that makes doubtful; hours burned. */
export function DiaryPart({ machine, first }: { machine: MachineRecord; first: DiaryView }) {
  const [diary, setDiary] = useState(first);
  const [kind, setKind] = useState<DiaryKind>('cleaned');
  const [day, setDay] = useState(today);
  const [note, setNote] = useState('');
  const [watts, setWatts] = useState<number | null>(null);
  const [command, setCommand] = useState<number | null>(machine.powerCap);
  const action = useAction();
  const key = useRequestKey(kind, day, note, watts, command, diary.entries.length);
  const address = `/api/machines/${machine.id}/diary`;
  const renew = async (): Promise<void> => setDiary(await send<DiaryView>(address));
  const add = (): void =>
    action.run(async () => {
      const reading = kind === 'watts' ? { command, watts } : null;
      await send(address, { method: 'POST', key, json: { at: momentOf(day, now()), kind, note, reading } });
      setNote('');
      setWatts(null);
      await renew();
    });
  const strike = ({ id, struck }: DiaryRecord): void =>
    action.run(async () => {
      await send(`${address}/${id}/struck`, { method: 'PUT', json: { struck: !struck } });
      await renew();
    });
  const { entries } = diary;
  const standing = entries.filter(({ struck }) => !struck);
  const { doubts } = DIARY_KINDS[kind];
  const kinds = quantityKinds(machine.likedUnits);
  return (
    <section className={page.columns} aria-label="Diary" id="diary">
      <fieldset className={page.group}>
        <legend>What happened to it</legend>
        <SelectField label="It was" value={kind} onChange={(event) => setKind(event.target.value as DiaryKind)}>
          {TYPED_KINDS.map((name) => (
            <option key={name} value={name}>
              {DIARY_KINDS[name].name}
            </option>
          ))}
        </SelectField>
        <TextField
          label="On"
          type="date"
          value={day}
          max={today()}
          error={fieldMessage(action.problem, 'at')}
          onChange={(event) => setDay(event.target.value)}
        />
        {kind === 'watts' && (
          <div className={page.pair}>
            <QuantityField
              label="Meter showed"
              kind={WATTS}
              value={watts}
              optional
              onChange={setWatts}
              error={fieldMessage(action.problem, 'reading.watts') ?? fieldMessage(action.problem, 'reading')}
            />
            <QuantityField
              label="At power"
              kind={kinds.power}
              value={command}
              optional
              onChange={setCommand}
              error={fieldMessage(action.problem, 'reading.command')}
            />
          </div>
        )}
        <TextField
          label="Note"
          value={note}
          maxLength={500}
          placeholder="what, by whom, with what"
          onChange={(event) => setNote(event.target.value)}
        />
        {doubts.length > 0 && (
          <Notice look="straw">
            What was measured before that day turns stale: {doubts.map((doubt) => DOUBT_WORDS[doubt]).join(', ')}.
            Ladders name the least burn that settles each.
          </Notice>
        )}
        <ProblemNotice problem={action.problem} />
        <div className={page.actions}>
          <Button look="main" busy={action.busy} disabled={day === ''} onClick={add}>
            Note it
          </Button>
        </div>
      </fieldset>
      <fieldset className={page.group}>
        <legend>Diary</legend>
        <Figures
          rows={[
            ['Logged burns', hours(diary.hours.all)],
            ...(standing.some((entry) => entry.kind === 'source')
              ? [['Since the source was replaced', hours(diary.hours.ofSource)] as const]
              : []),
          ]}
        />
        {entries.length === 0 && (
          <p className={page.soft}>
            Nothing was noted yet. Cleaned optics and a replaced source change every number below them.
          </p>
        )}
        <ul className={styles.entries}>
          {entries.map((entry) => (
            <Entry key={entry.id} entry={entry} standing={standing} onStrike={() => strike(entry)} />
          ))}
        </ul>
      </fieldset>
    </section>
  );
}
