import { PARTS, PHOTO_SUBJECTS } from './evidence.js';
import { STEPS, stepTitle } from './steps.js';
import type { VisitState } from './visit-state.js';

/** Steps that were left out of a visit, as a person reads them; handing over comes after the seal. */
export function stepsLeftOut({ opened, byHand }: VisitState): readonly string[] {
  return STEPS.filter(({ id }) => (!opened.steps.includes(id) && id !== 'handOver') || byHand.some(({ step, done }) => step === id && !done)).map(({ title }) => title.toLowerCase());
}

/** What a visit's papers repeat beyond its codes: what was done by other means, let stand, replaced and photographed. */
export function whatStands({ byHand, accepted, parts, photos, carriedKm, surprises, found }: VisitState): readonly string[] {
  const read = Object.keys(found).length;
  return [
    ...(read > 0 ? [`${read} codes were read as found before any was touched; ${surprises.length === 0 ? 'all were as expected' : surprises.map(({ says }) => says).join(' ')}${surprises.length === 0 ? '.' : ''}`] : []),
    ...Object.entries(accepted).map(([label, { words, by }]) => `${label} differs from its target and stays as it shows. Accepted by ${by}: ${words}`),
    ...parts.map(({ part, words, by }) => `${PARTS[part]} replaced by ${by.name}: ${words}`),
    ...(carriedKm > 0 ? [`Kilometres on an odometer that is not on the vehicle any more: ${carriedKm}.`] : []),
    ...byHand.filter(({ done }) => done).map(({ step, words }) => `${stepTitle(step)}, done by other means: ${words}`),
    ...(photos.length > 0 ? [`Photographs kept with their hashes: ${photos.map(({ subject }) => PHOTO_SUBJECTS[subject].toLowerCase()).join(', ')}.`] : []),
  ];
}
