import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Projects in the order they are begun: long simulations first, what fills gaps last. */
const PROJECTS = ['bench', 'photos', 'integration', 'unit'];
/** By far the longest file: whoever begins it late has one core wait for it. */
const LONGEST = 'truth.bench.test.ts';
/** So many files are begun before the first that wants the server of all browser tests, which is still making its demo world. */
const AHEAD = 2;

const rank = ({ project, moduleId }: TestSpecification): number =>
  moduleId.endsWith(LONGEST) ? -1 : PROJECTS.indexOf(project.name);

/**
 * Long files first, and browser tests between the others by turns: who waits for a browser leaves half a core to whoever reckons beside it. Otherwise
 * the runner's own order.
 */
export class SlowestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const inBrowser = sorted.filter(({ project }) => project.name === 'browser');
    const others = sorted.filter(({ project }) => project.name !== 'browser').sort((a, b) => rank(a) - rank(b));
    const turns = others.slice(AHEAD).flatMap((file, turn) => [...inBrowser.slice(turn, turn + 1), file]);
    return [...others.slice(0, AHEAD), ...turns, ...inBrowser.slice(Math.max(0, others.length - AHEAD))];
  }
}
