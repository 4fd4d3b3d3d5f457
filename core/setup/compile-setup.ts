import { mapTitle, type Code, type DisplayMap } from '../display/map/display-map.js';
import { functionTitle } from '../display/map/functions.js';
import { formatRaw } from '../display/map/raw-value.js';
import type { CodeTarget, Finding, Setup } from './setup.js';
import type { SetupInputs } from './setup-inputs.js';
import { speedLimit } from './speed-limit.js';
import { WISHES, type Wish } from './wishes.js';

/**
 * Works out a target, or "leave as found", for every code of the map, each with its reason, and the findings
 * that follow from the inputs alone. A meaning known by hearsay never becomes a target; a code whose effect is
 * not verified gets one, with a note that nothing is claimed from it.
 */
export function compileSetup(inputs: SetupInputs): Setup {
  const limit = speedLimit(inputs);
  const findings: Finding[] = [];
  const targets = inputs.map.codes.map((code) => {
    const wish = wishFor(code, inputs);
    findings.push(...findingsFor(code, wish));
    return {
      label: code.label,
      function: code.function,
      raw: wish.raw,
      locked: code.access === 'locked',
      because: wish.because,
      ...(isOffGlass(inputs.map, code) ? { offGlass: true } : {}),
    } satisfies CodeTarget;
  });
  findings.push(...missingCap(inputs, targets), ...unconfirmedMap(inputs.map));
  if (limit.kmh > inputs.type.attainableKmh) {
    findings.push({
      level: 'decide',
      label: null,
      says: `The limit of ${limit.kmh} km/h lies above the ${inputs.type.attainableKmh} km/h that motor and pack reach: the cap cannot be shown to work.`,
    });
  }
  return { targets, findings, limitKmh: limit.kmh };
}

function wishFor(code: Code, inputs: SetupInputs): Wish {
  if (code.source === 'hearsay') return { raw: null, because: 'Meaning known by hearsay only: stays as found.' };
  if (code.access === 'absent') return { raw: null, because: 'In the paper, not on this display.' };
  if (code.access === 'tool') return { raw: null, because: "Readable only with a maker's tool: stays as found." };
  if (code.access === 'never' || code.function === 'makersOnly') return { raw: null, because: 'Never touched: stays as found.' };
  if (code.encoding.kind === 'pair') return pairWish(code, code.encoding, inputs);
  const wish = WISHES[code.function];
  if (!wish) return { raw: null, because: `${functionTitle(code.function)}: nothing was promised, stays as found.` };
  return wish(code, inputs);
}

/** Two functions in one code: each half as if it stood alone, and a half nobody promised anything of as delivered. */
function pairWish(code: Code, { first, second }: Code['encoding'] & { kind: 'pair' }, inputs: SetupInputs): Wish {
  const halves = [first, second].map((half) => {
    const raws = half.entries.map((entry) => entry.raw);
    const alone: Code = { ...code, function: half.function, encoding: { kind: 'table', entries: half.entries }, range: { min: Math.min(...raws), max: Math.max(...raws), step: 1 } };
    return WISHES[half.function]?.(alone, inputs) ?? null;
  });
  const finding = halves.find((wish) => wish?.finding)?.finding;
  const because = halves.flatMap((wish) => (wish ? [wish.because] : [])).join('; ');
  if (halves.every((wish) => wish === null || wish.raw === null)) return { raw: null, because: because || 'Nothing was promised, stays as found.', ...(finding ? { finding } : {}) };
  const [a, b] = [halves[0]?.raw ?? Math.floor(code.factory / 10), halves[1]?.raw ?? code.factory % 10];
  return { raw: a * 10 + b, because, ...(finding ? { finding } : {}) };
}

function isOffGlass(map: DisplayMap, code: Code): boolean {
  if (code.access === 'absent' || code.access === 'tool') return true;
  const page = map.menu?.pages.find((p) => p.items.some((item) => 'code' in item && item.code === code.label));
  return page?.neverEnter !== undefined;
}

/** A draft map is practised and compared; nothing leaves under it. */
const unconfirmedMap = (map: DisplayMap): Finding[] =>
  map.confirmed ? [] : [{ level: 'stop', label: null, says: `The map of ${mapTitle(map)} is a draft: a second person confirms it on a real unit before anything leaves under it.` }];

function findingsFor(code: Code, wish: Wish): Finding[] {
  const findings: Finding[] = wish.finding ? [{ ...wish.finding, label: code.label }] : [];
  if (wish.raw !== null && code.effect === 'unverified') {
    findings.push({ level: 'note', label: code.label, says: `${code.label}: it is not verified that this code acts. Nothing is claimed from it.` });
  }
  if (wish.raw !== null && code.access === 'locked' && wish.raw !== code.factory) {
    const delivered = formatRaw(code, code.factory);
    findings.push({ level: 'decide', label: code.label, says: `${code.label} is locked and delivered at ${delivered}; it should be ${formatRaw(code, wish.raw)}.` });
  }
  return findings;
}

function missingCap({ map, vehicleClass }: SetupInputs, targets: readonly CodeTarget[]): Finding[] {
  if (targets.some((target) => target.function === 'speedCap')) return [];
  return [{ level: 'stop', label: null, says: `${map.name} has no code for the speed cap: ${vehicleClass.title} cannot be set on it.` }];
}
