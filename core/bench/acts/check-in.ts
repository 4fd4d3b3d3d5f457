import { checkPack } from '../../electrical/check-pack.js';
import { ok, refuse } from '../../result.js';
import { PHOTO_SUBJECTS, type DeedOf, type PhotoSubject } from '../evidence.js';
import type { VisitState } from '../visit-state.js';
import { advance, type Outcome } from './support.js';

const UNSAFE_PACK = 'Pack is swollen, wet or damaged. Do not power or charge it; it goes to whoever is qualified.';

/** A pack that must not be powered stops the unit here, whatever else was typed. */
export function checkIn(state: VisitState, deed: DeedOf<'checkedIn'>): Outcome {
  const { packV, packCondition } = deed.data;
  const words = packCondition === 'unsafe' ? UNSAFE_PACK : packTooHigh(state, packV);
  if (words === null) {
    const missing = missingPhotos(state, 'checkIn');
    if (missing.length > 0) return refuse('photosMissing', photosAsked(missing));
  }
  const next = { ...advance(state, deed), checkedIn: deed.data };
  return ok(words === null ? next : { ...next, held: { reason: 'pack', words, at: deed.at, by: deed.by } });
}

export function packTooHigh(state: VisitState, packV: number): string | null {
  const pack = checkPack(state.opened.pack, packV);
  return pack.verdict === 'tooHigh' ? `Pack reads ${packV.toFixed(1)} V. ${pack.says}` : null;
}

/** Photographs that house rules ask for at this step and that are not there yet. */
export function missingPhotos({ opened, photos }: VisitState, step: 'checkIn' | 'readBack'): readonly PhotoSubject[] {
  return (opened.bench?.photos[step] ?? []).filter(
    (subject) => !photos.some((photo) => photo.subject === subject && photo.during === step),
  );
}

export const photosAsked = (missing: readonly PhotoSubject[]): string =>
  `House rules ask for a photograph of the ${missing.map((subject) => PHOTO_SUBJECTS[subject].toLowerCase()).join(', the ')} first.`;

export function photograph(state: VisitState, { data }: DeedOf<'photographed'>): Outcome {
  if (state.photos.some(({ photoId }) => photoId === data.photoId))
    return refuse('notDue', 'This photograph is in the record already.');
  return ok({ ...state, photos: [...state.photos, { ...data, during: state.step }] });
}
