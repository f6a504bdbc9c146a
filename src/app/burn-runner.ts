import { laserTruthOf, type BenchMachine } from '../bench/bench';
import { SimulatedLaser } from '../bench/laser';
import type { Db } from '../db/client';
import { endBurn, noteProgress } from '../db/burns';
import type { Log } from './context';

interface Session {
  readonly laser: SimulatedLaser;
  readonly lines: readonly string[];
  sent: number;
  paused: boolean;
  targetS: number;
  noted: number;
}

export interface BurnProgress {
  readonly linesDone: number;
  readonly elapsedS: number;
  readonly paused: boolean;
  readonly headXMm: number;
  readonly headYMm: number;
  /** The comment of the part that burns now: "cell 12", "marker upper-left". */
  readonly part: string;
}

const TICK_MS = 100;
const NOTE_EVERY_LINES = 400;

/**
 * Sends programs to the simulated laser line by line, waiting for its acknowledgements, faster than life by `paceFactor`.
 * Progress is noted in the database as it goes; what was not noted when a server died is lost, and the burn is interrupted.
 */
export class BurnRunner {
  private readonly sessions = new Map<number, Session>();
  private timer: NodeJS.Timeout | null = null;
  private readonly endings = new Set<Promise<void>>();

  constructor(
    private readonly db: Db,
    private readonly log: Log,
    private readonly now: () => Date,
    readonly paceFactor: number,
  ) {}

  start(burnId: number, program: string, machine: BenchMachine): void {
    const laser = new SimulatedLaser(laserTruthOf(machine));
    const lines = program.split('\n').filter((line) => line !== '');
    this.sessions.set(burnId, { laser, lines, sent: 0, paused: false, targetS: 0, noted: 0 });
    this.timer ??= setInterval(() => this.tick(), TICK_MS);
    this.timer.unref();
  }

  progressOf(burnId: number): BurnProgress | null {
    const session = this.sessions.get(burnId);
    if (!session) return null;
    const { x, y } = session.laser.headPlace;
    let part = '';
    for (let index = session.sent - 1; index >= 0 && part === ''; index--) {
      const line = session.lines[index]!;
      if (line.startsWith('(')) part = line.slice(1, -1);
    }
    return {
      linesDone: session.sent,
      elapsedS: session.laser.elapsedS,
      paused: session.paused,
      headXMm: x,
      headYMm: y,
      part,
    };
  }

  /** Pauses or goes on. False when the burn is not under way here. */
  async setPaused(burnId: number, paused: boolean): Promise<boolean> {
    const session = this.sessions.get(burnId);
    if (!session) return false;
    session.paused = paused;
    await noteProgress(this.db, burnId, session.sent, paused ? 'paused' : 'running');
    return true;
  }

  /** Ends a burn where it is. False when the burn is not under way here. */
  async stop(burnId: number): Promise<boolean> {
    const session = this.sessions.get(burnId);
    if (!session) return false;
    await this.end(burnId, session, 'stopped');
    return true;
  }

  /** Sends the rest of a burn without waiting for its time to pass: for the demo world and for tests. */
  async finishNow(burnId: number): Promise<void> {
    const session = this.sessions.get(burnId);
    if (!session) return;
    const whole = this.send(burnId, session, Infinity);
    await this.end(burnId, session, whole ? 'done' : 'interrupted');
  }

  /** Stops all burns, for a server that ends in an orderly way. */
  async close(): Promise<void> {
    await Promise.all([...this.sessions].map(([id, session]) => this.end(id, session, 'interrupted')));
    await Promise.all(this.endings);
  }

  private tick(): void {
    for (const [burnId, session] of this.sessions) {
      if (session.paused) continue;
      session.targetS += (TICK_MS / 1000) * this.paceFactor;
      if (!this.send(burnId, session, session.targetS)) this.ending(this.end(burnId, session, 'interrupted'));
      else if (session.sent === session.lines.length) this.ending(this.end(burnId, session, 'done'));
      else if (session.sent - session.noted > NOTE_EVERY_LINES) {
        session.noted = session.sent;
        this.ending(noteProgress(this.db, burnId, session.sent, 'running'));
      }
    }
  }

  /** Sends lines until the machine's clock reaches a time; false when the bench refused one. */
  private send(burnId: number, session: Session, untilS: number): boolean {
    while (session.sent < session.lines.length && session.laser.elapsedS < untilS) {
      const answer = session.laser.send(session.lines[session.sent]!);
      if (!answer.ok) {
        this.log.error({ burnId, line: session.sent + 1, message: answer.message }, 'the bench refused a line');
        return false;
      }
      session.sent++;
    }
    return true;
  }

  private ending(work: Promise<void>): void {
    const noted = work
      .catch((error: unknown) => this.log.error({ error: String(error) }, 'noting a burn failed'))
      .finally(() => this.endings.delete(noted));
    this.endings.add(noted);
  }

  private async end(burnId: number, session: Session, status: 'done' | 'stopped' | 'interrupted'): Promise<void> {
    this.sessions.delete(burnId);
    if (this.sessions.size === 0 && this.timer) {
      clearInterval(this.timer);
      this.timer = null;
    }
    const actualS = session.laser.elapsedS;
    await endBurn(this.db, burnId, { status, linesDone: session.sent, actualS, at: this.now() });
    this.log.info({ burnId, status, actualS }, 'burn ended');
  }
}
