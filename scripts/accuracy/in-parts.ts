import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { availableParallelism } from 'node:os';

/** The three seeds of a report: the commit's hash, so that nobody can have looked at them before. */
export function seedsOfCommit(): string[] {
  const hash = execFileSync('git', ['rev-parse', '--short', 'HEAD']).toString().trim();
  return [1, 2, 3].map((number) => `${hash}-${number}`);
}

/**
 * Works through so many turns of each seed in as many processes as there are cores: each is this script again, told `command seed part parts count`, and
 * writes what it found as a line of JSON each. Says on the error stream how far it has come. Throws when one of them does not end well.
 */
export async function inParts<Line>(
  command: string,
  seeds: readonly string[],
  count: number,
  take: (line: Line) => void,
): Promise<void> {
  const parts = availableParallelism();
  let lines = 0;
  for (const seed of seeds)
    await Promise.all(
      Array.from({ length: parts }, async (_, part) => {
        const args = [process.argv[1]!, command, seed, String(part), String(parts), String(count)];
        const child = spawn(process.execPath, args, { stdio: ['ignore', 'pipe', 'inherit'] });
        let text = '';
        for await (const chunk of child.stdout) {
          const whole = (text + String(chunk)).split('\n');
          text = whole.pop()!;
          for (const line of whole) take(JSON.parse(line) as Line);
          lines += whole.length;
          process.stderr.write(`${lines} lines, seed ${seed}\r`);
        }
        const [code] = child.exitCode === null ? ((await once(child, 'exit')) as [number]) : [child.exitCode];
        if (code !== 0) throw new Error(`a part of the report ended with ${code}`);
      }),
    );
}
