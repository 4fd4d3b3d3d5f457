import { inKmh, kmhWords, speedWords } from '../../../speed/speed.js';
import { carriesClaim, finding, willMean, withFunction, type Draft } from '../draft.js';
import type { Finding } from '../../setup.js';
import { throttlePermission } from '../throttle-permission.js';

/** Where drive mode, start, scope, class and what is fitted speak against one another, or make a throttle look dead. */
export function throttleFindings(draft: Draft): readonly Finding[] {
  const { type, vehicleClass } = draft.work;
  if (!type.throttleFitted) return [];
  const permission = throttlePermission(draft.work);
  const pedalOnly = willMean(draft, 'driveMode', 'pedal');
  if (!permission.allowed) {
    if (mustUnplug(draft))
      return [
        finding(
          'decide',
          'unplugThrottle',
          null,
          `${permission.why.says}, one is fitted, and no code of this display switches it off. Unplug it at its connector, close the connector against water, and prove that it is dead.`,
        ),
      ];
    const start = willMean(draft, 'standstillStart', 'live');
    return start === true && pedalOnly === true
      ? [
          finding(
            'note',
            'startMoot',
            labelOf(draft, 'standstillStart'),
            `${labelOf(draft, 'standstillStart')} says live, and in pedal-only mode the throttle is dead whatever it says.`,
          ),
        ]
      : [];
  }
  return [
    ...startFindings(draft, pedalOnly === true),
    ...speedFindings(draft, permission.toKmh),
    ...(vehicleClass.throttleFrom === 'standstill' ? [] : startsTooSoon(draft, vehicleClass.throttleFrom)),
  ];
}

const labelOf = (draft: Draft, fn: 'standstillStart' | 'driveMode' | 'zeroLevel'): string =>
  withFunction(draft, fn)[0]?.code.label ?? '';

function startFindings(draft: Draft, pedalOnly: boolean): readonly Finding[] {
  const start = labelOf(draft, 'standstillStart');
  const findings: Finding[] = [];
  if (pedalOnly)
    findings.push(
      finding(
        'note',
        'throttleOff',
        labelOf(draft, 'driveMode'),
        `${labelOf(draft, 'driveMode')} is pedal only: the throttle that is fitted does nothing.`,
      ),
    );
  const pedalFirst = willMean(draft, 'standstillStart', 'pedalFirst') === true;
  if (pedalFirst && draft.work.type.kind === 'scooter') {
    findings.push(
      finding(
        'stop',
        'noPedals',
        start,
        `${start} waits for pedals, and a scooter has none: it would never start. Choose another start.`,
      ),
    );
  } else if (pedalFirst && willMean(draft, 'driveMode', 'throttle') === true) {
    findings.push(
      finding(
        'decide',
        'neverStarts',
        start,
        `${start} waits for the pedals, and ${labelOf(draft, 'driveMode')} takes no notice of them: the throttle would never work. Choose another start, or both drives.`,
      ),
    );
  } else if (!pedalOnly && pedalFirst)
    findings.push(
      finding('note', 'seemsDead', start, 'The throttle seems dead until the pedals turn. Tell whoever collects it.'),
    );
  else if (!pedalOnly && willMean(draft, 'standstillStart', 'rolling') === true)
    findings.push(
      finding(
        'note',
        'seemsDead',
        start,
        'The throttle does nothing until the vehicle rolls. Tell whoever collects it.',
      ),
    );
  if (!pedalOnly && willMean(draft, 'zeroLevel', 'on') === true && willMean(draft, 'throttleScope', 'full') !== true) {
    findings.push(
      finding(
        'note',
        'zeroLevelDead',
        labelOf(draft, 'zeroLevel'),
        'At level 0 the throttle may be dead too. Tell whoever collects it.',
      ),
    );
  }
  return findings;
}

/** A throttle that a class ends earlier than the pedals' assist needs a cap of its own. */
function speedFindings(draft: Draft, toKmh: number): readonly Finding[] {
  const { limit, vehicleClass } = draft.work;
  const limitKmh = limit?.kmh ?? Infinity;
  const own = withFunction(draft, 'throttleCap').filter(
    ({ code, wish }) => carriesClaim(draft, code) && wish.raw !== null,
  );
  if (toKmh >= limitKmh || own.length > 0 || willMean(draft, 'driveMode', 'pedal') === true || !vehicleClass.throttleTo)
    return [];
  const says = `The class ends the throttle at ${speedWords(vehicleClass.throttleTo)} and assist at ${kmhWords(limitKmh)}; this display has one cap for both. Pedal-only mode, or an order limit of ${speedWords(vehicleClass.throttleTo)}.`;
  return [finding(inKmh(vehicleClass.throttleTo) < limitKmh ? 'stop' : 'note', 'throttleTooFast', null, says)];
}

/** Drive from a motion that the class does not allow, or of which nobody knows. */
function startsTooSoon(draft: Draft, from: 'decide' | 'rolling' | 'pedalling'): readonly Finding[] {
  const live = willMean(draft, 'standstillStart', 'live');
  const label = labelOf(draft, 'standstillStart');
  const rule = {
    decide: 'whether drive from standstill is allowed differs from place to place',
    rolling: 'the class allows no drive from standstill',
    pedalling: 'the class lets the throttle drive only while the pedals turn',
  }[from];
  if (live === undefined)
    return [
      finding(
        'decide',
        'startUnknown',
        null,
        `No code of this display says whether the throttle works from standstill, and ${rule}. Try it on the stand.`,
      ),
    ];
  if (live)
    return [
      finding(
        from === 'decide' ? 'decide' : 'stop',
        'liveStart',
        label,
        `${label} makes the throttle live from standstill, and ${rule}.`,
      ),
    ];
  const isRolling = willMean(draft, 'standstillStart', 'rolling') === true;
  return from === 'pedalling' && isRolling
    ? [finding('stop', 'liveStart', label, `${label} makes the throttle live once rolling, and ${rule}.`)]
    : [];
}

/** No code answers for a throttle that must not work. */
export function mustUnplug(draft: Draft): boolean {
  return (
    !throttlePermission(draft.work).allowed &&
    draft.work.type.throttleFitted &&
    !withFunction(draft, 'driveMode').some(({ code }) => carriesClaim(draft, code))
  );
}
