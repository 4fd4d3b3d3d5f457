import { useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import type { ErrorBody, PlanView } from '@decurio/contract';
import { linesOf } from '../state/lines-of.js';
import { planApi } from '../state/plan-api.js';
import type { AppDispatch } from '../state/store.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import classes from './plan-page.module.css';

const TONES = [
  ['stand', 'at the stand'],
  ['ride', 'run in the yard'],
  ['prove', 'prove'],
  ['sign', 'sign off'],
  ['wait', 'waits: restart, charging'],
] as const;

/** A stretch of the search: how far it came, and the plan where it became better. */
interface Looked {
  readonly share: number;
  readonly view: PlanView | null;
}

/** What the tones mean, how good the plan is, and a search that goes on as long as somebody lets it. */
export function LookLonger({ plan, mayLook }: { readonly plan: PlanView; readonly mayLook: boolean }) {
  const dispatch = useDispatch<AppDispatch>();
  const running = useRef<AbortController | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const look = async () => {
    const control = new AbortController();
    running.current = control;
    setShare(0);
    setProblem(null);
    try {
      const answer = await fetch('/api/plan/longer', { signal: control.signal });
      if (!answer.ok || !answer.body) throw new Error(((await answer.json()) as ErrorBody).error.message);
      for await (const lines of linesOf<Looked>(answer.body))
        for (const { share: sofar, view } of lines) {
          setShare(sofar);
          if (view) dispatch(planApi.util.updateQueryData('plan', null, () => view));
        }
    } catch (error) {
      // Stopped, the best that was found stands; else somebody should know.
      if (!control.signal.aborted) setProblem(error instanceof Error ? error.message : String(error));
    } finally {
      setShare(null);
    }
  };
  return (
    <footer className={classes['foot']}>
      <ul className={classes['legend']} aria-label="What the tones mean">
        {TONES.map(([tone, says]) => (
          <li key={tone} data-tone={tone}>
            {says}
          </li>
        ))}
      </ul>
      <span className="soft" role="status">
        {share === null ? goodWords(plan) : `Looking: ${Math.round(share * 100)} %. ${goodWords(plan)}`}
      </span>
      {problem !== null && <Notice kind="care" says={problem} />}
      {mayLook &&
        (share === null ? (
          <ActButton onAct={() => void look()}>Look longer</ActButton>
        ) : (
          <ActButton onAct={() => running.current?.abort()}>Stop looking</ActButton>
        ))}
    </footer>
  );
}

/** What is known of how much better it could be. */
function goodWords({ beyondS }: PlanView): string {
  const minutes = Math.round(beyondS / 60);
  return minutes < 1
    ? 'Nothing is later than it has to be.'
    : `At most ${minutes} min later, over all orders, than the best there can be.`;
}
