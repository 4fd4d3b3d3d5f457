import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { AskedChange, PlanView } from '@decurio/contract';
import { dayIn } from '@decurio/core';
import { asProblem } from '../state/api.js';
import { planApi } from '../state/plan-api.js';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { Busy, Notice } from '../ui/notice.js';
import { whenDayOnly } from '../ui/when.js';
import { AtRisk } from './at-risk.js';
import { CostCard } from './cost-card.js';
import { GiveDialog } from './give-dialog.js';
import { LookLonger } from './look-longer.js';
import { MovedCard } from './moved-card.js';
import { NotesCard } from './notes-card.js';
import { isAtRisk, isPast } from './plan-words.js';
import { daysOf, opensAtMs, partsOf } from './timeline/lanes.js';
import { Timeline } from './timeline/timeline.js';
import classes from './plan-page.module.css';

const REFRESH_MS = 10_000;
const MOST_AT_RISK = 4;

/** The day as it is planned: people down, hours across; what is at risk, what moved, and what a change would cost. */
export function PlanPage() {
  const { data, error, refetch } = planApi.usePlanQuery(null, {
    pollingInterval: REFRESH_MS,
    skipPollingIfUnfocused: true,
    refetchOnMountOrArgChange: true,
  });
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice
        kind="stop"
        title="The plan cannot be shown"
        says={problem.message}
        act={{ label: 'Try again', onAct: () => void refetch() }}
        page
      />
    ) : (
      <Busy />
    );
  return <Plan plan={data} problem={problem?.message ?? null} />;
}

function Plan({ plan, problem }: { readonly plan: PlanView; readonly problem: string | null }) {
  const navigate = useNavigate();
  const { who } = useSession();
  const mayDecide = who?.role !== 'technician';
  const days = daysOf(plan, (ms) => dayIn(plan.zone, ms));
  const [isClose, setIsClose] = useState(false);
  const spans = isClose ? days.flatMap((each) => partsOf(plan, each)) : days;
  const [chosenMs, setChosenMs] = useState(() => opensAtMs(plan));
  const at = Math.max(
    0,
    spans.findLastIndex(({ fromMs }) => fromMs <= chosenMs),
  );
  const day = spans[at];
  const [asked, setAsked] = useState<readonly AskedChange[] | null>(null);
  const [giving, setGiving] = useState<string | null>(null);
  const go = (by: number) => setChosenMs(spans[Math.min(spans.length - 1, Math.max(0, at + by))]?.fromMs ?? 0);
  const openWhatIf = () => void navigate('/plan/what-if');
  const openPeople = () => void navigate('/plan/people');
  useHotkeys({
    W: plan.people.length > 0 ? openWhatIf : undefined,
    P: openPeople,
    N: spans.length > 1 ? () => go(1) : undefined,
    B: spans.length > 1 ? () => go(-1) : undefined,
    C: day ? () => setIsClose(!isClose) : undefined,
    Escape: asked ? () => setAsked(null) : undefined,
  });
  return (
    <>
      <header className={classes['head']}>
        <div>
          <p className="cap">Plan{day && ` · ${whenDayOnly(new Date(day.fromMs).toISOString())}`}</p>
          <h1>{headline(plan)}</h1>
        </div>
        <div className={classes['acts']}>
          {day && (
            <span className={classes['days']} role="group" aria-label="What is shown of it">
              <ActButton hotkey="B" disabled={at === 0} onAct={() => go(-1)}>
                {isClose ? 'Before' : 'Day before'}
              </ActButton>
              <ActButton hotkey="N" disabled={at >= spans.length - 1} onAct={() => go(1)}>
                {isClose ? 'Next' : 'Next day'}
              </ActButton>
              <ActButton hotkey="C" onAct={() => setIsClose(!isClose)}>
                {isClose ? 'Whole day' : 'Closer'}
              </ActButton>
            </span>
          )}
          {plan.people.length > 0 && (
            <ActButton hotkey="W" onAct={openWhatIf}>
              What if
            </ActButton>
          )}
          <ActButton hotkey="P" onAct={openPeople}>
            People and places
          </ActButton>
        </div>
      </header>
      {problem !== null && <Notice kind="care" says={`${problem} What you see may be old.`} />}
      {plan.units.length === 0 ? (
        <Notice
          kind="note"
          title="Nothing to plan"
          says="Every unit is sealed. Orders that are taken in stand here at once."
          act={{ label: 'Go to Orders', onAct: () => void navigate('/orders') }}
        />
      ) : plan.people.length === 0 ? (
        <Notice
          kind="note"
          title="Who is here?"
          says="Say who works here and when, and what there is to work at. The day is then laid out by itself."
          act={{ label: 'People and places', onAct: openPeople }}
        />
      ) : (
        <div className={classes['columns']}>
          <div className={classes['main']}>
            {day ? (
              <Timeline
                plan={plan}
                day={day}
                onGive={mayDecide ? (unitId, personId) => setAsked([{ kind: 'give', unitId, personId }]) : null}
                onOpen={setGiving}
              />
            ) : (
              <Notice kind="care" says="Nothing could be laid out. What is in the way stands at the right." />
            )}
            <LookLonger plan={plan} mayLook={mayDecide} />
          </div>
          <aside className={classes['side']}>
            {asked && <CostCard plan={plan} changes={asked} mayKeep={mayDecide} onEnd={() => setAsked(null)} />}
            {plan.orders
              .filter(isAtRisk)
              .slice(0, MOST_AT_RISK)
              .map((order, i, all) => (
                <AtRisk
                  key={order.id}
                  plan={plan}
                  order={order}
                  isFirst={all.findIndex((each) => !isPast(each, plan)) === i}
                  onTry={(change) => setAsked([change])}
                />
              ))}
            {plan.moves && <MovedCard plan={plan} moves={plan.moves} />}
            <NotesCard plan={plan} />
          </aside>
        </div>
      )}
      {giving !== null && (
        <GiveDialog
          plan={plan}
          unitId={giving}
          mayGive={mayDecide}
          onGive={(personId) => {
            setAsked([{ kind: 'give', unitId: giving, personId }]);
            setGiving(null);
          }}
          onClose={() => setGiving(null)}
        />
      )}
    </>
  );
}

function headline(plan: PlanView): string {
  const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;
  if (plan.people.length === 0) return `${count(plan.units.length, 'unit')}, and nobody is entered yet`;
  const risky = plan.orders.filter(isAtRisk).length;
  const there = plan.people.filter(({ hours }) => hours.length > 0).length;
  const parts = [
    count(plan.units.length, 'unit'),
    count(there, 'person', 'people'),
    count(plan.orders.length, 'order'),
  ];
  return `${parts.join(', ')}; ${risky === 0 ? 'none at risk' : risky === 1 ? 'one at risk' : `${risky} at risk`}`;
}
