import {
  chargeMinutes,
  hoursIn,
  isFull,
  isSettled,
  momentIn,
  proofsOf,
  STEPS_OFFERED,
  workOf,
  type Crew,
  type HouseRules,
  type LabelledPack,
  type PlanOrder,
  type PlanPlace,
  type PlanProblem,
  type PlanUnit,
  type Shop,
  type StepId,
  type Surprises,
  type TaskLength,
  type VehicleType,
  type VisitState,
} from '@decurio/core';
import type { PlanNote } from '@decurio/contract';
import type { PlanInputs, UnitInput } from './inputs.js';
import { faultsOf } from './notes.js';

/** Everything a plan is made of, with what its tasks stand for. */
export interface Prepared {
  readonly startMs: number;
  readonly problem: PlanProblem;
  readonly lengths: Readonly<Record<string, TaskLength>>;
  readonly surprises: Surprises;
  /** Seconds planned by unit and step. */
  readonly steps: readonly { readonly unitId: string; readonly step: StepId; readonly seconds: number }[];
  /** Kinds of units by vehicle, and those that may be proved in yard and roller alike. */
  readonly kindsOf: Readonly<Record<'bike' | 'scooter', readonly string[]>>;
  readonly notes: readonly PlanNote[];
}

/** So many days ahead; what is later is not planned yet. */
const HORIZON_DAYS = 21;
/** A unit that is held is reckoned back after so long, where nobody knows. */
const HELD_HOURS = 4;

/** Makes the problem of what stands in the house at a moment. Pure. */
export function prepare(inputs: PlanInputs, nowMs: number): Prepared {
  const { zone, crew, shop } = inputs;
  const seconds = (ms: number): number => Math.round((ms - nowMs) / 1000);
  const { lengths } = inputs;
  const places = placesOf(shop, zone, nowMs);
  const orders = inputs.orders.map((order): PlanOrder => {
    const dueMs = momentIn(zone, order.dueAt);
    return { id: order.id, name: order.number, dueS: dueMs === null ? null : seconds(dueMs), weight: 1 };
  });
  const all: Record<string, TaskLength> = {};
  const steps: { unitId: string; step: StepId; seconds: number }[] = [];
  const heldS = inputs.usualHoldHours === null ? HELD_HOURS * 3600 : inputs.usualHoldHours * 3600;
  const people = peopleOf(crew, zone, nowMs);
  const units = inputs.units.map((unit): PlanUnit => {
    const work = workOf(
      {
        id: unit.id,
        kind: unit.kind,
        step: unit.state?.step ?? null,
        steps: unit.state?.opened.steps ?? STEPS_OFFERED,
        proveAt: proveAt(unit.type, shop, places),
        rideAt: rideAt(places),
        charge: chargeOf(unit, shop, nowMs),
        apart: apartOf(unit.rules),
        keyedBy: (unit.state?.keyedBy ?? []).flatMap((userId) => personOf(crew, inputs, userId) ?? []),
        personId: null,
      },
      lengths,
    );
    Object.assign(all, work.lengths);
    for (const parts of Object.values(work.parts)) for (const part of parts) steps.push({ unitId: unit.id, ...part });
    const owner = ownerOf(unit, inputs);
    const isOut = unit.status === 'held' || unit.waitsUntilMs !== null;
    return {
      id: unit.id,
      name: unit.serial,
      orderId: unit.orderId,
      kind: unit.kind,
      arrivesS:
        unit.status === 'held'
          ? Math.max(1800, seconds((unit.heldSinceMs ?? nowMs) + heldS * 1000))
          : unit.waitsUntilMs !== null
            ? Math.max(0, seconds(unit.waitsUntilMs))
            : 0,
      owner,
      inHand: unit.status === 'open' && !isOut && owner !== null,
      after: [],
      tasks: work.tasks,
    };
  });
  const problem: PlanProblem = {
    people,
    places,
    stands: shop?.stands ?? 1,
    weave: shop?.weave ?? 1,
    setupS: { kind: shop?.otherKindS ?? 60, place: shop?.otherPlaceS ?? 30 },
    orders,
    units: units.filter(({ tasks }) => tasks.length > 0),
  };
  const kinds = (vehicle: VehicleType['kind']): readonly string[] => [
    ...new Set(inputs.units.filter(({ type }) => type.kind === vehicle).map(({ kind }) => kind)),
  ];
  return {
    startMs: nowMs,
    problem,
    lengths: all,
    surprises: inputs.surprises,
    steps,
    kindsOf: { bike: kinds('bike'), scooter: kinds('scooter') },
    notes: faultsOf(inputs, problem, nowMs),
  };
}

/** Whose a unit is: whoever took it, unless a lead gave it to somebody since; null where that is the plan's to say. */
function ownerOf({ state, givenTo, givenAtMs }: UnitInput, inputs: PlanInputs): string | null {
  const taken = state ? personOf(inputs.crew, inputs, state.stand.by.userId) : null;
  const isGivenSince = givenTo !== null && (state === null || taken === null || givenAtMs > Date.parse(state.lastAt));
  return isGivenSince ? givenTo : taken;
}

