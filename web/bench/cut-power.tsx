import { Dialog } from '../ui/dialog.js';
import classes from './cut-power.module.css';

/** How to cut power on this type, in one line, over everything else. */
export function CutPower({ says, onClose }: { readonly says: string; readonly onClose: () => void }) {
  return (
    <Dialog onClose={onClose} title="Cut power" size="xl">
      <p className={classes['says']} role="alert">
        {says}
      </p>
      <p className="soft">Hands off the throttle, wheel clear. Escape closes this.</p>
    </Dialog>
  );
}
