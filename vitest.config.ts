import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files that take the longest, longest first. */
const LONG = [
  'plan-day',
  'plan-optimal',
  'cluster',
  'no-network',
  'stand-in',
  'every-screen',
  'bench-screens',
  'hands',
  'displays',
  'survival',
  'order-to-seal',
];

/** Begins with what takes longest, so that no file is left alone at the end. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = ({ moduleId }: TestSpecification): number => {
      const at = LONG.findIndex((name) => moduleId.includes(`/${name}.test`));
      return at < 0 ? LONG.length : at;
    };
    return (await super.sort(files)).toSorted((a, b) => rank(a) - rank(b));
  }
}

/** Ends what would never: whatever is waited for has a measure of its own, and none of them is this. */
const NEVER_MS = 600_000;

const resolve = { conditions: ['decurio-source', 'module', 'node', 'development|production'] };
const ssr = { resolve };

export default defineConfig({
  test: {
    sequence: { sequencer: LongestFirst },
    maxWorkers: 2,
    projects: [
      // Pure computation: how long it takes is the machine's, and no race hides in it.
      {
        resolve,
        ssr,
        test: {
          name: 'unit',
          isolate: false,
          testTimeout: NEVER_MS,
          include: [
            'core/**/*.test.ts',
            'contract/**/*.test.ts',
            'web/**/*.test.ts',
            'scripts/commands.test.ts',
            'scripts/lint-rules.test.ts',
            'scripts/demo-files.test.ts',
          ],
        },
      },
      {
        resolve,
        ssr,
        test: {
          name: 'server',
          isolate: false,
          include: ['server/**/*.test.ts'],
          globalSetup: ['server/testing/with-database.ts'],
          hookTimeout: NEVER_MS,
          testTimeout: NEVER_MS,
        },
      },
      // Its own servers and database, which it breaks.
      {
        resolve,
        ssr,
        test: {
          name: 'faults',
          include: ['scripts/faults.test.ts'],
          hookTimeout: NEVER_MS,
          testTimeout: NEVER_MS,
        },
      },
      {
        resolve,
        ssr,
        test: {
          name: 'browser',
          isolate: false,
          include: [
            'e2e/**/*.test.ts',
            'scripts/survival.test.ts',
            'scripts/ordinary-user.test.ts',
            'scripts/start.test.ts',
            'scripts/backup.test.ts',
          ],
          globalSetup: ['e2e/support/with-demo.ts'],
          fileParallelism: true,
          // Holds, menus that close and power cycles are waited for in real time: a third browser fills the gaps.
          maxWorkers: 3,
          hookTimeout: NEVER_MS,
          testTimeout: NEVER_MS,
          expect: { poll: { timeout: 60_000 } },
        },
      },
    ],
  },
});
