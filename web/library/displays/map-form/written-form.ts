import type { Problem } from '@decurio/core';

/** Where something stands in a map as it is written. */
export type Place = readonly (string | number)[];

type Json = unknown;

/** `codes[3].range`: a place as problems name it. */
export const pathOf = (place: Place): string =>
  place.map((step, i) => (typeof step === 'number' ? `[${step}]` : i === 0 ? step : `.${step}`)).join('');

export function valueAt(written: Json, place: Place): Json {
  return place.reduce<Json>(
    (value, step) =>
      typeof value === 'object' && value !== null && Object.hasOwn(value, step)
        ? (value as Record<string | number, Json>)[step]
        : undefined,
    written,
  );
}

/** The same with one value put there, or taken out where it is undefined; what is missing on the way is made. */
export function withValue(written: Json, place: Place, value: Json): Json {
  const [step, ...rest] = place;
  if (step === undefined) return value;
  if (typeof step === 'number') {
    const list: readonly Json[] = Array.isArray(written) ? written : [];
    if (rest.length === 0 && value === undefined) return list.filter((_, i) => i !== step);
    const next = withValue(list[step], rest, value);
    return step < list.length ? list.map((each, i) => (i === step ? next : each)) : [...list, next];
  }
  const fields = (typeof written === 'object' && written !== null ? written : {}) as Record<string, Json>;
  const changed = rest.length === 0 ? value : withValue(fields[step], rest, value);
  // What was wiped out to the last field stands there no more.
  const next = value === undefined && isEmpty(changed) ? undefined : changed;
  const others = Object.entries(fields).filter(([name]) => name !== step);
  if (next === undefined) return Object.fromEntries(others);
  return step in fields
    ? Object.fromEntries(Object.entries(fields).map(([name, own]) => [name, name === step ? next : own]))
    : { ...fields, [step]: next };
}

const isEmpty = (value: Json): boolean =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && Object.keys(value).length === 0;

/** What is wrong with what stands at a place, or within it. */
export function problemAt(problems: readonly Problem[], place: Place): string | null {
  const path = pathOf(place);
  const own = problems.find(
    ({ path: at = '' }) => at === path || at.startsWith(`${path}.`) || at.startsWith(`${path}[`),
  );
  return own?.message ?? null;
}

/** A map being written: what stands where, how it is changed, and what is wrong where. */
export interface WrittenForm {
  readonly written: Json;
  readonly at: (...place: Place) => Json;
  readonly put: (place: Place, value: Json) => void;
  /** Changes several places at once. */
  readonly change: (how: (written: Json) => Json) => void;
  readonly problem: (...place: Place) => string | null;
}

export const writtenForm = (
  written: Json,
  problems: readonly Problem[],
  onChange: (written: Json) => void,
): WrittenForm => ({
  written,
  at: (...place) => valueAt(written, place),
  put: (place, value) => onChange(withValue(written, place, value)),
  change: (how) => onChange(how(written)),
  problem: (...place) => problemAt(problems, place),
});

/** A list as written, or none where nothing of the kind stands there. */
export const listAt = (form: WrittenForm, ...place: Place): readonly Json[] => {
  const value = form.at(...place);
  return Array.isArray(value) ? value : [];
};

/** Least, greatest and step of a range, written either way. */
export function rangeIn(value: Json): readonly (number | undefined)[] {
  const amount = (each: Json) => (typeof each === 'number' ? each : undefined);
  if (Array.isArray(value)) return [0, 1, 2].map((i) => amount(value[i]));
  const fields = (typeof value === 'object' && value !== null ? value : {}) as Record<string, Json>;
  return [amount(fields['min']), amount(fields['max']), amount(fields['step'])];
}

/** The range as it is written shortest; undefined where nothing was typed. */
export function rangeOut([min, max, step]: readonly (number | undefined)[]): Json {
  if (min === undefined && max === undefined && step === undefined) return undefined;
  return step === undefined ? [min ?? 0, max ?? 0] : [min ?? 0, max ?? 0, step];
}