/** Units of an order that is only offered: nothing of them is there yet. */
export function offeredUnits(
  offered: readonly {
    readonly type: VehicleType;
    readonly mapId: string;
    readonly count: number;
    readonly needsFull: boolean;
  }[],
  inputs: PlanInputs,
  prepared: Prepared,
  orderId: string,
  arrivesS: number,
  rules: HouseRules | null,
): { readonly units: readonly PlanUnit[]; readonly lengths: Readonly<Record<string, TaskLength>> } {
  const all: Record<string, TaskLength> = {};
  const units = offered.flatMap(({ type, mapId, count, needsFull }, g) =>
    Array.from({ length: count }, (_, i): PlanUnit => {
      const id = `offered ${g} ${i}`;
      const kind = `${type.name}|${mapId}`;
      const work = workOf(
        {
          id,
          kind,
          step: null,
          steps: STEPS_OFFERED,
          proveAt: proveAt(type, inputs.shop, prepared.problem.places),
          rideAt: rideAt(prepared.problem.places),
          charge: needsFull ? toFull(type.pack, null, inputs.shop) : null,
          apart: rules ? apartOf(rules) : { reader: false, prover: false, signers: false },
          keyedBy: [],
          personId: null,
        },
        inputs.lengths,
      );
      Object.assign(all, work.lengths);
      return { id, name: id, orderId, kind, arrivesS, owner: null, inHand: false, after: [], tasks: work.tasks };
    }),
  );
  return { units, lengths: all };
}

const peopleOf = (crew: Crew | null, zone: string, nowMs: number): PlanProblem['people'] =>
  (crew?.people ?? []).map(({ id, name, skills, hours, also, away }) => ({
    id,
    name,
    skills,
    hours: hoursIn(zone, nowMs, HORIZON_DAYS, { week: hours, also, never: away }),
  }));

const placesOf = (shop: Shop | null, zone: string, nowMs: number): readonly PlanPlace[] =>
  (shop?.places ?? []).map(({ id, name, kind, hours, also, shut, packsV }) => ({
    id,
    name,
    kind,
    hours: hoursIn(zone, nowMs, HORIZON_DAYS, { week: hours, also, never: shut }),
    packs: packsV === null ? null : packsV.map(String),
  }));

/** Who somebody that signed in is among the crew. */
export function personOf(
  crew: Crew | null,
  { signInNames }: Pick<PlanInputs, 'signInNames'>,
  userId: string,
): string | null {
  const name = signInNames.get(userId);
  return (name !== undefined && crew?.people.find((person) => person.signInName === name)?.id) || null;
}

const has = (places: readonly PlanPlace[], kind: PlanPlace['kind']): boolean =>
  places.some((place) => place.kind === kind);

/** Where the shop proves such a vehicle, or the one of the two places that there is. */
function proveAt({ kind }: VehicleType, shop: Shop | null, places: readonly PlanPlace[]): 'yard' | 'roller' {
  const wanted = shop?.proveAt[kind] ?? 'yard';
  const other = wanted === 'yard' ? 'roller' : 'yard';
  return has(places, wanted) || !has(places, other) ? wanted : other;
}

const rideAt = (places: readonly PlanPlace[]): 'yard' | 'roller' | null =>
  has(places, 'yard') ? 'yard' : has(places, 'roller') ? 'roller' : null;

const apartOf = ({ choices }: HouseRules) => ({
  reader: choices.reader === 'other',
  prover: choices.prover === 'other',
  signers: choices.signers === 'two',
});

/** What its pack lacks for the proofs that ask for a full one. */
function chargeOf(unit: UnitInput, shop: Shop | null, nowMs: number): ReturnType<typeof toFull> {
  const { state, type } = unit;
  if (!state) return unit.needsFull ? toFull(type.pack, null, shop) : null;
  const { full, wait } = state.proving;
  if (!wantsFull(state) || (full !== null && isFull(state.opened, full))) return null;
  const whole = toFull(state.opened.pack, state.checkedIn?.packV ?? null, shop);
  // It hangs at a charger already: what went in meanwhile need not go in again.
  if (whole === null || wait === null || wait.test !== null) return whole;
  const sofarS = Math.round((nowMs - Date.parse(wait.since)) / 1000);
  return { ...whole, seconds: Math.max(LEAST_CHARGE_S, whole.seconds - Math.max(0, sofarS)) };
}

/** Somebody has to look at it in any case. */
const LEAST_CHARGE_S = 60;

const wantsFull = (state: VisitState): boolean =>
  proofsOf(state).some((proof) => proof.test.pack === 'full' && !isSettled(proof));

/** At the weakest charger that a post it fits has: whichever of them is free, it is full by then. */
function toFull(
  pack: LabelledPack,
  packV: number | null,
  shop: Shop | null,
): { readonly seconds: number; readonly pack: string } | null {
  const posts = (shop?.places ?? []).filter(
    ({ kind, packsV }) => kind === 'post' && (packsV === null || packsV.includes(pack.labelV)),
  );
  const weakest = Math.min(...posts.map(({ chargeA }) => chargeA ?? Infinity));
  // Where there are no posts it is charged elsewhere, and nothing is planned for it.
  if (posts.length === 0 || weakest === Infinity) return null;
  const minutes = chargeMinutes(pack, packV, weakest);
  return minutes.ok ? { seconds: minutes.value * 60, pack: String(pack.labelV) } : null;
}
