import { MultiSelect, NumberInput, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  codeTitle,
  QUANTITIES,
  quantityFor,
  triable,
  valuesInOrder,
  valueWords,
  type Code,
  type QuantityId,
} from '@decurio/core';
import { newTrialRequest, type LibraryEntry, type NewTrial } from '@decurio/contract';
import { Begun } from '../../../drafts/begun.js';
import { useDraft } from '../../../drafts/use-draft.js';
import { api, asProblem } from '../../../state/api.js';
import { ActButton } from '../../../ui/act-button.js';
import { FigureField } from '../../../ui/figure-field.js';
import { Notice } from '../../../ui/notice.js';
import { slipsIn } from '../../../ui/slips.js';
import classes from './trials.module.css';

/** Longer lists are typed into: what is offered stays within reach of a finger. */
const MOST_OFFERED = 300;

/** Which values of which code are tried, against what, and how often. */
export function NewTrialForm({
  entry,
  onBegun,
}: {
  readonly entry: LibraryEntry<'displayMap'>;
  readonly onBegun: (id: string) => void;
}) {
  const codes = triable(entry.document);
  const draft = useDraft(`newTrial.${entry.id}`, {
    label: '',
    values: [] as readonly number[],
    quantity: null as QuantityId | null,
    each: 5 as number | '',
    matters: '' as number | '',
    unit: '',
  });
  const { label, values, quantity, each, matters, unit } = draft.value;
  const [begin, beginning] = api.useBeginTrialMutation();
  const [slips, setSlips] = useState<Readonly<Record<string, string>>>({});
  const code = codes.find((one) => one.label === label);
  const measured = quantity ?? (code ? quantityFor(code) : 'secondsTo');
  const of = QUANTITIES[measured];
  const choose = (next: string | null) => {
    const chosen = codes.find((one) => one.label === next);
    if (chosen) draft.change({ label: chosen.label, values: endsOf(chosen), quantity: null, matters: '' });
  };
  const submit = async () => {
    const [drawn = 0] = crypto.getRandomValues(new Uint32Array(1));
    const body: NewTrial = {
      id: crypto.randomUUID(),
      mapId: entry.id,
      mapVersion: entry.version,
      label,
      values,
      quantity: measured,
      each: Number(each),
      matters: matters === '' ? of.matters : matters,
      seed: drawn >>> 1,
      unit: unit.trim(),
    };
    const found = slipsIn(newTrialRequest, body);
    setSlips(found);
    if (Object.keys(found).length > 0) return;
    const answer = await begin(body);
    if (!answer.data) return;
    draft.forget();
    onBegun(body.id);
  };
  const problem = asProblem(beginning.error);
  if (codes.length === 0)
    return <Notice kind="note" says="Keys move no code of this display between two values: there is nothing to try." />;
  return (
    <form
      className={classes['desk']}
      aria-label="A new trial"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <h2>Does it do anything?</h2>
      <Begun draft={draft} />
      <div className={classes['fields']}>
        <Select
          label="Code"
          placeholder="choose"
          searchable
          data={codes.map((one) => ({ value: one.label, label: `${one.label} ${codeTitle(one)}` }))}
          value={label === '' ? null : label}
          onChange={choose}
          error={slips['label']}
        />
        <MultiSelect
          label="Values"
          description="The first is what the others are held against"
          data={code ? offered(code).map((raw) => ({ value: String(raw), label: valueWords(code, raw) })) : []}
          value={values.map(String)}
          onChange={(next) => draft.change({ values: next.map(Number) })}
          maxValues={4}
          searchable
          disabled={!code}
          error={slips['values']}
        />
        <Select
          label="What is measured"
          allowDeselect={false}
          data={Object.entries(QUANTITIES).map(([value, { title, unit: in_ }]) => ({
            value,
            label: `${title}, ${in_}`,
          }))}
          value={measured}
          onChange={(value) => draft.change({ quantity: value as QuantityId, matters: '' })}
          description={of.does}
        />
        <FigureField
          label="A difference that would matter"
          unit={of.unit}
          value={matters === '' ? of.matters : matters}
          onChange={(next) => draft.change({ matters: next })}
          error={slips['matters']}
        />
        <NumberInput
          label="Runs of each value"
          value={each}
          onChange={(next) => draft.change({ each: next === '' ? '' : Number(next) })}
          min={2}
          max={20}
          allowDecimal={false}
          hideControls
          description="Four tell a plain difference between two; more are drawn where it is not settled"
          error={slips['each']}
        />
        <TextInput
          label="On which unit"
          placeholder="Its serial"
          value={unit}
          onChange={(event) => draft.change({ unit: event.target.value })}
          maxLength={40}
          data-scan-guard="words"
          error={slips['unit']}
        />
      </div>
      <Notice
        kind="care"
        says="Runs on the road belong to a closed yard, with a helmet and both brakes proved. The same rider, the same tyre pressure, a rested pack; the order is drawn so that a pack that sinks does not pass for the code."
      />
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={beginning.isLoading} onAct={() => undefined}>
          Draw the order
        </ActButton>
        <span className="soft">
          {values.length} values, {each === '' ? 0 : each} runs each: {values.length * Number(each)} runs
        </span>
      </div>
    </form>
  );
}

const offered = (code: Code): readonly number[] => valuesInOrder(code).slice(0, MOST_OFFERED);

/** The delivered value against the farther end of its range: what would show most. */
function endsOf(code: Code): readonly number[] {
  const all = valuesInOrder(code);
  const [low, high] = [all[0] ?? code.range.min, all.at(-1) ?? code.range.max];
  const { factory } = code;
  if (!all.includes(factory)) return [low, high];
  const far = Math.abs(factory - low) > Math.abs(high - factory) ? low : high;
  return far === factory ? [factory, low] : [factory, far];
}
