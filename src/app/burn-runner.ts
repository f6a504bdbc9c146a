import { laserTruthOf, type BenchMachine, type BenchPlace } from '../bench/bench';
import { SimulatedLaser, type HandDone } from '../bench/laser';
import { isDatabaseAway, type Db } from '../db/client';
import { endBurn, noteHands, noteProgress } from '../db/burns';
import type { Program, ProgramPart } from '../formats/gcode';
import type { BurnProgress, BurnStatus, HandRecord } from '../records/burn';
import type { Log } from './log';

interface Session {
  readonly laser: SimulatedLaser;
  readonly lines: readonly string[];
  readonly parts: readonly ProgramPart[];
  readonly armWord: string;
  readonly hands: HandRecord[];
  sent: number;
  paused: boolean;
  targetS: number;
  /** Machine time that the head has stood at a hand's stop. */
  stoodS: number;
  noted: number;
  /** What the bench refused; null while it takes everything. */
  fault: string | null;
  /** What is done when all of it is burned. */
  readonly then: () => void;
}

const TICK_MS = 100;
const NOTE_EVERY_LINES = 400;
/** What could not be written because the database was away is tried again after this long. */
const RETRY_MS = 500;

/**
 * Sends programs to the simulated laser line by line, waiting for its acknowledgements, faster than life by `paceFactor`. A pause
 * disarms the beam, going on arms it again; a stop disarms it for good. At `M0` the program waits until a hand says it is done. Progress
 * is noted in the database as it goes, and an end that could not be written is written when the database is back; what was not noted
 * when a server died is lost, and the burn is interrupted.
 */
export class BurnRunner {
  private readonly sessions = new Map<number, Session>();
  private timer: NodeJS.Timeout | null = null;
  private readonly writing = new Set<Promise<void>>();
  private closed = false;

  constructor(
    private readonly db: Db,
    private readonly log: Log,
    private readonly now: () => Date,
    readonly paceFactor: number,
  ) {}

  start(
    burnId: number,
    program: Program,
    machine: BenchMachine,
    place: BenchPlace,
    then = (): void => undefined,
  ): void {
    this.sessions.set(burnId, {
      laser: new SimulatedLaser(laserTruthOf(machine, place)),
      lines: program.text.split('\n').slice(0, program.lines),
      parts: program.parts,
      armWord: machine.rampPower === 'follows-speed' ? 'M4 S0' : 'M3 S0',
      hands: [],
      sent: 0,
      paused: false,
      targetS: 0,
      stoodS: 0,
      noted: 0,
      fault: null,
      then,
    });
    this.timer ??= setInterval(() => this.tick(), TICK_MS);
    this.timer.unref();
  }

  progressOf(burnId: number): BurnProgress | null {
    const session = this.sessions.get(burnId);
    if (!session) return null;
    const { laser, parts, sent } = session;
    const begun = parts.filter((part) => part.line < sent);
    const part = begun.findLast(({ hand }) => hand === null);
    const finished = begun.filter(({ hand }, index) => hand === null && index < begun.length - 1);
    const cells = part?.cells ?? [];
    const cellsDone = finished.flatMap((done) => done.cells);
    const { x, y } = laser.headPlace;
    return {
      linesDone: sent,
      elapsedS: laser.elapsedS,
      paused: session.paused,
      headXMm: x,
      headYMm: y,
      part: part?.name ?? '',
      cells,
      cellsDone: [...new Set(cellsDone)].filter((index) => !cells.includes(index)),
      hand: laser.waitsForHand ? (this.handOf(session)?.hand ?? { text: 'go on', focusOffsetMm: null }) : null,
    };
  }

  /** Pauses or goes on. False when the burn is not under way here, or waits for a hand. */
  async setPaused(burnId: number, paused: boolean): Promise<boolean> {
    const session = this.sessions.get(burnId);
    if (!session || session.laser.waitsForHand) return false;
    if (paused !== session.paused) session.laser.send(paused ? 'M5' : session.armWord);
    session.paused = paused;
    await noteProgress(this.db, burnId, session.sent, paused ? 'paused' : 'running');
    return true;
  }

  /** The hand that was waited for is done. False when none was. */
  async proceed(burnId: number, done: HandDone): Promise<boolean> {
    const session = this.sessions.get(burnId);
    if (!session?.laser.waitsForHand) return false;
    this.handDone(session, done);
    await noteHands(this.db, burnId, session.hands);
    return true;
  }

  /** Notes how far a burn has come that waits for a hand, which may look at the piece meanwhile. False when it does not wait. */
  async noteStop(burnId: number): Promise<boolean> {
    const session = this.sessions.get(burnId);
    if (!session?.laser.waitsForHand) return false;
    await noteProgress(this.db, burnId, session.sent, 'running');
    return true;
  }

