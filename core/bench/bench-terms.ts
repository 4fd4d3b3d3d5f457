import type { Code, DisplayMap } from '../display/map/display-map.js';
import { valuesInOrder } from '../display/map/raw-value.js';
import type { HouseRules } from '../setup/inputs/house-rules.js';
import type { UnitFacts } from '../setup/inputs/setup-inputs.js';
import type { VehicleType } from '../setup/inputs/vehicle-type.js';
import { cautionsFor } from './cautions.js';
import { checksFor, type CheckList, type VisitCheck } from '../setup/inputs/check-list.js';
import type { PhotoSubject, RatioFound, VersionRef } from './evidence.js';

/** Which raw values a code may show, so that a reading outside them is noticed without the map at hand. */
export interface CodeSpan {
  readonly min: number;
  readonly max: number;
  readonly decimals: number;
  /** The only ones, where the code has a table of words. */
  readonly only?: readonly number[];
  /** What stands on the glass instead of the digits. */
  readonly shows?: Code['shows'];
}

/** Whether a unit is run, and by what. */
export interface CalibrateTerms {
  readonly runs: 'full' | 'sample';
  /** As a person reads it. */
  readonly why: string;
  /** What an earlier visit of this very unit measured. */
  readonly own?: Pick<UnitFacts, 'ratio' | 'rolled' | 'overshootKmh'>;
  /** How far beyond its cap drive was seen to act on others of this type and display, the farthest, km/h as shown. */
  readonly overshootKmh?: number;
  /** Shown over true speed with these codes, as the family was learnt; null while too few were run. */
  readonly family:
    | (RatioFound & {
        readonly count: number;
        readonly wheelRaw: number | null;
        readonly pulsesRaw: number | null;
        readonly nextLow: number;
        readonly nextHigh: number;
      })
    | null;
}

/** What house rules ask of proving one unit and of signing it off. */
export interface ProvingTerms {
  /** `safety`: what no unit leaves without; the rest is proved on those of the batch that are proved in full. */
  readonly runs: 'all' | 'safety';
  /** As a person reads it. */
  readonly why: string;
  readonly prover: HouseRules['choices']['prover'];
  readonly unproved: HouseRules['choices']['unproved'];
  readonly signers: HouseRules['choices']['signers'];
}

/** What house rules, type and display ask of one visit at the bench; kept in its opening entry. */
export interface BenchTerms {
  /** `all`: every code the display shows. `decisive`: those on which law, safety or the measuring rest. */
  readonly asFound: { readonly reads: 'all' | 'decisive'; readonly why: string };
  readonly photos: { readonly checkIn: readonly PhotoSubject[]; readonly readBack: readonly PhotoSubject[] };
  /** Values live in the display only while it is attached, and house rules ask to unplug it before the read-back. */
  readonly unplugCheck: boolean;
  /** `perCell`: a pack is judged by what each of its cells rests at. Visits opened before that was asked know only too many volts. */
  readonly packRule?: 'perCell';
  /** A cable that is pinched, or a display clamp that is not sound, holds the unit; visits opened before that was asked go on. */
  readonly damageHolds?: true;
  /** What the setup wants shown on the vehicle is not left out by the way; visits opened before that was asked may. */
  readonly proofsStand?: true;
  /** How much of a unit is proved, by whom, and who signs. Visits opened before that was led through say it in words alone. */
  readonly proving?: ProvingTerms;
  /** Whoever reads back must not have keyed. */
  readonly otherReader: boolean;
  /** What is looked at before delivery; visits opened before that was led through have none. */
  readonly checks?: readonly VisitCheck[];
  /** The list they come from. */
  readonly checkList?: VersionRef;
  /** Whether its speed is to be run, and what its family was learnt to be. Visits opened before it was led through have none. */
  readonly calibrate?: CalibrateTerms;
  /** Each is acknowledged whenever the unit comes to a stand. */
  readonly cautions: readonly string[];
  readonly spans: Readonly<Record<string, CodeSpan>>;
}

/** What was read of the same type and display in this order so far. */
export interface BatchRead {
  readonly units: number;
  /** Units since the newest surprise, 0 for the one right before; null where there was none. */
  readonly sinceSurprise: number | null;
}

/** Units of a uniform batch read in full before sampling begins, and again after a surprise. */
const FIRST_IN_FULL = 3;
const ONE_IN = 5;

/** How much of a unit is read as found. */
export function samplingOf(
  rule: HouseRules['choices']['readAsFound'],
  { units, sinceSurprise }: BatchRead,
): BenchTerms['asFound'] {
  if (rule === 'every') return { reads: 'all', why: 'House rules read every unit in full.' };
  if (units < FIRST_IN_FULL)
    return { reads: 'all', why: `Unit ${units + 1} of its batch: the first ${FIRST_IN_FULL} are read in full.` };
  if (sinceSurprise !== null && sinceSurprise < FIRST_IN_FULL)
    return {
      reads: 'all',
      why: `A unit shortly before was not as expected: the next ${FIRST_IN_FULL} are read in full.`,
    };
  if ((units - FIRST_IN_FULL) % ONE_IN === ONE_IN - 1)
    return { reads: 'all', why: `One in ${ONE_IN} of a batch is read in full, and it is this one's turn.` };
  return {
    reads: 'decisive',
    why: `The first ${FIRST_IN_FULL} of the batch were as expected: codes that decide something are read, the others are presumed as delivered.`,
  };
}

