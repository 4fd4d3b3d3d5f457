import { useMemo } from 'react';
import {
  DEFAULT_PACE,
  findCode,
  isKeyed,
  planInstructions,
  toRestore,
  valueWords,
  type KeyPlan,
  type VisitState,
} from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Busy } from '../../ui/notice.js';
import { usePlan, type PlanJob } from '../../workers/planner.js';
import { codePresses, type CodePresses } from '../key-in/code-presses.js';
import type { Visit } from '../use-visit.js';
import panel from '../panel.module.css';
import { Dialog } from '../../ui/dialog.js';
import classes from './restore-dialog.module.css';

/** The way back: every code to what it was found at, by the fewest presses, as a plan to work through. */
export function RestoreDialog({
  bench,
  state,
  visit,
  onClose,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
  readonly onClose: () => void;
}) {
  const { map } = bench;
  const back = useMemo(() => toRestore(state), [state]);
  const targets = useMemo(() => Object.fromEntries(back.map(({ label, raw }) => [label, raw])), [back]);
  const job = useMemo(
    (): PlanJob | null =>
      isKeyed(map)
        ? { kind: 'keys', map, targets, start: { values: state.values, at: null }, pace: DEFAULT_PACE }
        : null,
    [map, targets, state.values],
  );
  const plan = usePlan(job);
  const lines = isKeyed(map)
    ? plan && codesOf(map, plan).map(({ title, orders, ends }) => ({ title: ends ?? title, orders }))
    : [
        {
          title: 'Through the connection',
          orders: planInstructions(map, targets, state.values).instructions.map(({ says }) => says),
        },
      ];
  const done = async () => {
    const problem = await visit.act('restoredAsFound', { labels: back.map(({ label }) => label) });
    if (!problem) onClose();
  };
  return (
    <Dialog onClose={onClose} title="Restore as found" size="lg">
      <div className={panel['stack']}>
        <p>
          {back.length} {back.length === 1 ? 'code goes' : 'codes go'} back to what was found:{' '}
          {back
            .map(({ label, raw }) => {
              const code = findCode(map, label);
              return `${label} to ${code ? valueWords(code, raw) : raw}`;
            })
            .join('; ')}
          . What was read back is void after it, and key-in begins anew.
        </p>
        {lines === null ? (
          <Busy />
        ) : (
          <ol className={classes['codes']} aria-label="Presses back">
            {lines.map(({ title, orders }) => (
              <li key={title}>
                <b>{title}</b>
                <span>
                  {orders
                    .map((order, i) => (i === 0 ? order : order.charAt(0).toLowerCase() + order.slice(1)))
                    .join(', then ')}
                </span>
              </li>
            ))}
          </ol>
        )}
        <div className={panel['acts']}>
          <ActButton look="care" onAct={() => void done()}>
            All of it is back, record it
          </ActButton>
          <ActButton onAct={onClose}>Leave it as it is</ActButton>
        </div>
      </div>
    </Dialog>
  );
}

function codesOf(map: BenchView['map'], plan: KeyPlan): readonly CodePresses[] {
  const all: CodePresses[] = [];
  for (let from = 0; from < plan.steps.length; from = (all.at(-1)?.to ?? from) + 1)
    all.push(codePresses(map, plan, from));
  return all;
}
