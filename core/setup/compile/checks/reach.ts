import type { DisplayMap } from '../../../display/map/display-map.js';
import { kmhWords } from '../../../speed/speed.js';
import { carriesClaim, finding, willShow, withFunction, type Draft, type Drafted } from '../draft.js';
import type { Finding, Setup } from '../../setup.js';
import { ratioAsKeyed } from '../counts.js';
import { mayBeNoCap, unitOf } from '../wish.js';
import { beyondCap, kmhPerRaw } from '../wishes/speed.js';

interface Reach {
  /** As the display counts. */
  readonly kmh: number;
  readonly where: string;
  /** Where drive ends against the ground: as expected, and at worst; by what motor and pack attain where that is less. */
  readonly ends: Ends;
}

interface Ends {
  readonly kmh: number;
  readonly worst: number;
}

/** What lets drive run to some speed: a share of what is attained, or a figure that the display counts. */
interface Through {
  readonly kmh: number;
  readonly isShare: boolean;
}

/** What a cap code will let through, km/h; Infinity for no cap, or where nothing is claimed of it. */
function letsThrough(draft: Draft, drafted: Drafted): Through {
  const raw = willShow(draft, drafted);
  const per = kmhPerRaw(drafted.code, draft.work);
  const isShare = unitOf(drafted.code) === '%';
  return !carriesClaim(drafted.code) || per === undefined || mayBeNoCap(drafted.code, raw)
    ? { kmh: Infinity, isShare }
    : { kmh: raw * per, isShare };
}

const least = (all: readonly Through[]): Through =>
  all.reduce((a, b) => (b.kmh < a.kmh ? b : a), { kmh: Infinity, isShare: false });

/** Where drive ends against the ground, by the unit as it will stand: (V + e) / k, and at worst (V + e) / k_low. */
function endsOf({ work }: Draft, all: readonly Through[]): Ends {
  const over = beyondCap(work).kmh;
  const asKeyed = ratioAsKeyed(work);
  const ratio = asKeyed.isKnown ? (asKeyed.ratio ?? { k: 1, low: 1 }) : { k: 0, low: 0 };
  const at = (by: number): number =>
    Math.min(
      work.type.attainableKmh,
      ...all.map(({ kmh, isShare }) => (isShare ? kmh + over : by > 0 ? (kmh + over) / by : Infinity)),
    );
  return { kmh: at(ratio.k), worst: at(ratio.low) };
}

/** Every combination of mode and turbo that a rider can reach, with its greatest speed: turbo lifts whatever caps a mode. */
function reaches(draft: Draft): readonly Reach[] {
  const { map, type } = draft.work;
  const whole = withFunction(draft, 'speedCap').map((cap) => letsThrough(draft, cap));
  const overall = least(whole).kmh;
  const ridden = map.ride?.modes?.list ?? [];
  if (ridden.length === 0)
    return overall === Infinity
      ? []
      : [{ kmh: Math.min(overall, type.attainableKmh), where: '', ends: endsOf(draft, whole) }];
  return ridden.flatMap(({ id, title }) => {
    const own = draft.codes.filter(({ code }) => modeOf(map).get(code.label) === id);
    const turbo = own.find(({ code }) => code.function === 'modeTurbo');
    const turboOn = turbo !== undefined && isOn(turbo, willShow(draft, turbo));
    const caps = [
      ...whole,
      ...own.filter(({ code }) => code.function === 'modeSpeedPercent').map((cap) => letsThrough(draft, cap)),
    ];
    const capped = least(caps).kmh;
    if (!turboOn && capped === Infinity) return [];
    return [
      {
        kmh: turboOn ? type.attainableKmh : Math.min(capped, type.attainableKmh),
        where: `mode ${title}${turbo ? `, turbo ${turboOn ? 'on' : 'off'}` : ''}`,
        ends: endsOf(draft, turboOn ? [] : caps),
      },
    ];
  });
}

const modes = new WeakMap<DisplayMap, ReadonlyMap<string, string>>();

