import { Checkbox } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import { fullPackV, type VisitState } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { useDraft } from '../../drafts/use-draft.js';
import { FigureField } from '../../ui/figure-field.js';
import { KeyCap } from '../../ui/keys/key-cap.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { Notice } from '../../ui/notice.js';
import type { Visit } from '../use-visit.js';
import classes from './prove.module.css';
import panel from '../panel.module.css';

const ASKED = {
  unread: 'This is tried on a full pack alone: a cap proved on a half-empty one is not proved.',
  notFull:
    'By that meter the pack is not full. Charge it to the end with its own charger, let it rest, and read again.',
  notCharged:
    'By the meter it may be full, but it was not charged to the end since it last ran. Say so where it was, or charge it.',
  sunken: 'It was ridden some times since the meter was read: the pack may have sunk. Read it once more.',
} as const;

/** Before what needs a full pack: the meter, and whether its own charger ended. */
export function FullPack({
  state,
  visit,
  why,
  onLater,
}: {
  readonly state: VisitState;
  readonly visit: Visit;
  readonly why: 'unread' | 'notFull' | 'sunken';
  readonly onLater: () => void;
}) {
  const least = fullPackV(state.opened);
  const read = state.proving.full;
  const asked = why === 'notFull' && read && read.packV >= least ? 'notCharged' : why;
  const draft = useDraft(`fullPack.${state.visitId}.${state.seq}`, { packV: '' as number | '', isCharged: false });
  const { packV, isCharged } = draft.value;
  const [isMissing, setMissing] = useState(false);
  const wait = () => void visit.act('waitBegun', { test: null, words: 'Charging to full', dueAt: null });
  useHotkeys({ C: () => draft.change({ isCharged: !isCharged }), W: wait, N: onLater });
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (packV === '') return setMissing(true);
    draft.forget();
    void visit.act('fullRead', { packV, isCharged });
  };
  return (
    <form className={panel['stack']} onSubmit={keep}>
      <h2 className={panel['title']}>Is the pack full?</h2>
      <p className={panel['lead']}>{ASKED[asked]}</p>
      {read && why === 'notFull' && (
        <Notice
          kind="care"
          says={`Read at ${read.packV.toFixed(1)} V${read.isCharged ? '' : ', not charged since it ran'}; full is ${least.toFixed(1)} V at rest.`}
        />
      )}
      <div className={classes['entry']}>
        <FigureField
          label="Pack by meter, at rest"
          unit="V"
          value={packV}
          onChange={(packV) => draft.change({ packV })}
          error={isMissing && packV === '' ? 'Measure the pack and type its volts.' : null}
          hint={`Full from ${least.toFixed(1)} V`}
          autoFocus
          className={classes['figure']}
        />
        <Checkbox
          label={
            <>
              Charged to the end by its own charger since it last ran <KeyCap of="C" />
            </>
          }
          checked={isCharged}
          onChange={(event) => draft.change({ isCharged: event.currentTarget.checked })}
        />
      </div>
      <div className={panel['acts']}>
        <ActButton type="submit" look="main" hotkey="Enter" onAct={() => undefined}>
          That is what it reads
        </ActButton>
        <ActButton hotkey="W" onAct={wait}>
          Charging, stands aside
        </ActButton>
        <ActButton hotkey="N" onAct={onLater}>
          Something else first
        </ActButton>
      </div>
    </form>
  );
}
