import { useRef, useState } from 'react';
import { useDispatch } from 'react-redux';
import type { PlanView } from '@decurio/contract';
import { planApi } from '../state/plan-api.js';
import type { AppDispatch } from '../state/store.js';
import { ActButton } from '../ui/act-button.js';
import classes from './plan-page.module.css';

const TONES = [
  ['stand', 'at the stand'],
  ['ride', 'run in the yard'],
  ['prove', 'prove'],
  ['sign', 'sign off'],
  ['wait', 'waits: restart, charging, watched'],
] as const;

/** What the tones mean, how good the plan is, and a search that goes on as long as somebody lets it. */
export function LookLonger({ plan, mayLook }: { readonly plan: PlanView; readonly mayLook: boolean }) {
  const dispatch = useDispatch<AppDispatch>();
  const running = useRef<AbortController | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const look = async () => {
    const control = new AbortController();
    running.current = control;
    setShare(0);
    try {
      const answer = await fetch('/api/plan/longer', { signal: control.signal });
      if (!answer.ok || !answer.body) return;
      const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
      for (let rest = ''; ;) {
        const { value, done } = await reader.read();
        if (done) break;
        const lines = (rest + value).split('\n');
        rest = lines.pop() ?? '';
        for (const line of lines) {
          const told = JSON.parse(line) as { readonly share: number; readonly view: PlanView | null };
          setShare(told.share);
          const { view } = told;
          if (view) dispatch(planApi.util.updateQueryData('plan', null, () => view));
        }
      }
    } catch {
      // Stopped, or the line broke: the plan that stands is the best that was found.
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
