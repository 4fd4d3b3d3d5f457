import {
  NEAR_LIMIT,
  type CalibrationOf,
  type NextReading,
  type SpeedRatioEstimate,
  type WheelCandidate,
} from '@decurio/core';

export const percent = (share: number, digits = 1): string => `${(share * 100).toFixed(digits)} %`;

/** `+3.7 %`, with a real minus sign. */
export function signedPercent(share: number): string {
  const size = Math.abs(share * 100).toFixed(1);
  return size === '0.0' ? '0.0 %' : `${share < 0 ? '−' : '+'}${size} %`;
}

/** Half the 95 % interval, as a share of the ratio. */
export const reachOf = ({ k, low, high }: Pick<SpeedRatioEstimate, 'k' | 'low' | 'high'>): number =>
  (high - low) / 2 / k;

/** `The display reads 3.7 % ± 0.6 % low`. */
export function readsWords(estimate: SpeedRatioEstimate): string {
  const off = estimate.k - 1;
  const reach = percent(reachOf(estimate));
  if (Math.abs(off) < 0.0005) return `The display reads true, ± ${reach}`;
  return `The display reads ${percent(Math.abs(off))} ± ${reach} ${off < 0 ? 'low' : 'high'}`;
}

const candidateName = ({ wheel, cap }: WheelCandidate): string => (cap ? `${wheel.raw}·${cap.raw}` : String(wheel.raw));

/** Whether the readings are enough, or what the next one is for. */
export function nextWords(
  next: NextReading,
  { estimate, question }: Pick<CalibrationOf, 'estimate' | 'question'>,
): string {
  if (next.isEnough)
    return `± ${estimate ? percent(reachOf(estimate)) : '?'} is tight enough to choose${next.why === 'decided' ? '' : '; one more would not change it'}`;
  switch (next.why) {
    case 'none':
      return `Begin at about ${next.atKmh} km/h: that is where the cap will act`;
    case 'noneNearLimit':
      return `One at about ${next.atKmh} km/h: none lies at ${NEAR_LIMIT * 100} % of the limit${question?.limitKmh ? '' : ' or above'} yet`;
    case 'noneSlow':
      return `One at about ${next.atKmh} km/h: a slow one shows whether the display is off by a fixed amount`;
    case 'few':
      return `One more at about ${next.atKmh} km/h; three are the fewest`;
    case 'undecided':
      return `One more at about ${next.atKmh} km/h decides${next.between ? ` between ${candidateName(next.between[0])} and ${candidateName(next.between[1])}` : ''}`;
  }
}