/** How much of a unit is proved: in full at first, after a surprise, and one in so many; what keeps people safe on each. */
export function provingOf(
  { proofs, prover, unproved, signers }: HouseRules['choices'],
  batch: BatchRead,
): ProvingTerms {
  const terms = { prover, unproved, signers };
  if (proofs === 'every') return { runs: 'all', why: 'House rules prove every unit in full.', ...terms };
  const { units, sinceSurprise } = batch;
  if (units < FIRST_IN_FULL)
    return {
      runs: 'all',
      why: `Unit ${units + 1} of its batch: the first ${FIRST_IN_FULL} are proved in full.`,
      ...terms,
    };
  if (sinceSurprise !== null && sinceSurprise < FIRST_IN_FULL)
    return {
      runs: 'all',
      why: `A unit shortly before did not show what it should: the next ${FIRST_IN_FULL} are proved in full.`,
      ...terms,
    };
  if ((units - FIRST_IN_FULL) % ONE_IN === ONE_IN - 1)
    return { runs: 'all', why: `One in ${ONE_IN} of a batch is proved in full, and it is this one's turn.`, ...terms };
  return {
    runs: 'safety',
    why: `The first ${FIRST_IN_FULL} of the batch showed what they should: what no unit leaves without is proved, the rest on one in ${ONE_IN}.`,
    ...terms,
  };
}

const RESTORED =
  'It was out on private land: whatever was changed there is read, and what it shows now is proved before it goes anywhere else.';

/** A unit that comes back from private land to a class is neither sampled nor let go unproved. */
export const broughtBack = (terms: BenchTerms): BenchTerms => ({
  ...terms,
  asFound: { reads: 'all', why: RESTORED },
  ...(terms.proving ? { proving: { ...terms.proving, runs: 'all', why: RESTORED, unproved: 'never' } } : {}),
});

/** Of a spare display nothing is asked that only a vehicle can show. */
export function spareTerms(terms: BenchTerms): BenchTerms {
  const { asFound, unplugCheck, otherReader, cautions, spans } = terms;
  return { asFound, photos: { checkIn: [], readBack: [] }, unplugCheck, otherReader, cautions, spans };
}

export interface BenchInputs {
  readonly type: VehicleType;
  readonly map: DisplayMap;
  readonly houseRules: HouseRules;
  readonly batch: BatchRead;
  /** What was proved of the same type and display in this order so far; as read where left out. */
  readonly proved?: BatchRead;
  readonly calibrate?: CalibrateTerms;
  readonly checkList?: { readonly list: CheckList; readonly version: number };
}

export function benchTermsFor({
  type,
  map,
  houseRules: { choices },
  batch,
  proved = batch,
  calibrate,
  checkList,
}: BenchInputs): BenchTerms {
  const asFound = samplingOf(choices.readAsFound, batch);
  const checks = checksFor(checkList?.list ?? null, type, asFound.reads === 'all', map.confirmed?.firmware ?? null);
  return {
    asFound,
    ...(checks.length > 0 ? { checks } : {}),
    ...(checkList
      ? { checkList: { id: checkList.list.id, version: checkList.version, name: checkList.list.name } }
      : {}),
    photos: {
      checkIn: choices.photos === 'none' ? [] : ['display', 'ratingPlate', 'serial'],
      readBack: choices.photos === 'both' ? ['display'] : [],
    },
    unplugCheck:
      choices.unplugCheck === 'whereKept' && map.codes.some((code) => code.keptIn === 'displayWhileAttached'),
    packRule: 'perCell',
    damageHolds: true,
    proofsStand: true,
    proving: provingOf(choices, proved),
    otherReader: choices.reader === 'other',
    ...(calibrate ? { calibrate } : {}),
    cautions: cautionsFor(type, map),
    spans: Object.fromEntries(
      map.codes.map((code) => {
        // In another unit it may run from less, or to more.
        const ranges = [code.range, ...(code.otherRanges ?? []).map(({ range }) => range)];
        return [
          code.label,
          {
            min: Math.min(...ranges.map(({ min }) => min)),
            max: Math.max(...ranges.map(({ max }) => max)),
            decimals: Math.max(code.decimals, ...(code.otherRanges ?? []).map(({ decimals }) => decimals ?? 0)),
            ...(code.encoding.kind === 'table' ? { only: valuesInOrder(code) } : {}),
            ...(code.shows ? { shows: code.shows } : {}),
          },
        ];
      }),
    ),
  };
}
