import { useMemo } from 'react';
import { planInstructions, targetOf, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';
import classes from './key-in.module.css';

/** Step 4 of a unit that is set through an app or a service connection: what to choose and write, line by line. */
export function ByInstruction({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const { map } = bench;
  const { setup } = state.opened;
  const plan = useMemo(() => {
    const targets = Object.fromEntries(
      state.toKey.flatMap((label) => {
        const raw = targetOf(setup, label)?.raw;
        return raw === null || raw === undefined ? [] : [[label, raw]];
      }),
    );
    return planInstructions(map, targets, state.values);
  }, [map, setup, state.toKey, state.values]);
  const written = () => {
    for (const label of state.toKey) {
      const raw = targetOf(setup, label)?.raw;
      if (raw === null || raw === undefined) continue;
      const isBarred = plan.unreachable.some((u) => u.label === label);
      void (isBarred
        ? visit.act('codeStuck', { label, raw: state.values[label] ?? 0 })
        : visit.act('codeKeyed', { label, fromRaw: state.values[label] ?? raw, raw, presses: 0 }));
    }
    void visit.act('keyInClosed', {});
  };
  useHotkeys({ Space: written });
  return (
    <div className={panel['panel']}>
      <p className="cap">Key in · through {map.instructions?.via}</p>
      <h2 className={panel['title']}>
        {plan.instructions.length === 0 ? 'No value has to change' : 'Choose, write, reconnect, read again'}
      </h2>
      {plan.unreachable.map(({ label, why }) => (
        <Notice key={label} kind="care" says={why} />
      ))}
      <ol className={classes['instructions']} aria-label="Instructions">
        {plan.instructions.map((line, i) => (
          <li key={i} data-act={line.act}>
            {line.says}
          </li>
        ))}
      </ol>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={written}>
          {plan.instructions.length === 0 ? 'To restart' : 'All of it is written'}
        </ActButton>
      </div>
    </div>
  );
}