  /** Ends a burn where it is. False when the burn is not under way here. */
  async stop(burnId: number): Promise<boolean> {
    const session = this.sessions.get(burnId);
    if (!session) return false;
    session.laser.send('M5');
    await this.end(burnId, session, 'stopped');
    return true;
  }

  /** Sends the rest of a burn without waiting for its time to pass, with hands that do as they are told: for demo and tests. */
  async finishNow(burnId: number): Promise<void> {
    const session = this.sessions.get(burnId);
    if (!session) return;
    while (session.fault === null && session.sent < session.lines.length) {
      this.send(burnId, session, Infinity);
      if (session.laser.waitsForHand)
        this.handDone(session, { focusOffsetMm: this.handOf(session)?.hand?.focusOffsetMm ?? null });
    }
    await this.end(burnId, session, session.fault === null ? 'done' : 'interrupted');
  }

  /** Stops all burns, for a server that ends in an orderly way. What the database cannot take by then is lost. */
  async close(): Promise<void> {
    this.closed = true;
    await Promise.all([...this.sessions].map(([id, session]) => this.end(id, session, 'interrupted')));
    await Promise.all(this.writing);
  }

  /** The part that names what a hand is waited for. */
  private handOf({ parts, sent }: Session): ProgramPart | undefined {
    return parts.find((part) => part.hand !== null && part.line === sent - 1);
  }

  private handDone(session: Session, done: HandDone): void {
    const seconds = session.stoodS;
    session.laser.hold(seconds);
    session.laser.proceed(done);
    session.hands.push({ line: session.sent - 1, focusOffsetMm: done.focusOffsetMm, seconds });
    session.stoodS = 0;
    // Time does not run ahead of the head while it stands.
    session.targetS = session.laser.elapsedS;
  }

  private tick(): void {
    for (const [burnId, session] of this.sessions) {
      const passed = (TICK_MS / 1000) * this.paceFactor;
      if (session.laser.waitsForHand) {
        session.stoodS += passed;
        continue;
      }
      if (session.paused) continue;
      session.targetS += passed;
      this.send(burnId, session, session.targetS);
      if (session.fault !== null) void this.end(burnId, session, 'interrupted');
      else if (session.sent === session.lines.length) void this.end(burnId, session, 'done');
      else if (session.sent - session.noted > NOTE_EVERY_LINES) {
        session.noted = session.sent;
        const { sent } = session;
        // Only the last one counts: one that the database cannot take is left out.
        this.keep(noteProgress(this.db, burnId, sent, 'running').catch((error: unknown) => this.lost(burnId, error)));
      }
    }
  }

  /** Sends lines until the machine's clock reaches a time, a hand is waited for, or the bench refuses one: that is the session's fault. */
  private send(burnId: number, session: Session, untilS: number): void {
    const { laser, lines } = session;
    while (session.sent < lines.length && laser.elapsedS < untilS && !laser.waitsForHand) {
      const answer = laser.send(lines[session.sent]!);
      if (!answer.ok) {
        this.log.error({ burnId, line: session.sent + 1, message: answer.message }, 'the bench refused a line');
        laser.send('M5');
        session.fault = `line ${session.sent + 1} was refused: ${answer.message}`;
        return;
      }
      session.sent++;
    }
  }

  private keep(work: Promise<void>): void {
    const done = work.finally(() => this.writing.delete(done));
    this.writing.add(done);
  }

  private lost(burnId: number, error: unknown): void {
    this.log.error({ burnId, error: String(error) }, 'noting a burn failed');
  }

  private async end(
    burnId: number,
    session: Session,
    status: Exclude<BurnStatus, 'running' | 'paused'>,
  ): Promise<void> {
    this.sessions.delete(burnId);
    if (this.sessions.size === 0 && this.timer) {
      clearInterval(this.timer);
      this.timer = null;
    }
    const actualS = session.laser.elapsedS;
    const at = this.now();
    const written = this.writeEnd(burnId, {
      status,
      linesDone: session.sent,
      actualS,
      at,
      hands: session.hands,
      fault: session.fault,
    });
    this.keep(written);
    await written;
    if (status === 'done' && !this.closed) session.then();
  }

  /** Writes a burn's end, again and again while the database is away. */
  private async writeEnd(burnId: number, end: Parameters<typeof endBurn>[2]): Promise<void> {
    for (;;) {
      try {
        await endBurn(this.db, burnId, end);
        this.log.info({ burnId, status: end.status, actualS: end.actualS }, 'burn ended');
        return;
      } catch (error) {
        this.lost(burnId, error);
        if (this.closed || !isDatabaseAway(error)) return;
        await new Promise((resolve) => setTimeout(resolve, RETRY_MS).unref());
      }
    }
  }
}
