import { Select } from '@mantine/core';
import { useState } from 'react';
import type { HouseRules } from '@decurio/core';
import type { OrderPageView, PinView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { whenFull } from '../../ui/when.js';
import { ReasonAct } from './reason-act.js';
import classes from './order-page.module.css';

/** The PIN that the house rules set: shown to a lead who says why; every look is recorded. */
export function PinCard({ view }: { readonly view: OrderPageView }) {
  const rules = api
    .useLibraryQuery('houseRules')
    .data?.map((entry) => entry.document as HouseRules)
    .find((each) => each.id === view.houseRulesId);
  const line = api.useLineQuery(view.order.id, { skip: rules?.choices.pin !== 'perUnit' });
  const [look, looking] = api.useLookAtPinMutation();
  const [unitId, setUnitId] = useState<string | null>(null);
  const [pin, setPin] = useState<PinView | null>(null);
  if (!rules || rules.choices.pin === 'asFound') return null;
  const perUnit = rules.choices.pin === 'perUnit';
  const submit = async (why: string) => {
    const answer = await look({ id: view.order.id, body: { unitId: perUnit ? unitId : null, why } });
    setPin(answer.data ?? null);
  };
  return (
    <section className={classes['card']} aria-label="Menu PIN">
      <h2>Menu PIN</h2>
      <p className="soft">
        {perUnit ? 'Each unit has its own' : 'One for the whole order'}, kept encrypted and keyed at hand over. Every
        look is recorded under your name.
      </p>
      {perUnit && (
        <Select
          label="Unit"
          data={(line.data?.units ?? []).map((unit) => ({ value: unit.id, label: unit.serial }))}
          value={unitId}
          onChange={(id) => {
            setUnitId(id);
            setPin(null);
          }}
          searchable
        />
      )}
      {pin ? (
        <>
          <p className={classes['digits']}>{pin.digits}</p>
          <ActButton onAct={() => setPin(null)}>Cover it</ActButton>
          {pin.looks.length > 0 && (
            <ul className={classes['changes']} aria-label="Looked at before">
              {pin.looks.map(({ by, at, why }) => (
                <li key={at}>
                  {by}, {whenFull(at)}: {why}
                </li>
              ))}
            </ul>
          )}
        </>
      ) : (
        <ReasonAct
          label="What it is needed for"
          act="Show it"
          busy={looking.isLoading}
          error={asProblem(looking.error)?.message}
          onAct={(why) => void submit(why)}
        />
      )}
    </section>
  );
}
