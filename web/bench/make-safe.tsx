import { IconCheck } from '@tabler/icons-react';
import type { VisitState } from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { Begun } from '../drafts/begun.js';
import { useDraft } from '../drafts/use-draft.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { useHabit } from './gone-through.js';
import type { Visit } from './use-visit.js';
import classes from './make-safe.module.css';
import panel from './panel.module.css';

interface MakeSafeProps {
  readonly state: VisitState;
  readonly visit: Visit;
}

/** Step 2, and again whenever the unit came back to a stand: each caution that applies, acknowledged. */
export function MakeSafe(props: MakeSafeProps) {
  const { state } = props;
  const { isTogether, keep } = useHabit('cautions', state.opened.versions.type.id, state.opened.bench?.cautions ?? []);
  const isFirst = state.step === 'makeSafe';
  return isFirst && isTogether ? <Together {...props} /> : <OneByOne {...props} onDone={keep} />;
}

/** The same person went through the same cautions in this shift: they stand there once more, and one key says they hold. */
function Together({ state, visit }: MakeSafeProps) {
  const cautions = state.opened.bench?.cautions ?? [];
  const finish = () => void visit.act('madeSafe', { cautions, together: true });
  useHotkeys({ Space: finish });
  return (
    <div className={panel['panel']}>
      <p className="cap">Make safe · as on the unit before</p>
      <h2 className={panel['title']}>All of this holds here too</h2>
      <ul className={classes['together']} aria-label="Cautions">
        {cautions.map((caution) => (
          <li key={caution}>{caution}</li>
        ))}
      </ul>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={finish}>
          It holds, to as found
        </ActButton>
        <span className="soft">One by one again after a shift, on another type, and after any surprise.</span>
      </div>
    </div>
  );
}

function OneByOne({
  state,
  visit,
  onDone,
}: MakeSafeProps & { readonly onDone: (cautions: readonly string[]) => void }) {
  const cautions = state.opened.bench?.cautions ?? [];
  const draft = useDraft(`makeSafe.${state.visitId}.${state.seq}`, { seen: [] as readonly string[] });
  const seen = new Set(draft.value.seen);
  const next = cautions.find((caution) => !seen.has(caution));
  const isAgain = state.step !== 'makeSafe';
  const finish = () => {
    draft.forget();
    onDone(cautions);
    void visit.act('madeSafe', { cautions });
  };
  const acknowledge = (caution: string) => draft.change({ seen: [...seen, caution] });
  const go = () => (next === undefined ? finish() : acknowledge(next));
  useHotkeys({ Space: go }, { shown: next ?? '' });
  return (
    <div className={panel['panel']}>
      <p className="cap">Make safe{isAgain && ' · it came back to a stand'}</p>
      <h2 className={panel['title']}>{isAgain ? 'Once more before hands go on' : 'Before hands go on'}</h2>
      <Begun draft={draft} />
      <ol className={classes['cautions']} aria-label="Cautions">
        {cautions.map((caution) => (
          <li
            key={caution}
            data-mark={seen.has(caution) ? 'done' : caution === next ? 'now' : 'todo'}
            aria-current={caution === next ? 'step' : undefined}
          >
            <button type="button" aria-pressed={seen.has(caution)} onClick={() => acknowledge(caution)}>
              <span aria-hidden="true">{seen.has(caution) && <IconCheck size={18} stroke={2.6} />}</span>
              {caution}
            </button>
          </li>
        ))}
      </ol>
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" onAct={go}>
          {next === undefined ? (isAgain ? 'Safe, go on' : 'Safe, to as found') : 'Done or understood, next'}
        </ActButton>
        <span className="soft" aria-live="polite">
          {cautions.length - seen.size === 0 ? 'All acknowledged' : `${cautions.length - seen.size} to go`}
        </span>
      </div>
    </div>
  );
}
