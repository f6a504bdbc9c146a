import { useEffect, useState } from 'react';
import { Figures, TicketPart } from '../../components/BenchFrame';
import { Button } from '../../components/Button';
import { Notice } from '../../components/Notice';
import { QuantityField } from '../../components/QuantityField';
import { DURATION } from '../../components/quantity-kinds';
import { formatDuration, formatStopwatch } from '../../core/quantities/format';
import type { BurnView } from '../../records/burn';
import styles from './BurnStage.module.css';

/** A clock that ran this many times as long as estimated was more likely forgotten. */
const FORGOTTEN = 3;

/** Seconds since a moment, counted on while somebody looks. */
function useSeconds(since: string): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, (now - Date.parse(since)) / 1000);
}

/** The clock of a burn on the operator's own machine, while it runs. */
export function OwnClock({
  burn,
  busy,
  onEnd,
}: {
  burn: BurnView;
  busy: boolean;
  onEnd: (end: { status: 'done' | 'stopped'; tookS: number | null }) => void;
}) {
  const seconds = useSeconds(burn.startedAt);
  const [typed, setTyped] = useState<number | null>(null);
  const forgotten = seconds > FORGOTTEN * burn.estimatedS && typed === null;
  return (
    <TicketPart title="Burning on your machine">
      <p className={styles.clock} role="timer" aria-label="Time since the start">
        {formatStopwatch(seconds)}
      </p>
      <Figures rows={[['Estimated', formatDuration(burn.estimatedS)]]} />
      {forgotten && (
        <Notice look="straw">
          The clock has run {FORGOTTEN} times as long as estimated. If it was forgotten, type how long the burn took.
        </Notice>
      )}
      <QuantityField
        label="It took"
        kind={DURATION}
        value={typed}
        onChange={setTyped}
        optional
        hint="as on a stopwatch, 11:46; empty for the clock above"
      />
      <p className={styles.pace}>The clock runs on while this page is closed. Strongest cells come last: watch them.</p>
      <div className={styles.row}>
        <Button look="main" busy={busy} onClick={() => onEnd({ status: 'done', tookS: typed })}>
          Burned to the end
        </Button>
        <Button look="heat" busy={busy} onClick={() => onEnd({ status: 'stopped', tookS: typed })}>
          I stopped it
        </Button>
      </div>
    </TicketPart>
  );
}

/** A burn on the operator's own machine that is over, to be noted with the time that it took. */
export function OwnOver({
  ready,
  busy,
  label,
  onOver,
}: {
  ready: boolean;
  busy: boolean;
  label: string;
  onOver: (tookS: number | null) => void;
}) {
  const [tookS, setTookS] = useState<number | null>(null);
  return (
    <>
      <QuantityField
        label="It is over, and took"
        kind={DURATION}
        value={tookS}
        onChange={setTookS}
        optional
        hint="as on a stopwatch, 11:46; empty if nobody looked. Timed burns make the estimates of this machine truer."
      />
      <Button disabled={!ready} busy={busy} onClick={() => onOver(tookS)}>
        {label}
      </Button>
    </>
  );
}

/** How a burn on the operator's own machine is begun or noted. */
export function OwnStart({
  ready,
  busy,
  onClock,
  onOver,
}: {
  ready: boolean;
  busy: boolean;
  onClock: () => void;
  onOver: (tookS: number | null) => void;
}) {
  return (
    <details className={styles.own}>
      <summary>On my own machine</summary>
      <Button disabled={!ready} busy={busy} onClick={onClock}>
        It starts now: start the clock
      </Button>
      <OwnOver ready={ready} busy={busy} label="Burned on my own machine" onOver={onOver} />
    </details>
  );
}

/** The time of an ended burn on the operator's own machine, to be corrected. */
export function OwnTime({
  burn,
  busy,
  onTime,
}: {
  burn: BurnView;
  busy: boolean;
  onTime: (tookS: number | null) => void;
}) {
  const [tookS, setTookS] = useState<number | null>(burn.actualS);
  const changed = tookS !== burn.actualS;
  return (
    <>
      <QuantityField
        label="It took"
        kind={DURATION}
        value={tookS}
        onChange={setTookS}
        optional
        hint="11:46; empty if not timed"
      />
      {changed && (
        <Button busy={busy} onClick={() => onTime(tookS)}>
          Correct the time
        </Button>
      )}
    </>
  );
}
