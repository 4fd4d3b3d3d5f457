import { inKmh, speedWords, type Speed } from '../../speed/speed.js';
import type { UnitOverride } from '../inputs/order-terms.js';
import type { SetupInputs } from '../inputs/setup-inputs.js';
import type { TrailSource, TrailStep } from '../setup.js';

/** The limit that holds, km/h true speed, and how it came about. */
export interface SpeedLimit {
  readonly kmh: number;
  /** In the unit it was laid down in. */
  readonly words: string;
  readonly because: string;
  readonly trail: readonly TrailStep[];
}

interface Asked {
  readonly from: TrailSource;
  readonly speed: Speed;
  /** `The site`, as a sentence begins. */
  readonly who: string;
  /** The figure itself is too fast already. */
  readonly isUnder?: boolean;
}

/** What has to stay under a limit keeps so far from it, as a share: less than any display tells. */
const UNDER = 1e-6;
const kmhOf = ({ speed, isUnder }: Asked): number => inKmh(speed) * (isUnder ? 1 - UNDER : 1);
const wordsOf = ({ speed, isUnder }: Asked): string => `${isUnder ? 'less than ' : ''}${speedWords(speed)}`;

/**
 * Lowest of class, site, order, type and the unit's own limit, each kept in the unit it was laid down in.
 * Null where nothing limits: only off public roads, and then the type's attainable speed is all there is.
 */
export function speedLimit({
  vehicleClass,
  terms,
  type,
  override,
}: Pick<SetupInputs, 'vehicleClass' | 'terms' | 'type'> & {
  readonly override: UnitOverride | null;
}): SpeedLimit | null {
  const asked: Asked[] = [
    ...one('class', 'The class', vehicleClass.limit).map((each) => ({
      ...each,
      isUnder: vehicleClass.limitIs === 'under',
    })),
    ...one('site', 'The site', terms.siteLimit),
    ...one('order', 'The order', terms.orderLimit),
    ...one('type', 'The type', type.speedLimit),
    ...one('unit', 'This unit', override?.limit ?? null),
  ];
  const [first, ...rest] = asked;
  if (!first) return null;
  let lowest = first;
  const trail: TrailStep[] = [{ from: first.from, says: `${wordsOf(first)}: ${first.who.toLowerCase()}.` }];
  for (const next of rest) {
    const [was, is] = [kmhOf(lowest), kmhOf(next)];
    const allows = `${next.who} ${next.from === 'order' || next.from === 'unit' ? 'asks' : 'allows'} ${speedWords(next.speed)}`;
    if (is < was) lowest = next;
    trail.push({
      from: next.from,
      says:
        is < was
          ? `${allows}, so ${speedWords(next.speed)}.`
          : is === was
            ? `${allows} too.`
            : `${allows}; ${wordsOf(lowest)} stands.`,
    });
  }
  return {
    kmh: kmhOf(lowest),
    words: wordsOf(lowest),
    because: trail.map(({ says }) => says).join(' '),
    trail: trail.map((step) => (step.from === lowest.from ? { ...step, decided: true } : step)),
  };
}

const one = (from: TrailSource, who: string, speed: Speed | null): Asked[] =>
  speed === null ? [] : [{ from, who, speed }];
