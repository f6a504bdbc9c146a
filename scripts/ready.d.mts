import type { ChildProcess } from 'node:child_process';

export function untilReady(server: ChildProcess): Promise<void>;
