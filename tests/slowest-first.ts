import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Projects in the order they are begun: long simulations first, what fills gaps last; the browser's server starts meanwhile. */
const PROJECTS = ['bench', 'photos', 'integration', 'browser', 'trials', 'unit'];
/** By far the longest files: whoever begins them late has one core wait for them. */
const LONGEST = ['truth.bench.test.ts', 'screens.test.ts'];

const rank = ({ project, moduleId }: TestSpecification): number =>
  LONGEST.some((name) => moduleId.endsWith(name)) ? -1 : PROJECTS.indexOf(project.name);

/** The runner's own order within each project, projects after one another: no core waits at the end for a long file or between two runs. */
export class SlowestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    return (await super.sort(files)).sort((a, b) => rank(a) - rank(b));
  }
}