/** In which ride mode's list a code stands. */
function modeOf(map: DisplayMap): ReadonlyMap<string, string> {
  const kept = modes.get(map);
  if (kept) return kept;
  const listed = (map.menu?.pages ?? []).flatMap(({ mode, items }) =>
    mode === undefined ? [] : items.flatMap((item) => ('code' in item ? [[item.code, mode] as const] : [])),
  );
  const byLabel = new Map(listed);
  modes.set(map, byLabel);
  return byLabel;
}

const isOn = ({ code }: Drafted, raw: number): boolean =>
  code.encoding.kind === 'table'
    ? code.encoding.entries.find((entry) => entry.raw === raw)?.value !== 'off'
    : raw !== 0;

/** The worst a rider can reach, or undefined where some way is left that nothing caps. */
export function worstReach(draft: Draft): Setup['worst'] {
  const all = reaches(draft);
  const ways = draft.work.map.ride?.modes?.list.length ?? 0;
  if (all.length === 0 || all.length < ways) return undefined;
  const worst = all.reduce((a, b) => (b.kmh > a.kmh ? b : a));
  const isSame =
    all.length > 1 &&
    all.every(({ kmh, where }) => kmh === worst.kmh && where.endsWith('off') === worst.where.endsWith('off'));
  const drive =
    worst.where === ''
      ? 'Assist'
      : isSame
        ? `In every mode${worst.where.endsWith('turbo off') ? ', turbo off,' : ''} drive`
        : `At worst, in ${worst.where}, drive`;
  return { kmh: worst.kmh, says: `${drive} ends at ${kmhWords(worst.kmh)} as the display counts.` };
}

const WITHIN = 1 + 1e-9;

/** The combination that outruns the limit most against the ground, by the rule that caps are chosen by: a stated tolerance loosens the worst case alone. */
function beyondLimit(draft: Draft, limitKmh: number): Reach | undefined {
  const { tolerance } = draft.work.vehicleClass;
  const outruns = reaches(draft).filter(
    ({ ends }) => ends.worst > limitKmh * (1 + tolerance) * WITHIN || ends.kmh > limitKmh * WITHIN,
  );
  return outruns.reduce<Reach | undefined>(
    (a, b) => (a === undefined || b.ends.worst > a.ends.worst ? b : a),
    undefined,
  );
}

/** No cap that may be built on, a combination that outruns the limit, and a limit that cannot be shown to work. */
export function reachFindings(draft: Draft, worst: Setup['worst']): readonly Finding[] {
  const { limit, map, vehicleClass, type, terms } = draft.work;
  const findings: Finding[] = [];
  const uncapped = limit === null && terms.privateLand?.isUncapped === true;
  if (!worst && !uncapped) {
    const doubtful = withFunction(draft, 'speedCap').find(({ code }) => code.effect === 'unverified');
    findings.push(
      doubtful
        ? finding(
            'decide',
            'capUnverified',
            doubtful.code.label,
            `It is not verified that ${doubtful.code.label} caps the speed: nothing is claimed from it. The end speed must be measured.`,
          )
        : finding(
            'stop',
            'noCap',
            null,
            `${map.name} has no code that is known to cap the speed: ${vehicleClass.title} cannot be set on it.`,
          ),
    );
  }
  const beyond = limit ? beyondLimit(draft, limit.kmh) : undefined;
  if (beyond && limit && !(worst && worst.kmh > limit.kmh * WITHIN))
    findings.push(
      finding(
        'stop',
        'trueReach',
        null,
        `As it will stand, drive${beyond.where === '' ? '' : ` in ${beyond.where}`} may run to ${beyond.ends.worst.toFixed(1)} km/h against the ground, and ${kmhWords(limit.kmh)} is allowed.`,
      ),
    );
  if (worst && limit && worst.kmh > limit.kmh * WITHIN)
    findings.push(finding('stop', 'worstReach', null, `${worst.says} ${kmhWords(limit.kmh)} is allowed.`));
  if (limit && limit.kmh > type.attainableKmh)
    findings.push(
      finding(
        'decide',
        'aboveAttainable',
        null,
        `The limit of ${kmhWords(limit.kmh)} lies above the ${kmhWords(type.attainableKmh)} that motor and pack reach: the cap cannot be shown to work.`,
      ),
    );
  return findings;
}
