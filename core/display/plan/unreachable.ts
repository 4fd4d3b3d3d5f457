import type { Code, KeyedMap } from '../map/display-map.js';
import { settableValues, type DisplayState, type RawValues } from '../machine/display-state.js';
import type { Unreachable } from './key-plan.js';
import { codeNow } from '../map/range-in-unit.js';
import { formatRaw, onGrid } from '../map/raw-value.js';

/** Targets that this map rules out before any search, each with the reason in a technician's words. */
export function outOfReach(map: KeyedMap, from: DisplayState, targets: RawValues): readonly Unreachable[] {
  const known = new Set(map.codes.map(({ label }) => label));
  const unknown = Object.keys(targets).filter((label) => !known.has(label));
  const barred = map.codes.flatMap((code) => {
    const target = targets[code.label];
    if (target === undefined || target === from.stored[code.label]) return [];
    const why = reason(map, from, code, target, targets);
    return why === null ? [] : [{ label: code.label, why }];
  });
  return [...unknown.map((label) => ({ label, why: `There is no code ${label} on this display.` })), ...barred];
}

function reason(map: KeyedMap, from: DisplayState, code: Code, target: number, targets: RawValues): string | null {
  const { label } = code;
  switch (code.access) {
    case 'locked':
      return `${label} is locked on this display.`;
    case 'tool':
      return `${label} can be read with the maker's tool only.`;
    case 'never':
      return `${label} is never touched: it stays as found.`;
    case 'absent':
      return `${label} is in the paper, not on this display.`;
    case 'open':
    case 'pin':
  }
  const pages = map.menu.pages.filter((page) => page.items.some((item) => 'code' in item && item.code === label));
  if (pages.length === 0) return `${label} stands on no page of this menu.`;
  const closed = pages.find((page) => page.neverEnter !== undefined);
  if (closed && pages.length === 1)
    return `${label} stands on ${closed.title}, which is not entered: ${closed.neverEnter}`;
  if (!onGrid(codeNow(code, { ...from.stored, ...targets }), target) || code.skips?.includes(target) === true)
    return `${label} cannot be set to ${formatRaw(code, target)}.`;
  return boundReason(map, from, code, target, targets);
}

function boundReason(map: KeyedMap, from: DisplayState, code: Code, target: number, targets: RawValues): string | null {
  const end = { stored: { ...from.stored, ...targets } };
  if (code.encoding.kind === 'pair' || settableValues(map, end, code).includes(target)) return null;
  const by = map.codes.find((other) => other.influences?.some((i) => i.kind === 'limits' && i.code === code.label));
  return `${code.label} cannot be set to ${formatRaw(code, target)} while ${by?.label ?? 'another code'} is at ${by ? formatRaw(by, end.stored[by.label] ?? 0) : 'its value'}.`;
}
