import { Select } from '@mantine/core';
import { useState } from 'react';
import type { HouseRules } from '@decurio/core';
import type { OrderPageView, PinView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { whenFull } from '../../ui/when.js';
import { ReasonAct } from '../../ui/reason-act.js';
import classes from './order-page.module.css';

const PINS = {
  menu: { choice: 'pin', title: 'Menu PIN', says: 'It keeps the menu closed, and goes to nobody who rides.' },
  start: { choice: 'startPin', title: 'Start PIN', says: 'Whoever rides types it; never the digits of the menu.' },
} as const;

/** A PIN that the house rules set: shown to a lead who says why; every look is recorded. */
export function PinCard({ view, opens }: { readonly view: OrderPageView; readonly opens: keyof typeof PINS }) {
  const { choice, title, says } = PINS[opens];
  const rules = api
    .useLibraryQuery('houseRules')
    .data?.map((entry) => entry.document as HouseRules)
    .find((each) => each.id === view.houseRulesId);
  const line = api.useLineQuery(view.order.id, { skip: rules?.choices[choice] !== 'perUnit' });
  const [look, looking] = api.useLookAtPinMutation();
  const [unitId, setUnitId] = useState<string | null>(null);
  const [pin, setPin] = useState<PinView | null>(null);
  if (!rules || rules.choices[choice] === 'asFound') return null;
  const perUnit = rules.choices[choice] === 'perUnit';
  const submit = async (why: string) => {
    const answer = await look({ id: view.order.id, body: { opens, unitId: perUnit ? unitId : null, why } });
    setPin(answer.data ?? null);
    return answer.data !== undefined;
  };
  return (
    <section className={classes['card']} aria-label={title}>
      <h2>{title}</h2>
      <p className="soft">
        {perUnit ? 'Each unit has its own' : 'One for the whole order'}, kept encrypted and keyed at hand over. {says}{' '}
        Every look is recorded under your name.
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
          place={`pin.${view.order.id}.${opens}`}
          label="What it is needed for"
          act="Show it"
          busy={looking.isLoading}
          error={asProblem(looking.error)?.message}
          onAct={submit}
        />
      )}
    </section>
  );
}
