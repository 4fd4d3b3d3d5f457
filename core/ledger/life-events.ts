import type { Evidence } from '../bench/evidence.js';
import { HOLD_REASONS } from '../bench/evidence.js';
import { PAPERS, type HandoverEntry } from '../handover/handover.js';
import { PARTS } from '../setup/inputs/parts.js';
import { receivedAtOf } from './seal.js';

/** Something of note in the life of a unit. */
export interface LifeEvent {
  /** ISO 8601 in UTC, by the server's clock. */
  readonly at: string;
  readonly by: string;
  readonly kind: 'begun' | 'held' | 'changed' | 'sealed' | 'out' | 'back' | 'stored' | 'ended';
  readonly says: string;
}

/**
 * What is worth telling of a visit a year later, oldest first: neither each code nor each look, but what it was begun
 * for, what held it, what was changed on it, its seal, and where it went.
 * @param evidence every entry of the visit
 * @param handover what was handed over and came back since
 */
export function lifeEvents(evidence: readonly Evidence[], handover: readonly HandoverEntry[]): readonly LifeEvent[] {
  const undone = new Set(evidence.flatMap((entry) => (entry.kind === 'undone' ? [entry.data.voids] : [])));
  return [
    ...evidence.flatMap((entry) => {
      const event = undone.has(entry.id) ? null : atTheBench(entry);
      return event === null ? [] : [{ at: receivedAtOf(entry), by: entry.by.name, ...event }];
    }),
    ...handover.flatMap((entry) => {
      const event = afterwards(entry);
      return event === null ? [] : [{ at: entry.at, by: entry.by.name, ...event }];
    }),
  ];
}

type Said = Pick<LifeEvent, 'kind' | 'says'>;

const said = (kind: LifeEvent['kind'], says: string): Said => ({ kind, says });
const withWords = (head: string, words: string): string => (words === '' ? `${head}.` : `${head}: ${words}`);

function atTheBench(entry: Evidence): Said | null {
  switch (entry.kind) {
    case 'opened': {
      const { order, follows } = entry.data;
      return said('begun', withWords(`Begun for ${order.customer}, order ${order.number}`, follows?.why ?? ''));
    }
    case 'setupRevised':
      return said('changed', withWords('Worked out anew', entry.data.why));
    case 'checkedIn':
      return entry.data.odometerKm === null ? null : said('begun', `Checked in at ${entry.data.odometerKm} km.`);
    case 'numberClash':
      return said('held', `Its number ${entry.data.number} is noted at ${entry.data.serial} too.`);
    case 'noticed':
      return said('held', withWords(`Notice ${entry.data.notice.name}`, entry.data.says));
    case 'held':
      return said('held', withWords(`Held, ${HOLD_REASONS[entry.data.reason]}`, entry.data.words));
    case 'released':
      return said('held', withWords('Released', entry.data.words));
    case 'partReplaced':
      return said('changed', withWords(`${PARTS[entry.data.part]} replaced`, entry.data.words));
    case 'proofLeft':
      return said('changed', withWords('A proof was left out', entry.data.words));
    case 'wentBack':
      return said('changed', withWords('Went back to be mended', entry.data.words));
    case 'withdrawn':
      return said('ended', withWords('Withdrawn', entry.data.words));
    case 'signedOff':
      return said('sealed', withWords('Signed off and sealed', entry.data.words));
    default:
      return null;
  }
}

function afterwards(entry: HandoverEntry): Said | null {
  switch (entry.kind) {
    case 'paperMade':
      return entry.data.paper === 'certificate' ? said('out', `${PAPERS.certificate} made.`) : null;
    case 'labelFixed':
      return said('out', `Class label fixed: ${entry.data.where}`);
    case 'packStored':
      return said('stored', `Its pack stands at ${entry.data.packV} V, put away.`);
    case 'packTaken':
      return said('stored', `Out of storage, its pack at ${entry.data.packV} V.`);
    case 'received':
      return said('out', `Handed over to ${entry.data.name}, signed.`);
    case 'unsigned':
      return said('out', withWords(`Handed over to ${entry.data.name} without a signature`, entry.data.words));
    case 'fitted':
      return said('out', `Fitted to ${entry.data.serial}.`);
    case 'cameBack':
      return said('back', withWords('Came back', entry.data.says ?? ''));
    default:
      return null;
  }
}
