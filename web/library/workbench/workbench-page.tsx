import { Shelves } from '../shelves.js';
import shelf from '../library-page.module.css';
import { CurrentForPower, PackFromVoltage, Range, Storage } from './electrical.js';
import { SpeedAtCap } from './speed-at-cap.js';
import { WheelForRollOut } from './wheel-for-roll-out.js';
import classes from './workbench.module.css';

/** The calculators of the bench without a unit, for the person on the phone. Nothing typed here is kept. */
export function WorkbenchPage() {
  return (
    <div className={shelf['page']}>
      <Shelves current="workbench" />
      <div className={classes['workbench']}>
        <header>
          <h1>Workbench</h1>
          <p className="soft">
            The bench&rsquo;s own arithmetic, without a unit. Nothing typed here is kept, and nothing here is a release.
          </p>
        </header>
        <SpeedAtCap />
        <WheelForRollOut />
        <PackFromVoltage />
        <CurrentForPower />
        <Range />
        <Storage />
      </div>
    </div>
  );
}
