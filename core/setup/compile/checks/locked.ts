import type { Code } from '../../../display/map/display-map.js';
import { rawForWord, valueWords } from '../../../display/map/raw-value.js';
import { gaugeUnderEachClass, percentWords } from '../../../electrical/voltage-class.js';
import { kmhWords } from '../../../speed/speed.js';
import { finding } from '../draft.js';
import { CAPS, COMFORT } from '../function-groups.js';
import type { Finding } from '../../setup.js';
import { throttlePermission } from '../throttle-permission.js';
import { mayBeNoCap, type Wish, type Work } from '../wish.js';
import { currentOf } from '../wishes/power.js';
import { kmhPerRaw } from '../wishes/speed.js';

const STANDS: Partial<Record<Code['access'], string>> = {
  locked: 'is locked',
  never: 'is never touched',
  tool: "wants a maker's tool",
};

/**
 * A code that shows a value and is not moved, where another was wanted: what that would mean on the road.
 * @param wish what it would be set to if it could be
 */
export function lockedFinding(code: Code, wish: Wish, work: Work): Finding | null {
  const { raw } = wish;
  const stands = STANDS[code.access];
  if (stands === undefined || raw === null) return null;
  const found = work.found(code);
  if (found === raw) return null;
  const at = `${code.label} ${stands}${work.unit.asFound?.[code.label] === undefined ? ' and delivered' : ' and stands'} at ${valueWords(code, found)}`;
  const should = `it should be ${valueWords(code, raw)}`;
  if (COMFORT.has(code.function)) return finding('note', 'locked', code.label, `${at}; ${should}. It stays so.`);
  if (CAPS.has(code.function)) return lockedCap(code, found, raw, at, work);
  if (
    code.function === 'driveMode' &&
    !throttlePermission(work).allowed &&
    work.type.throttleFitted &&
    found !== rawForWord(code, 'pedal')
  ) {
    return finding(
      'stop',
      'locked',
      code.label,
      `${at}: the throttle would work, and ${lowerFirst(throttlePermission(work).why.says)}.`,
    );
  }
  if (code.function === 'currentLimit' && found > raw) {
    return finding(
      currentOf(work).decidedBy === 'power' ? 'stop' : 'decide',
      'locked',
      code.label,
      `${at}; ${should}. The motor would draw more than ${currentOf(work).decidedBy === 'power' ? 'the class' : `the ${currentOf(work).decidedBy}`} allows.`,
    );
  }
  if (code.function === 'cutoffVoltage')
    return finding(
      found < raw ? 'stop' : 'decide',
      'locked',
      code.label,
      `${at}; ${should}. ${found < raw ? 'Cells would be run too low.' : 'The ride would end earlier.'}`,
    );
  if (code.function === 'nominalVoltage')
    return finding('stop', 'locked', code.label, `${at}; ${should}. ${gaugeWouldShow(code, found, work)}`);
  return finding('decide', 'locked', code.label, `${at}; ${should}.`);
}

function lockedCap(code: Code, found: number, raw: number, at: string, work: Work): Finding {
  const per = kmhPerRaw(code, work) ?? 1;
  const [would, should] = [kmhWords(found * per), kmhWords(raw * per)];
  const drive = code.function === 'throttleCap' ? 'The throttle' : 'Assist';
  if (mayBeNoCap(code, found))
    return finding('stop', 'locked', code.label, `${at}: nothing would end assist at ${should}.`);
  if (work.limit !== null && found * per > work.limit.kmh * (1 + 1e-9))
    return finding(
      'stop',
      'locked',
      code.label,
      `${at}: ${drive.toLowerCase()} would run to ${would}, and ${kmhWords(work.limit.kmh)} is allowed.`,
    );
  return finding(
    'decide',
    'locked',
    code.label,
    `${at}: ${drive.toLowerCase()} would end at ${would} instead of ${should}.`,
  );
}

function gaugeWouldShow(code: Code, found: number, { type, unit }: Work): string {
  const volts = unit.packV ?? type.pack.labelV;
  const labelV =
    code.encoding.kind === 'table' ? Number(code.encoding.entries.find((entry) => entry.raw === found)?.value) : found;
  const under = gaugeUnderEachClass(type.pack.chemistry, volts).find((gauge) => gauge.labelV === labelV);
  if (!under) return 'Gauge and cut-off would not be those of this pack.';
  const shows = {
    'more than full': 'more than full',
    empty: 'empty',
    plausible: `${under.charge ? percentWords(under.charge) : '0'} %`,
  }[under.says];
  return `At ${volts} V its gauge would show ${shows}; the cut-off would not be this pack's.`;
}

const lowerFirst = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
