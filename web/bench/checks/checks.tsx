import { TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  checksLeft,
  isBad,
  askedRange,
  stepTitle,
  type EvidenceData,
  type VisitCheck,
  type VisitState,
} from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { KeyButton } from '../../ui/keys/key-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { FigureField } from '../../ui/figure-field.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { useHabit } from '../gone-through.js';
import type { Visit } from '../use-visit.js';
import { CheckMarks } from './check-marks.js';
import classes from './checks.module.css';
import panel from '../panel.module.css';

type Made = EvidenceData['checkMade'];

/** The checks of a step one by one, before the step itself: good with one key, or what is not. */
export function Checks({
  state,
  visit,
  step,
}: {
  readonly state: VisitState;
  readonly visit: Visit;
  readonly step: VisitCheck['step'];
}) {
  const left = checksLeft(state, step);
  const [check] = left;
  const looks = (state.opened.bench?.checks ?? []).filter((each) => each.step === step && each.asks.kind === 'look');
  const { isTogether, keep } = useHabit(
    'checks',
    state.opened.versions.type.id,
    looks.map(({ id }) => id),
  );
  const [oneByOne, setOneByOne] = useState(false);
  if (!check) return null;
  const after = left.findIndex(({ asks }) => asks.kind !== 'look');
  const next = after < 0 ? left : left.slice(0, after);
  return (
    <div className={panel['panel']}>
      <p className="cap">{stepTitle(step)} · checks before delivery</p>
      {step === 'checkIn' && (
        <p className={classes['first']}>
          A pack that is hot, hissing, swollen or wet: nothing of this. Hold this unit and take it outdoors.
        </p>
      )}
      <CheckMarks state={state} step={step} now={check.id} />
      {isTogether && !oneByOne && next.length > 1 ? (
        <LooksTogether checks={next} visit={visit} onOneByOne={() => setOneByOne(true)} />
      ) : (
        <OneCheck key={check.id} check={check} visit={visit} tool={lastTool(state)} onLooked={() => keep([check.id])} />
      )}
    </div>
  );
}

/** What is only looked at and was gone through one by one on the unit before: all of it is good, or one is not. */
function LooksTogether({
  checks,
  visit,
  onOneByOne,
}: {
  readonly checks: readonly VisitCheck[];
  readonly visit: Visit;
  readonly onOneByOne: () => void;
}) {
  const good = () => {
    for (const { id } of checks)
      void visit.act('checkMade', {
        check: id,
        outcome: 'good',
        figure: null,
        text: '',
        tool: '',
        words: '',
        together: true,
      });
  };
  useHotkeys({ Space: good, N: onOneByOne }, { shown: checks[0]?.id ?? '' });
  return (
    <>
      <h2 className={panel['title']}>All of these are good</h2>
      <ul className={classes['looks']}>
        {checks.map(({ id, title, how }) => (
          <li key={id}>
            <strong>{title}.</strong> {how}
          </li>
        ))}
      </ul>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={good}>
          All good, next
        </ActButton>
        <ActButton look="care" hotkey="N" onAct={onOneByOne}>
          One is not
        </ActButton>
      </div>
    </>
  );
}

/** The tool that was named last is most likely in the hand still. */
const lastTool = ({ checks }: VisitState): string =>
  Object.values(checks).findLast(({ tool }) => tool !== '')?.tool ?? '';

interface OneCheckProps {
  readonly check: VisitCheck;
  readonly visit: Visit;
  readonly tool: string;
  /** A plain look was good. */
  readonly onLooked: () => void;
}

