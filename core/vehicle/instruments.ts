import { gaugeUnderEachClass } from '../electrical/voltage-class.js';
import type { DisplayMap } from '../display/map/display-map.js';
import type { Obeyed } from './obeyed-codes.js';
import { restedV, speedRatioOf, type Motion, type StandIn } from './motion.js';

const KMH_PER_MILE = 1.609344;

/** What the display and a meter say of a stand-in unit. */
export interface Instruments {
  /** As the glass shows it, in its own unit and rounding. */
  readonly speed: number;
  readonly unit: 'km/h' | 'mph';
  /** Percent; above 100 where the voltage class is too low; null where the display cannot tell. */
  readonly gaugePercent: number | null;
  /** By meter, at rest. */
  readonly meterV: number;
  /** The list as the display keeps it. */
  readonly errors: readonly string[];
}

export function instrumentsOf(unit: StandIn, map: DisplayMap, motion: Motion, obeyed: Obeyed): Instruments {
  const shownKmh = motion.trueKmh * speedRatioOf(unit, obeyed);
  const exact = obeyed.mph ? shownKmh / KMH_PER_MILE : shownKmh;
  const grid = 10 ** (map.speed?.decimals ?? 0);
  const speed =
    (map.speed?.rounding === 'truncated' ? Math.floor(exact * grid + 1e-9) : Math.round(exact * grid)) / grid;
  const meterV = restedV(unit, motion.chargePercent);
  return {
    speed,
    unit: obeyed.mph ? 'mph' : 'km/h',
    gaugePercent: gauge(unit, motion, obeyed),
    meterV: Math.round(meterV * 10) / 10,
    errors: unit.faults.errorRecurs ? ['E21'] : [],
  };
}

function gauge({ type: { pack }, faults }: StandIn, { packV }: Motion, { classV }: Obeyed): number | null {
  const classes = gaugeUnderEachClass(pack.chemistry, packV);
  const own = classes.findIndex(({ labelV }) => labelV === (classV ?? pack.labelV));
  const taken = classes[faults.gaugeOfOther ? Math.min(own + 1, classes.length - 1) : own];
  if (!taken) return null;
  if (taken.charge === null) return 110;
  return Math.round((taken.charge.fromPercent + taken.charge.toPercent) / 2);
}
