import { useEffect, useMemo } from 'react';
import type { VehicleType } from '@decurio/core';
import type { OfferRequest } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { planApi } from '../../state/plan-api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { of100 } from '../../ui/of-100.js';
import { whenDay, whenSoon } from '../../ui/when.js';
import classes from './intake-card.module.css';

interface OfferCardProps {
  /** By id, or by the name that order files use. */
  readonly units: readonly {
    readonly typeId?: string;
    readonly name?: string;
    readonly mapId?: string | null;
    readonly count: number;
  }[];
  /** By when it is wanted, clock time of the house; empty where nobody said. */
  readonly wanted: string;
  /** Worked out at once, not only when somebody asks. */
  readonly isAsked?: boolean;
}

const CLOCK = /^\d{4}-\d\d-\d\dT\d\d:\d\d$/;

/** Before an order is taken: when it can be ready, and what it would push. Silent where there is no plan. */
export function OfferCard({ units, wanted, isAsked = false }: OfferCardProps) {
  const types = api.useLibraryQuery('vehicleType').data;
  const hasCrew = ((api.useLibraryQuery('crew').data ?? [])[0]?.document as { people?: readonly unknown[] } | undefined)
    ?.people?.length;
  const [ask, asking] = planApi.useOfferMutation();
  const request = useMemo((): OfferRequest | null => {
    const found = units.flatMap(({ typeId, name, mapId = null, count }) => {
      const id = typeId ?? types?.map((entry) => entry.document as VehicleType).find((type) => type.name === name)?.id;
      return id === undefined || id === '' || count === 0 ? [] : [{ typeId: id, mapId, count }];
    });
    return found.length === 0 ? null : { units: found, wanted: CLOCK.test(wanted) ? wanted : null, arrives: null };
  }, [units, wanted, types]);
  const key = JSON.stringify(request);
  useEffect(() => {
    if (isAsked && hasCrew && key !== 'null') void ask(JSON.parse(key) as OfferRequest);
  }, [isAsked, hasCrew, key, ask]);
  if (!hasCrew || request === null) return null;
  const offer = asking.data;
  const problem = asProblem(asking.error);
  return (
    <section className={classes['offer']} aria-label="When it can be ready" aria-live="polite">
      {asking.isLoading && <p className="soft">Working out when it can be ready …</p>}
      {problem && <Notice kind="care" says={problem.message} />}
      {offer && !asking.isLoading && (
        <>
          <p>
            {offer.behind ? (
              <>
                Can be ready <b>{whenSoon(offer.behind[90])}</b> with 90 of 100, behind all that was promised before.
              </>
            ) : (
              'It cannot be laid out whole: the plan says what is in the way.'
            )}
          </p>
          {offer.wanted && offer.wanted.inTime !== null && (
            <p>
              Wanted {whenDay(wanted)}: <b>{of100(offer.wanted.inTime)}</b>
              {offer.wanted.pushes.length === 0 ? ', and it pushes nothing.' : '. It would push:'}
            </p>
          )}
          <ul>
            {(offer.wanted?.pushes ?? []).map(({ number, customer, lateS, inTime }) => (
              <li key={number}>
                <b>{number}</b>, {customer}: {pushWords(lateS.after - lateS.before, inTime)}
              </li>
            ))}
          </ul>
        </>
      )}
      {!isAsked && (
        <ActButton busy={asking.isLoading} onAct={() => void ask(request)}>
          When could it be ready?
        </ActButton>
      )}
    </section>
  );
}

function pushWords(laterS: number, inTime: { readonly before: number | null; readonly after: number | null }): string {
  const late = laterS >= 300 ? `late by ${Math.round(laterS / 60)} min more` : '';
  const chance =
    inTime.before !== null && inTime.after !== null
      ? `${of100(inTime.before)} in time becomes ${of100(inTime.after)}`
      : '';
  return [late, chance].filter((words) => words !== '').join(', ');
}
