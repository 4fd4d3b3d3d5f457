import { kmhWords } from '../../../speed/speed.js';
import { finding, withFunction, type Draft } from '../draft.js';
import type { Finding, Setup } from '../../setup.js';
import { ridesOf, type Ends } from '../rides.js';

interface Reach {
  /** As the display counts. */
  readonly kmh: number;
  readonly where: string;
  /** Where drive ends against the ground: as expected, and at worst; by what motor and pack attain where that is less. */
  readonly ends: Ends;
}

/** Every combination of mode and turbo that a rider can reach and that something caps, with its greatest speed. */
function reaches(draft: Draft): readonly Reach[] {
  const { attainableKmh } = draft.work.type;
  return ridesOf(draft).flatMap(({ mode, turbo, act, kmh, ends }) =>
    turbo !== 'on' && kmh === Infinity
      ? []
      : [
          {
            kmh: Math.min(kmh, attainableKmh),
            where: [mode ? `mode ${mode.title}` : '', act ? `${act} on` : mode && turbo ? `turbo ${turbo}` : '']
              .filter((part) => part !== '')
              .join(', '),
            ends,
          },
        ],
  );
}

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
  if (limit && map.instructions?.lasts === 'whileAttached')
    findings.push(
      finding(
        'decide',
        'whileAttached',
        null,
        `The cap holds only while ${map.instructions.via} stays attached: whoever takes it off rides without a limit.`,
      ),
    );
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
