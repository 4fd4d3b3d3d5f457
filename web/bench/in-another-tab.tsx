import { ActButton } from '../ui/act-button.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { Notice } from '../ui/notice.js';
import classes from './panel.module.css';

/** The unit is open in another page of this device: one of them works on it. */
export function InAnotherTab({ serial, onTake }: { readonly serial: string; readonly onTake: () => void }) {
  useHotkeys({ O: onTake });
  return (
    <div className={classes['panel']}>
      <Notice
        kind="care"
        title={`${serial} is open in another page of this device`}
        says="One page works on a unit at a time, so that no press is ordered twice. What was keyed there is known here once you go on."
      />
      <div className={classes['acts']}>
        <ActButton look="main" hotkey="O" onAct={onTake}>
          Go on in this page
        </ActButton>
      </div>
    </div>
  );
}
