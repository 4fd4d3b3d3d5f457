import { Autocomplete, NumberInput, Radio, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { HouseView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { PersonsKept } from './persons-kept.js';
import { nowInHouse } from '../ui/house-zone.js';
import { whenFull } from '../ui/when.js';
import classes from './house-page.module.css';

/** What is true of the house as a whole: its clock, whom to call where a pack burns, how keys and cautions behave. */
export function HousePage() {
  const { data, error, refetch } = api.useHouseQuery(null, { refetchOnMountOrArgChange: true });
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />
    ) : (
      <Busy />
    );
  return <House house={data} />;
}

const KEPT_MONTHS = [
  ['keepWorkerMonths', 'Names of who works here', 'After they last signed in; their account ends with it'],
  ['keepReceiverMonths', 'Names of who received a unit', 'After it was handed over'],
  ['keepSignatureMonths', 'Signatures', 'After it was handed over'],
] as const;
type KeptMonths = (typeof KEPT_MONTHS)[number][0];

function House({ house }: { readonly house: HouseView }) {
  const { who } = useSession();
  const [change, changing] = api.useChangeHouseMutation();
  const [typed, setTyped] = useState<Typed>(house);
  const said: HouseView = {
    ...typed,
    zone: typed.zone.trim(),
    fireService: typed.fireService.trim(),
    bounceMs: typed.bounceMs === '' ? house.bounceMs : typed.bounceMs,
    keepWorkerMonths: typed.keepWorkerMonths || 0,
    keepReceiverMonths: typed.keepReceiverMonths || 0,
    keepSignatureMonths: typed.keepSignatureMonths || 0,
  };
  const type = (part: Partial<Typed>) => setTyped((before) => ({ ...before, ...part }));
  const problem = asProblem(changing.error);
  const isOwner = who?.role === 'owner';
  const isChanged = JSON.stringify({ ...house, ...said }) !== JSON.stringify(house);
  return (
    <>
      <form
        className={classes['page']}
        onSubmit={(event) => {
          event.preventDefault();
          void change(said);
        }}
      >
        <h1>The house</h1>
        <p className="soft">
          It is {whenFull(nowInHouse())} here. Due times, "today" and papers go by this clock, wherever a tablet or the
          server stands.
        </p>
        <Autocomplete
          label="Time zone"
          description="Such as Europe/Berlin"
          value={typed.zone}
          onChange={(zone) => type({ zone })}
          data={ZONES}
          limit={12}
          disabled={!isOwner}
          required
          error={problem?.fields?.['zone']}
        />
        <TextInput
          label="Fire service"
          description="Shown where a pack stands in quarantine"
          placeholder="The number that is called from this house"
          value={typed.fireService}
          onChange={(e) => type({ fireService: e.target.value })}
          maxLength={60}
          disabled={!isOwner}
          error={problem?.fields?.['fireService']}
        />
        <NumberInput
          label="A key rests after it acted, ms"
          description="A worn foot switch sends one press twice: what comes within this time counts once. 0 where every press shall count."
          value={typed.bounceMs}
          onChange={(next) => type({ bounceMs: next === '' ? '' : Number(next) })}
          min={0}
          max={1000}
          allowNegative={false}
          allowDecimal={false}
          hideControls
          disabled={!isOwner}
          error={problem?.fields?.['bounceMs']}
        />
        <Radio.Group
          label="Cautions before hands go on"
          value={typed.cautions}
          onChange={(next) => type({ cautions: next as HouseView['cautions'] })}
        >
          <Radio
            value="firstOfType"
            label="One by one on a person's first unit of a type at a stand in a shift, and after any surprise; then together with one key"
            disabled={!isOwner}
          />
          <Radio value="always" label="One by one on every unit" disabled={!isOwner} />
        </Radio.Group>
        <fieldset className={classes['kept']} disabled={!isOwner}>
          <legend>How long persons are kept, months</legend>
          <p className="soft">
            Names and signatures are kept apart from the records, which cover them by a hash: erased, every seal still
            holds. Empty where they are kept until somebody erases them. Which times hold here is for the law and for
            whoever advises the house.
          </p>
          <div>
            {KEPT_MONTHS.map(([name, label, description]) => (
              <NumberInput
                key={name}
                label={label}
                description={description}
                value={typed[name] === 0 ? '' : typed[name]}
                onChange={(next) => type({ [name]: next === '' ? '' : Number(next) })}
                min={0}
                max={1200}
                allowNegative={false}
                allowDecimal={false}
                hideControls
                error={problem?.fields?.[name]}
              />
            ))}
          </div>
        </fieldset>
        {problem && !problem.fields && <Notice kind="stop" says={problem.message} />}
        {changing.isSuccess && !isChanged && (
          <Notice kind="done" says="Kept. Every screen goes by it within seconds." />
        )}
        {isOwner ? (
          <div className={classes['acts']}>
            <ActButton
              type="submit"
              look="main"
              busy={changing.isLoading}
              disabled={!isChanged}
              onAct={() => undefined}
            >
              Keep
            </ActButton>
          </div>
        ) : (
          <p className="soft">An owner changes it.</p>
        )}
      </form>
      {isOwner && <PersonsKept />}
    </>
  );
}

/** As it stands in the fields. */
type Typed = Omit<HouseView, 'bounceMs' | KeptMonths> & {
  readonly [K in 'bounceMs' | KeptMonths]: number | '';
};

const ZONES = Intl.supportedValuesOf('timeZone');
