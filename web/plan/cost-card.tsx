import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import type { AskedChange, PlanView, Scenario, WhatIfRequest } from '@decurio/contract';
import { asProblem } from '../state/api.js';
import { planApi } from '../state/plan-api.js';
import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { Notice } from '../ui/notice.js';
import { MovedList } from './moved-card.js';
import { changeWords, clockOf, isKeepable, keptElsewhere } from './plan-words.js';
import classes from './plan-cards.module.css';

interface CostCardProps {
  readonly plan: PlanView;
  readonly changes: readonly AskedChange[];
  readonly mayKeep: boolean;
  readonly onEnd: () => void;
}

/** What a change would cost before it is kept: orders whose chance moves, and units that stand otherwise. */
export function CostCard({ plan, changes, mayKeep, onEnd }: CostCardProps) {
  const navigate = useNavigate();
  const [scenario, asking] = useScenario(changes, plan.revision);
  const [keep, keeping] = planApi.useKeepChangesMutation();
  const { revision } = plan;
  const problem = asProblem(keeping.error) ?? asking.problem;
  const elsewhere = changes.map(keptElsewhere).find((words) => words !== null) ?? null;
  const canKeep = mayKeep && scenario !== null && changes.every(isKeepable);
  const keepIt = () => {
    void keep({ revision, changes }).then((answer) => {
      if (answer.data) onEnd();
    });
  };
  useHotkeys({ K: canKeep && !keeping.isLoading ? keepIt : undefined });
  const orderChanges = scenario ? (asking.isSure ? changedOrders(plan, scenario) : movedOrders(plan, scenario)) : [];
  const given = changes.find((change) => change.kind === 'follow');
  return (
    <section className={classes['card']} data-here aria-label="What it would cost" aria-live="polite">
      <h2 className="cap">If so</h2>
      <h3>{changes.map((change) => changeWords(change, plan)).join('; ')}</h3>
      {!asking.isSure && !problem && (
        <p className="soft">{scenario ? 'As it would be laid out; chances are worked out …' : 'Working it out …'}</p>
      )}
      {problem && <Notice kind="stop" says={problem.message} />}
      {scenario && (
        <>
          {orderChanges.length === 0 && asking.isSure && (
            <p>No order is ready sooner or later by more than a few minutes.</p>
          )}
          <ul className={classes['costs']}>
            {orderChanges.slice(0, SHOWN).map(({ id, number, says, was, is }) => (
              <li key={id} data-worse={is !== null && was !== null && is < was ? true : undefined}>
                <span>
                  <b>{number}</b> {says}
                </span>
                {was !== null && is !== null && Math.round(was) !== Math.round(is) && (
                  <span className="num">
                    {Math.round(was)} <span aria-label="becomes">→</span> <b>{Math.round(is)}</b>
                  </span>
                )}
              </li>
            ))}
            {orderChanges.length > SHOWN && (
              <li className="soft">{orderChanges.length - SHOWN} more sooner or later, their chance much as it is</li>
            )}
          </ul>
          <MovedList plan={plan} moved={scenario.moved.filter((each) => !isAsked(changes, each.unitId))} />
        </>
      )}
      {elsewhere !== null && <p className="soft">{elsewhere}</p>}
      <div className={classes['acts']}>
        {changes.every(isKeepable) ? (
          mayKeep && (
            <ActButton look="main" hotkey="K" busy={keeping.isLoading} disabled={!canKeep} onAct={keepIt}>
              Keep it
            </ActButton>
          )
        ) : (
          <ActButton onAct={() => void navigate(`/orders/${given?.orderId ?? ''}`)}>To the order</ActButton>
        )}
        <ActButton hotkey="Escape" onAct={onEnd}>
          Put back
        </ActButton>
      </div>
    </section>
  );
}

const isAsked = (changes: readonly AskedChange[], unitId: string): boolean =>
  changes.some((change) => change.kind === 'give' && change.unitId === unitId);

const SHOWN = 4;

/** Less than this nobody minds: of 100, and ms. */
const MINDED = { inTime: 2, ms: 5 * 60_000 };

/** What comes of changes: how it is laid out comes at once, the chances of every order a moment later. */
function useScenario(changes: readonly AskedChange[], revision: number) {
  const [askAtOnce, atOnce] = planApi.useWhatIfMutation();
  const [askCarefully, careful] = planApi.useWhatIfMutation();
  useEffect(() => {
    let isWanted = true;
    const scenarios = [changes];
    void askAtOnce({ revision, scenarios, look: 'atOnce' }).then(({ data }) => {
      if (isWanted && data) void askCarefully({ revision, scenarios, look: 'careful' });
    });
    return () => {
      isWanted = false;
    };
  }, [askAtOnce, askCarefully, changes, revision]);
  const sure = answerTo(changes, careful);
  const scenario = sure ?? answerTo(changes, atOnce);
  return [scenario, { isSure: sure !== null, problem: asProblem(atOnce.error) ?? asProblem(careful.error) }] as const;
}

/** What was asked before is not shown as an answer to this. */
const answerTo = (
  changes: readonly AskedChange[],
  {
    originalArgs,
    data,
  }: { readonly originalArgs?: WhatIfRequest | undefined; readonly data?: readonly Scenario[] | undefined },
): Scenario | null => (originalArgs?.scenarios[0] === changes ? (data?.[0] ?? null) : null);

/** Orders that are laid out sooner or later, before their chances are known. */
function movedOrders(plan: PlanView, { orders }: Scenario) {
  return plan.orders.flatMap((order) => {
    const then = orders.find(({ orderId }) => orderId === order.id);
    if (!then || then.readyMs === order.readyMs) return [];
    const isMinded =
      then.readyMs === null || order.readyMs === null || Math.abs(then.readyMs - order.readyMs) >= MINDED.ms;
    const says = then.readyMs === null ? 'cannot be laid out whole' : `ready ${clockOf(then.readyMs)} by the plan`;
    return isMinded ? [{ id: order.id, number: order.number, says, was: null, is: null, by: 0 }] : [];
  });
}

function changedOrders(plan: PlanView, scenario: Scenario) {
  const changed = plan.orders.flatMap((order) => {
    const then = scenario.orders.find(({ orderId }) => orderId === order.id);
    if (!then) return [];
    const [was, is] = [order.readyBy?.[80] ?? null, then.readyBy?.[80] ?? null];
    const chance = order.inTime !== null && then.inTime !== null ? then.inTime - order.inTime : 0;
    const moves = was !== null && is !== null ? is - was : is === was ? 0 : MINDED.ms;
    if (Math.abs(chance) < MINDED.inTime && Math.abs(moves) < MINDED.ms) return [];
    const says = is === null ? 'cannot be laid out whole' : `by ${clockOf(is)} with 80 of 100`;
    return [{ id: order.id, number: order.number, says, was: order.inTime, is: then.inTime, by: Math.abs(chance) }];
  });
  return changed.sort((a, b) => b.by - a.by);
}
