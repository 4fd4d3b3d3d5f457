import { Checkbox } from '@mantine/core';
import { useState } from 'react';
import { Link } from 'react-router';
import type { LineUnit, OrderActed, OrderPageView } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Busy } from '../../ui/notice.js';
import { OwnWishes } from './own-wishes.js';
import { ReasonAct } from '../../ui/reason-act.js';
import classes from './order-page.module.css';

const STATUS: Readonly<Record<LineUnit['status'], string>> = {
  waiting: 'waiting',
  open: 'under way',
  held: 'held',
  sealed: 'sealed',
  withdrawn: 'withdrawn',
};

export interface UnitsOfOrderProps {
  readonly view: OrderPageView;
  readonly isLead: boolean;
  readonly onDone: (acted: OrderActed) => void;
}

/** Every unit of the order; a lead takes some out, or has one set otherwise. */
export function UnitsOfOrder({ view, isLead, onDone }: UnitsOfOrderProps) {
  const { data } = api.useLineQuery(view.order.id);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [otherwise, setOtherwise] = useState<LineUnit | null>(null);
  const [withdraw, withdrawing] = api.useWithdrawUnitsMutation();
  if (!data) return <Busy />;
  const submit = async (reason: string) => {
    const answer = await withdraw({
      id: view.order.id,
      body: { id: crypto.randomUUID(), reason, unitIds: [...chosen] },
    });
    if (answer.data) setChosen(new Set());
    return answer.data !== undefined;
  };
  const toggle = (id: string) =>
    setChosen((now) => new Set(now.has(id) ? [...now].filter((each) => each !== id) : [...now, id]));
  return (
    <section className={classes['card']} aria-label="Units of the order">
      <h2>{data.units.length} units</h2>
      <div className={classes['units']} tabIndex={0} role="region" aria-label="Units">
        <table>
          <thead>
            <tr className="cap">
              {isLead && <th scope="col">Choose</th>}
              <th scope="col">Serial</th>
              <th scope="col">Type</th>
              <th scope="col">Stands</th>
              {isLead && <th scope="col">Otherwise</th>}
            </tr>
          </thead>
          <tbody>
            {data.units.map((unit) => (
              <tr key={unit.id}>
                {isLead && (
                  <td>
                    <Checkbox
                      aria-label={`Choose ${unit.serial}`}
                      checked={chosen.has(unit.id)}
                      disabled={unit.status === 'sealed'}
                      onChange={() => toggle(unit.id)}
                    />
                  </td>
                )}
                <th scope="row">
                  <Link
                    to={
                      unit.status === 'sealed' && unit.handedTo !== null && unit.visitId
                        ? `/ledger/${unit.visitId}`
                        : `/bench/${unit.id}`
                    }
                  >
                    {unit.serial}
                  </Link>
                </th>
                <td>{unit.typeName}</td>
                <td data-words>
                  {STATUS[unit.status]}
                  {unit.heldWords !== null && `: ${unit.heldWords}`}
                  {unit.own !== null && `, set otherwise: ${unit.own.why}`}
                  {unit.returnedWhy !== null && unit.status !== 'sealed' && `, came back: ${unit.returnedWhy}`}
                </td>
                {isLead && (
                  <td>
                    <ActButton onAct={() => setOtherwise(unit)}>
                      Set otherwise <span className="hidden-words">{unit.serial}</span>
                    </ActButton>
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {otherwise && (
        <OwnWishes
          key={otherwise.id}
          unit={otherwise}
          onDone={(acted) => {
            setOtherwise(null);
            onDone(acted);
          }}
          onLeave={() => setOtherwise(null)}
        />
      )}
      {chosen.size > 0 && (
        <ReasonAct
          place={`withdraw.${view.order.id}`}
          label={`Why ${chosen.size === 1 ? 'this unit leaves' : `these ${chosen.size} units leave`} the order`}
          act={`Withdraw ${chosen.size}`}
          look="care"
          busy={withdrawing.isLoading}
          error={asProblem(withdrawing.error)?.message}
          onAct={submit}
        />
      )}
    </section>
  );
}
