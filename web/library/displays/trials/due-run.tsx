import { useState, type ReactNode } from 'react';
import { formatRaw, meaningBeside, QUANTITIES, type Code } from '@decurio/core';
import type { TrialView } from '@decurio/contract';
import { useDraft } from '../../../drafts/use-draft.js';
import type { Readings } from '../../../measuring/readings.js';
import { StopwatchFace, useWatch } from '../../../measuring/stopwatch.js';
import { TrueSpeedWays } from '../../../measuring/true-speed-ways.js';
import { api, asProblem } from '../../../state/api.js';
import { ActButton } from '../../../ui/act-button.js';
import { FigureField } from '../../../ui/figure-field.js';
import { useHotkeys } from '../../../ui/keys/use-hotkeys.js';
import { Notice } from '../../../ui/notice.js';
import classes from './trials.module.css';

/** The run that is due: the value to set, and what it measured. */
export function DueRun({ trial, code, raw }: { readonly trial: TrialView; readonly code: Code; readonly raw: number }) {
  const { id, plan, runs, more } = trial;
  const of = QUANTITIES[plan.quantity];
  const [add, adding] = api.useAddTrialRunMutation();
  const [back, backing] = api.useTakeTrialRunBackMutation();
  const write = async (measured: number): Promise<boolean> =>
    (await add({ id, body: { n: runs.length + 1, raw, measured } })).data !== undefined;
  const problem = asProblem(adding.error) ?? asProblem(backing.error);
  const lastBack = runs.length > 0 && (
    <ActButton busy={backing.isLoading} onAct={() => void back({ id, body: { n: runs.length } })}>
      {`Take run ${runs.length} back (${runs.at(-1)?.measured ?? ''} ${of.unit})`}
    </ActButton>
  );
  return (
    <div className={classes['due']}>
      <h2>
        Run {runs.length + 1} of {plan.values.length * more.reduce((sum, each) => sum + each, plan.each)}
      </h2>
      <p className={classes['set']}>
        Set <b className="num">{code.shownAs ?? code.label}</b> to <strong>{formatRaw(code, raw)}</strong>
        <span>{meaningBeside(code, raw)}</span>
      </p>
      <p>{of.does}</p>
      {problem && <Notice kind="stop" says={problem.message} />}
      {plan.quantity === 'endSpeed' ? (
        <SpeedRun trialId={id} onMeasured={write}>
          {lastBack}
        </SpeedRun>
      ) : (
        <FigureRun key={runs.length} trial={trial} busy={adding.isLoading} onMeasured={write}>
          {lastBack}
        </FigureRun>
      )}
    </div>
  );
}

/** A figure that is read off something or stopped by the watch. */
function FigureRun({
  trial: { id, plan, runs },
  busy,
  onMeasured,
  children,
}: {
  readonly trial: TrialView;
  readonly busy: boolean;
  readonly onMeasured: (measured: number) => Promise<boolean>;
  readonly children: ReactNode;
}) {
  const of = QUANTITIES[plan.quantity];
  const draft = useDraft(`trial.${id}.${runs.length}`, { measured: '' as number | '' });
  const { measured } = draft.value;
  const { startedAt, start, stop } = useWatch();
  const isTimed = of.unit === 's';
  const toggle = () => {
    if (startedAt === null) start();
    else draft.change({ measured: Math.round(stop() * 100) / 100 });
  };
  useHotkeys({ Space: isTimed ? toggle : undefined }, { shown: runs.length });
  const isAbsurd = measured !== '' && measured > of.most;
  const submit = async () => {
    if (measured === '' || isAbsurd) return;
    if (await onMeasured(measured)) draft.forget();
  };
  return (
    <form
      className={classes['due']}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      {isTimed && (
        <div className={classes['watch']} role="timer" aria-label="Stopwatch">
          <StopwatchFace startedAt={startedAt} stopped={null} className={classes['clock']} />
          <ActButton look={startedAt === null ? 'quiet' : 'care'} hotkey="Space" onAct={toggle}>
            {startedAt === null ? 'Start' : 'Stop'}
          </ActButton>
        </div>
      )}
      <FigureField
        label="Measured"
        unit={of.unit}
        value={measured}
        onChange={(next) => draft.change({ measured: next })}
        autoFocus={!isTimed}
        error={isAbsurd ? mostWords(of) : null}
        required
      />
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" hotkey="Enter" busy={busy} onAct={() => undefined}>
          Write it down
        </ActButton>
        {children}
      </div>
    </form>
  );
}

const mostWords = ({ most, unit }: { readonly most: number; readonly unit: string }): string =>
  `More than ${most} ${unit} cannot be meant. Look at the figure again.`;

/** A true speed, by the same instruments that calibrate. */
function SpeedRun({
  trialId,
  onMeasured,
  children,
}: {
  readonly trialId: string;
  readonly onMeasured: (measured: number) => Promise<boolean>;
  readonly children: ReactNode;
}) {
  const of = QUANTITIES.endSpeed;
  const [absurd, setAbsurd] = useState(false);
  const readings: Readings = {
    place: `trial.${trialId}`,
    unit: 'km/h',
    isTrueOnly: true,
    add: async (_, { speed }) => {
      setAbsurd(speed.kmh > of.most);
      if (speed.kmh <= of.most) await onMeasured(Number(speed.kmh.toFixed(2)));
    },
  };
  return (
    <>
      <TrueSpeedWays readings={readings} of={trialId} begin="spot" />
      {absurd && <Notice kind="stop" says={mostWords(of)} />}
      <p className="soft">Stay with one instrument through all runs: what is held against each other is read alike.</p>
      <div className={classes['acts']}>{children}</div>
    </>
  );
}
