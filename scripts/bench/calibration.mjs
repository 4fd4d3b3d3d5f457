import { chooseWheelCodes, readTrack, smoothTrack, steadyStretches } from '@decurio/core';
import { runnerImport } from 'vite';
import { join } from 'node:path';
import { ROOT } from '../lib/paths.mjs';
import { say } from '../lib/say.mjs';

const SETS = 2000;
const COUNTS = [3, 4, 5, 6, 8, 10, 12, 16, 20, 30, 40];

/**
 * A module that tests use and that is not shipped.
 * @param {string} path @returns {Promise<any>}
 */
async function source(path) {
  const { module } = await runnerImport(join(ROOT, path), {
    resolve: { conditions: ['decurio-source', 'module', 'node'] },
  });
  return module;
}

/** @typedef {{ coverage: number, overBound: number, bias: number }} Judged */

/**
 * What the estimator of the speed ratio does over 2,000 simulated runs for each reference, rounding and number of
 * readings, printed as a table; and how long a track and a choice take.
 */
export async function calibrationFigures() {
  return [...(await estimatorFigures()), await trackFigure(), choiceFigure()];
}

async function estimatorFigures() {
  const { judgeEstimator } = await source('core/testing/judge-estimator.ts');
  const { SIMULATED_REFERENCES } = await source('core/testing/simulated-readings.ts');
  say(
    `\nEstimate of the speed ratio over ${SETS} runs each: coverage of the 95 % interval, error over the Cramér-Rao bound, bias over the standard error\n`,
  );
  const worst = { least: 1, most: 0, over: 0, bias: 0, repeated: 1 };
  for (const speeds of /** @type {const} */ (['spread', 'repeated'])) {
    for (const rounding of /** @type {const} */ (['nearest', 'truncated'])) {
      for (const resolutionKmh of [1, 0.1]) {
        for (const reference of SIMULATED_REFERENCES) {
          /** @type {Judged[]} */
          const records = COUNTS.map((count) =>
            judgeEstimator({ reference, glass: { resolutionKmh, rounding }, count, speeds }, SETS),
          );
          say(
            `${speeds.padEnd(9)}${rounding.padEnd(10)}${`${resolutionKmh} km/h`.padEnd(9)}${reference.name.padEnd(15)}${records.map(({ coverage, overBound, bias }, i) => `n=${COUNTS[i]}: ${(coverage * 100).toFixed(1)} % ${overBound.toFixed(2)} ${bias.toFixed(2)}`).join('  ')}`,
          );
          for (const { coverage, overBound, bias } of records) {
            if (speeds === 'spread')
              [worst.least, worst.most, worst.over] = [
                Math.min(worst.least, coverage),
                Math.max(worst.most, coverage),
                Math.max(worst.over, overBound),
              ];
            else worst.repeated = Math.min(worst.repeated, coverage);
            worst.bias = Math.max(worst.bias, Math.abs(bias));
          }
        }
      }
    }
  }
  say('');
  const yardstick = 'the bound itself, or what is claimed';
  return [
    {
      what: 'Coverage of the 95 % interval, spread speeds, least',
      value: worst.least * 100,
      unit: '%',
      yardstick,
      yardstickValue: 95,
      limit: '93 to 98',
    },
    {
      what: 'Coverage of the 95 % interval, spread speeds, most',
      value: worst.most * 100,
      unit: '%',
      yardstick,
      yardstickValue: 95,
      limit: '93 to 98',
    },
    {
      what: 'Coverage of the 95 % interval, one speed repeated, least',
      value: worst.repeated * 100,
      unit: '%',
      yardstick,
      yardstickValue: 95,
      limit: 'at least 93',
    },
    {
      what: 'Error of the speed ratio over the Cramér-Rao bound, worst',
      value: worst.over,
      unit: 'times',
      yardstick,
      yardstickValue: 1,
      limit: 'at most 1.1',
    },
    {
      what: 'Bias of the speed ratio over its standard error, worst',
      value: worst.bias,
      unit: 'times',
      yardstick: 'the standard error',
      yardstickValue: 1,
      limit: 'at most 0.1',
    },
  ];
}

async function trackFigure() {
  const { rideInYard, gpxOf } = await source('core/testing/ride.ts');
  const text = gpxOf(
    rideInYard(Array.from({ length: 1000 }, (_, i) => ({ kmh: [10, 18, 24, 0][i % 4] ?? 0, seconds: 100 }))),
  );
  const rounds = Array.from({ length: 5 }, () => {
    let from = performance.now();
    const read = readTrack(text, 'UTC');
    const yardstickValue = performance.now() - from;
    if (!read.ok) throw new Error(read.problem.message);
    from = performance.now();
    const stretches = steadyStretches(smoothTrack(read.value[0]?.points ?? []).runs);
    return { value: performance.now() - from, yardstickValue, count: stretches.length };
  });
  const { value, yardstickValue } = rounds.toSorted((a, b) => a.value - b.value)[2] ?? { value: 0, yardstickValue: 1 };
  return {
    what: 'Steady stretches of a track of 100,000 points',
    value,
    unit: 'ms',
    yardstick: 'reading its 11 MB of GPX',
    yardstickValue,
    limit: 'under 1,000 ms',
  };
}

function choiceFigure() {
  const wheel = Array.from({ length: 80 }, (_, i) => ({ raw: i, mm: 1700 + 10 * i }));
  const pulses = Array.from({ length: 100 }, (_, i) => i + 1);
  const caps = Array.from({ length: 100 }, (_, i) => ({ raw: i, kmh: 5 + i * 0.5 }));
  const question = /** @type {const} */ ({
    ratio: { k: 0.963, low: 0.957, high: 0.969, wheelMm: 2075, pulses: 6 },
    wheel,
    pulses,
    caps,
    limitKmh: 25,
    overshootKmh: 0,
    tolerance: 0,
    shown: 'neverUnder',
  });
  const times = Array.from({ length: 21 }, () => {
    const from = performance.now();
    chooseWheelCodes(question);
    return performance.now() - from;
  }).toSorted((a, b) => a - b);
  const from = performance.now();
  JSON.stringify(chooseWheelCodes(question));
  return {
    what: 'Choice among 80 wheel codes x 100 pulses x 100 caps',
    value: times[10] ?? 0,
    unit: 'ms',
    yardstick: 'the same and written as JSON',
    yardstickValue: performance.now() - from,
    limit: 'under 20 ms',
  };
}
