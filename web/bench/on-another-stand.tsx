import type { VisitState } from '@decurio/core';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { whenClock } from '../ui/when.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** The unit is on another stand: one may look, and take it over knowing whose it was. */
export function OnAnotherStand({ state, visit }: { readonly state: VisitState; readonly visit: Visit }) {
  const { who } = useSession();
  const { station, by } = state.stand;
  const take = () => void visit.act('takenOver', { from: station });
  useHotkeys({ O: take });
  return (
    <div className={classes['panel']}>
      <Notice
        kind="care"
        title={`This unit is on ${station}`}
        says={`${by.name} works on it there; newest entry at ${whenClock(state.lastAt)}. You see what they enter as it comes.`}
      />
      <p className={classes['lead']}>
        If the vehicle itself stands here now, take it over: its cautions are asked again, and {station} sees that it
        moved.
      </p>
      <div className={classes['acts']}>
        <ActButton look="care" hotkey="O" onAct={take}>
          Take it over to {who?.station ?? 'here'}
        </ActButton>
        <span className="soft">Or scan another unit.</span>
      </div>
    </div>
  );
}
