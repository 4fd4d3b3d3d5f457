import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import * as core from './index.js';
import * as median from './statistics/median.js';
import * as rankSum from './display/trials/rank-sum.js';
import * as quantiles from './statistics/quantiles.js';
import * as tolerance from './statistics/tolerance.js';
import * as wgs84 from './speed/track/wgs84.js';
import * as cutoff from './electrical/cutoff.js';

const ROOT = fileURLToPath(new URL('.', import.meta.url));
const EXAMPLE = / \* @example\n((?: \*.*\n)*?)(?= \* @| \*\/)/g;
const inScope: Readonly<Record<string, unknown>> = {
  ...core,
  ...median,
  ...rankSum,
  ...quantiles,
  ...tolerance,
  ...wgs84,
  ...cutoff,
};

interface Example {
  readonly file: string;
  readonly code: string;
}

const examples: readonly Example[] = (readdirSync(ROOT, { recursive: true }) as string[])
  .filter((file) => /\.ts$/.test(file) && !/(^|\/)(node_modules|dist)\/|\.test\.ts$|\.d\.ts$/.test(file))
  .flatMap((file) =>
    [...readFileSync(join(ROOT, file), 'utf8').matchAll(EXAMPLE)].map(([, lines = '']) => ({
      file,
      code: lines.replace(/^ \* ?/gm, '').trim(),
    })),
  );

/** An example whose lines that say what they give keep it, as pairs of what came and what was said. */
function run({ code }: Example): readonly (readonly [came: unknown, said: unknown])[] {
  const kept = code.replace(/^(?!const |import )(.+); \/\/ (.+)$/gm, '__kept.push([$1, ($2)]);');
  const plain = ts.transpileModule(kept, { compilerOptions: { target: ts.ScriptTarget.ES2022 } }).outputText;
  const pairs: (readonly [unknown, unknown])[] = [];
  // Examples are our own, and read as they would be typed.
  new Function('__kept', ...Object.keys(inScope), plain)(pairs, ...Object.values(inScope));
  return pairs;
}

describe('examples in the docs of core', () => {
  it.each(examples)('run and give what they say: $file', (example) => {
    const pairs = run(example);
    expect(pairs.length).toBeGreaterThan(0);
    for (const [came, said] of pairs) expect(came).toEqual(said);
  });

  it('stand where arithmetic is public', () => {
    const files = new Set(examples.map(({ file }) => file));
    for (const file of [
      'speed/safe-cap.ts',
      'speed/speed.ts',
      'speed/tyre-marking.ts',
      'speed/wheel-code.ts',
      'speed/ratio/estimate-speed-ratio.ts',
      'speed/choose/choose-wheel-codes.ts',
      'speed/fleet/family-ratio.ts',
      'speed/fleet/out-of-family.ts',
      'speed/track/wgs84.ts',
      'speed/references/timed-distance.ts',
      'speed/references/roller-bench.ts',
      'speed/references/roll-out.ts',
      'statistics/tolerance.ts',
      'statistics/quantiles.ts',
      'electrical/check-pack.ts',
      'electrical/current-limit.ts',
      'electrical/cutoff.ts',
      'electrical/gauge-steps.ts',
      'electrical/open-circuit.ts',
      'electrical/range-span.ts',
      'electrical/voltage-class.ts',
      'ledger/canonical-json.ts',
      'house-time.ts',
      'numerals.ts',
    ])
      expect([...files]).toContain(file);
  });
});
