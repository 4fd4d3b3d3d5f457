import { CELL_VOLTS } from '../electrical/cell.js';
import { gaugeUnderEachClass } from '../electrical/voltage-class.js';
import type { Observation, ProvingTest } from '../prove/proving-test.js';
import type { LabelledPack } from '../setup/inputs/vehicle-type.js';

/** True speed below what is expected, as a share, at which drive ends on one in order. */
const SLOWER = 0.97;
/** Volts under full that a rested cell shows. */
const RESTED_OFF_V = 0.05;

/**
 * What somebody would see of a vehicle in order: the demo and the tests are proved by it.
 * @param noise a standard normal number, by which speeds scatter
 */
export function shownInOrder({ watch }: Pick<ProvingTest, 'watch'>, pack: LabelledPack, noise = 0): Observation {
  switch (watch.kind) {
    case 'outcome':
      return { kind: 'outcome', outcome: watch.right[0] ?? '' };
    case 'speed': {
      const kmh = Math.min(watch.predictedKmh ?? Infinity, watch.limitKmh) * SLOWER;
      return {
        kind: 'speed',
        trueKmh: Math.round((kmh + 0.06 * noise) * 100) / 100,
        uKmh: 0.08,
        uCommon: 0.0027,
        reference: 'roller 105 mm',
      };
    }
    case 'seconds':
    case 'turns':
      return { kind: watch.kind, figure: Math.min(watch.most, watch.kind === 'turns' ? 1 : 0.5) };
    case 'metres':
      return { kind: 'metres', metres: 4.2, besideMetres: 4.5 };
    case 'gauge': {
      const meterV = Math.round((CELL_VOLTS[pack.chemistry].restedFullV - RESTED_OFF_V) * pack.cellsInSeries * 10) / 10;
      const charge = gaugeUnderEachClass(pack.chemistry, meterV).find(({ labelV }) => labelV === pack.labelV)?.charge;
      return {
        kind: 'gauge',
        meterV,
        shown: watch.as === 'volts' ? meterV : Math.round(charge ? (charge.fromPercent + charge.toPercent) / 2 : 95),
      };
    }
    case 'errors':
      return { kind: 'errors', shown: [] };
  }
}
