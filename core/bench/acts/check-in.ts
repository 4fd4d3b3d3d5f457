import { checkPack } from '../../electrical/check-pack.js';
import { PHOTO_SUBJECTS, type Entry, type EntryOf, type PhotoSubject } from '../evidence.js';
import { refusal, type Refusal } from '../refusals.js';
import type { VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';
import { checksMissing } from './checks.js';
import { advance } from './support.js';

const UNSAFE_PACK =
  'Pack is swollen, wet, hot or damaged. Do not power or charge it. It stands apart, outdoors, and goes to whoever is qualified.';

/** A pack that must not be powered stops the unit here, whatever else was typed. */
export const checkedIn: ActOf<'checkedIn'> = {
  refuses: (state, { data }) =>
    packStops(state, data) === null ? (photosMissing(state, 'checkIn') ?? checksMissing(state, 'checkIn')) : null,
  then: (state, deed) => {
    const next = { ...advance(state, 'checkIn', deed), checkedIn: deed.data };
    const [pack, damage] = [packStops(state, deed.data), damageStops(state, deed.data)];
    const stop = pack !== null ? ({ reason: 'pack', words: pack } as const) : damage;
    return stop === null ? next : { ...next, held: { ...stop, at: deed.at, by: deed.by } };
  },
};

/** Why a pack that was looked at and measured must not be powered; null where it may. */
export function packStops(
  { opened }: VisitState,
  { packV, packCondition }: { readonly packV: number; readonly packCondition: 'sound' | 'unsafe' },
): string | null {
  if (packCondition === 'unsafe') return UNSAFE_PACK;
  const check = checkPack(opened.pack, packV);
  if (!check.ok) return check.problem.message;
  const { verdict, holds, says } = check.value;
  const isStopped = opened.bench?.packRule === 'perCell' ? holds : verdict === 'tooHigh';
  return isStopped ? `Pack reads ${packV.toFixed(1)} V. ${says}` : null;
}

/** Held where a pack that was just measured must not be powered; else as it was. */
export function stoppedByPack(
  state: VisitState,
  read: Parameters<typeof packStops>[1],
  { at, by }: Pick<Entry, 'at' | 'by'>,
): VisitState {
  const words = packStops(state, read);
  if (words === null) return state;
  return {
    ...state,
    checkedIn: state.checkedIn && { ...state.checkedIn, packV: read.packV, packCondition: read.packCondition },
    held: { reason: 'pack', words, at, by },
  };
}

/** What was seen on the vehicle, or not looked at, that keeps hands and power off until a lead has decided. */
function damageStops(
  { opened }: VisitState,
  { cablesFree, clampSound }: EntryOf<'checkedIn'>['data'],
): { readonly reason: 'damage'; readonly words: string } | null {
  const found = [
    ...(cablesFree ? [] : ['a cable is pinched, or nobody looked']),
    ...(clampSound ? [] : ['the display clamp is overtightened, or nobody looked']),
  ];
  if (opened.bench?.damageHolds !== true || found.length === 0) return null;
  const says = found.join('; ');
  return {
    reason: 'damage',
    words: `${says.charAt(0).toUpperCase()}${says.slice(1)}. It is not powered until a lead has decided.`,
  };
}

/** The pack looked at and measured once more, as after it was charged under somebody's eyes. */
export const packMeasured: ActOf<'packMeasured'> = {
  closed: ({ checkedIn: first }) => (first === null ? refusal('notCheckedIn') : null),
  then: (state, { data: { packV, packCondition }, at, by }) => {
    const next = { ...state, checkedIn: state.checkedIn && { ...state.checkedIn, packV, packCondition } };
    const isOther = state.held !== null && state.held.reason !== 'pack';
    return isOther ? next : stoppedByPack(next, { packV, packCondition }, { at, by });
  },
};

/** Photographs that house rules ask for at this step and that are not there yet. */
export function missingPhotos({ opened, photos }: VisitState, step: 'checkIn' | 'readBack'): readonly PhotoSubject[] {
  return (opened.bench?.photos[step] ?? []).filter(
    (subject) => !photos.some((photo) => photo.subject === subject && photo.during === step),
  );
}

/** Refuses to close a step while its photographs are missing. */
export function photosMissing(state: VisitState, step: 'checkIn' | 'readBack'): Refusal | null {
  const missing = missingPhotos(state, step);
  if (missing.length === 0) return null;
  return refusal('photosMissing', missing.map((subject) => PHOTO_SUBJECTS[subject].toLowerCase()).join(', the '));
}

export const photographed: ActOf<'photographed'> = {
  refuses: ({ photos }, { data }) =>
    photos.some(({ photoId }) => photoId === data.photoId) ? refusal('photographedAlready') : null,
  then: (state, { data }) => ({ ...state, photos: [...state.photos, { ...data, during: state.step }] }),
};
