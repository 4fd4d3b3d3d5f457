import { NumberInput, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { momentIn, timeIn } from '@decurio/core';
import type { AskedChange, PlanView } from '@decurio/contract';
import { api } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import classes from './what-if-page.module.css';

const KINDS = [
  { value: 'stays', label: 'Somebody stays until' },
  { value: 'leaves', label: 'Somebody goes home at' },
  { value: 'opens', label: 'A place is open until' },
  { value: 'shuts', label: 'A place shuts at' },
  { value: 'due', label: 'An order is due at' },
  { value: 'proved', label: 'Proved in another place' },
  { value: 'follow', label: 'Units follow later' },
  { value: 'takes', label: 'Another order comes in' },
] as const;
type Kind = (typeof KINDS)[number]['value'];

const PROVED = [
  { value: 'scooter roller', label: 'scooters on the roller' },
  { value: 'scooter yard', label: 'scooters in the yard' },
  { value: 'bike roller', label: 'bikes on the roller' },
  { value: 'bike yard', label: 'bikes in the yard' },
];

/** One more thing that could be otherwise. */
export function NewChange({ plan, onAdd }: { readonly plan: PlanView; readonly onAdd: (change: AskedChange) => void }) {
  const [kind, setKind] = useState<Kind | null>(null);
  const [of, setOf] = useState<string | null>(null);
  const [at, setAt] = useState(() => `${timeIn(plan.zone, firstMs(plan)).slice(0, 11)}16:00`);
  const [units, setUnits] = useState(2);
  const types = (api.useLibraryQuery('vehicleType').data ?? []).map(({ id, name }) => ({ value: id, label: name }));
  const change = kind === null || of === null ? null : made(kind, of, at, units, plan);
  return (
    <div className={classes['new']}>
      <Select
        label="What"
        placeholder="choose"
        data={[...KINDS]}
        value={kind}
        onChange={(value) => {
          setKind(value as Kind | null);
          setOf(null);
        }}
      />
      {kind !== null && (
        <Select
          label="Which"
          placeholder="choose"
          data={kind === 'takes' ? types : whichOf(kind, plan)}
          value={of}
          onChange={setOf}
        />
      )}
      {kind !== null && kind !== 'proved' && kind !== 'follow' && (
        <TextInput type="datetime-local" label="When" value={at} onChange={(event) => setAt(event.target.value)} />
      )}
      {(kind === 'follow' || kind === 'takes') && (
        <NumberInput
          label="Units"
          value={units}
          min={1}
          max={kind === 'takes' ? 300 : 3000}
          allowDecimal={false}
          onChange={(value) => setUnits(typeof value === 'number' ? value : 1)}
        />
      )}
      <ActButton
        disabled={change === null}
        onAct={() => {
          if (!change) return;
          onAdd(change);
          setKind(null);
          setOf(null);
        }}
      >
        Add
      </ActButton>
    </div>
  );
}

/** The first working hour of the plan: today, or the next day that anybody is there. */
const firstMs = (plan: PlanView): number =>
  Math.min(...plan.bars.map(({ fromMs }) => fromMs), plan.madeAtMs + 86_400_000);

function whichOf(kind: Kind, { people, places, orders }: PlanView) {
  if (kind === 'stays' || kind === 'leaves') return people.map(({ id, name }) => ({ value: id, label: name }));
  if (kind === 'opens' || kind === 'shuts') return places.map(({ id, name }) => ({ value: id, label: name }));
  if (kind === 'proved') return PROVED;
  return orders.map(({ id, number }) => ({ value: id, label: number }));
}

function made(kind: Kind, of: string, at: string, units: number, plan: PlanView): AskedChange | null {
  const ms = momentIn(plan.zone, at);
  const [vehicle, place] = of.split(' ');
  switch (kind) {
    case 'proved':
      return { kind, vehicle: vehicle as 'bike' | 'scooter', at: place as 'yard' | 'roller' };
    case 'follow':
      return { kind, orderId: of, units };
    case 'takes':
      return ms === null ? null : { kind, typeId: of, units, dueMs: ms };
    case 'stays':
      return ms === null ? null : { kind, personId: of, untilMs: ms };
    case 'opens':
      return ms === null ? null : { kind, placeId: of, untilMs: ms };
    case 'due':
      return ms === null ? null : { kind, orderId: of, dueMs: ms };
    case 'leaves':
      return ms === null ? null : { kind, personId: of, fromMs: ms, untilMs: endOfDay(plan, ms) };
    case 'shuts':
      return ms === null ? null : { kind, placeId: of, fromMs: ms, untilMs: endOfDay(plan, ms) };
  }
}

/** Midnight there after a moment. */
const endOfDay = ({ zone }: PlanView, ms: number): number =>
  momentIn(zone, `${timeIn(zone, ms + 86_400_000).slice(0, 11)}00:00`) ?? ms + 86_400_000;