function OneCheck({ check, visit, tool: toolBefore, onLooked }: OneCheckProps) {
  const { asks } = check;
  const draft = useDraft(`check.${visit.state?.visitId ?? ''}.${check.id}`, {
    figure: '' as number | '',
    text: '',
    tool: toolBefore,
    words: '',
    isWrong: false,
  });
  const { figure, text, tool, words, isWrong } = draft.value;
  const setWrong = (isWrong: boolean) => draft.change({ isWrong });
  const [busy, setBusy] = useState(false);
  const made = (outcome: Made['outcome']): Made => ({
    check: check.id,
    outcome,
    figure: asks.kind === 'figure' && outcome !== 'notFitted' && figure !== '' ? figure : null,
    text: asks.kind === 'number' && outcome === 'good' ? text.trim() : '',
    tool: asks.kind === 'figure' && asks.withTool && outcome !== 'notFitted' ? tool.trim() : '',
    words: words.trim(),
  });
  const say = async (outcome: Made['outcome']) => {
    setBusy(true);
    const problem = await visit.act('checkMade', made(outcome));
    setBusy(false);
    if (problem) return;
    draft.forget();
    if (outcome === 'good' && check.asks.kind === 'look') onLooked();
  };
  const good = () => void say('good');
  const isPlain = asks.kind === 'look' && !isWrong;
  const mayBeWrong = asks.kind !== 'number';
  useHotkeys({ Space: isPlain ? good : undefined, N: isWrong || !mayBeWrong ? undefined : () => setWrong(true) });
  const range = askedRange(asks);
  const stops = isBad(check, made('good'));
  return (
    <form
      className={classes['one']}
      onSubmit={(event) => {
        event.preventDefault();
        void say(isWrong ? 'notGood' : 'good');
      }}
    >
      <h2 className={panel['title']}>{check.title}</h2>
      <Begun draft={draft} />
      <p className={panel['lead']}>{check.how}</p>
      {asks.kind === 'figure' && (
        <div className={panel['row']}>
          <FigureField
            label={range === '' ? `Read, ${asks.unit}` : `Read, ${asks.unit}: ${range}`}
            unit={asks.unit}
            value={figure}
            onChange={(figure) => draft.change({ figure })}
            autoFocus
          />
          {asks.withTool && (
            <TextInput
              label="Tool, its number"
              value={tool}
              onChange={(e) => draft.change({ tool: e.target.value })}
              maxLength={40}
            />
          )}
        </div>
      )}
      {asks.kind === 'number' && (
        <TextInput
          label={check.title}
          value={text}
          onChange={(e) => draft.change({ text: e.target.value })}
          maxLength={60}
          autoFocus={!isWrong}
          className={classes['number'] ?? ''}
        />
      )}
      {isWrong && (
        <TextInput
          label="What is not good"
          value={words}
          onChange={(e) => draft.change({ words: e.target.value })}
          maxLength={300}
          autoFocus
        />
      )}
      {(isWrong || stops) && <p className={classes['holds']}>This holds the unit until a lead has decided.</p>}
      <div className={panel['acts']}>
        {isWrong ? (
          <>
            <ActButton type="submit" look="care" hotkey="Enter" busy={busy} onAct={() => undefined}>
              Not good: hold it
            </ActButton>
            <KeyButton hotkey="Y" onAct={() => setWrong(false)}>
              It is good after all
            </KeyButton>
          </>
        ) : (
          <>
            <ActButton
              type="submit"
              look={stops ? 'care' : 'main'}
              hotkey={isPlain ? 'Space' : 'Enter'}
              busy={busy}
              disabled={(asks.kind === 'figure' && figure === '') || (asks.kind === 'number' && text.trim() === '')}
              onAct={() => undefined}
            >
              {asks.kind === 'look' ? 'Good, next' : stops ? 'Read so: hold it' : 'Read so, next'}
            </ActButton>
            {mayBeWrong && (
              <ActButton look="care" hotkey="N" onAct={() => setWrong(true)}>
                Not good
              </ActButton>
            )}
            <KeyButton hotkey="X" busy={busy} onAct={() => void say('notFitted')}>
              Has none
            </KeyButton>
          </>
        )}
      </div>
    </form>
  );
}
