import type { LearntFamily } from '@decurio/contract';
import { api } from '../../state/api.js';
import { LeaveOut } from './leave-out.js';
import classes from './learnt.module.css';

/** Units that do not read as their family, and those that a lead left out, with the reason. */
export function OddRuns({ family: { runs, advice } }: { readonly family: LearntFamily }) {
  const [leave, leaving] = api.useLeaveRunOutMutation();
  const leftOut = runs.filter((run) => run.leftOut !== null);
  if (advice.odd.length === 0 && leftOut.length === 0) return null;
  return (
    <ul className={classes['odd']} aria-label="Units unlike their family">
      {advice.odd.map(({ run, seen }) => (
        <LeaveOut
          key={run.visitId}
          unit={run}
          says={
            seen === 'atOnce'
              ? 'reads otherwise than those before it. Until somebody says why, it counts, and makes the family less sure.'
              : 'reads otherwise than all the others together. Until somebody says why, it counts, and makes the family less sure.'
          }
          leave={leave}
          leaving={leaving}
        />
      ))}
      {leftOut.map((run) => (
        <LeaveOut
          key={run.visitId}
          unit={run}
          says={`left out by ${run.leftOut?.by}: ${run.leftOut?.words}`}
          leave={leave}
          leaving={leaving}
        />
      ))}
    </ul>
  );
}

/** The unit on which drive acted farthest beyond its cap, as the next ones are capped by it, and those left out. */
export function Overshoots({ family: { overshoots } }: { readonly family: LearntFamily }) {
  const [leave, leaving] = api.useLeaveOvershootOutMutation();
  const farthest = overshoots.find(({ leftOut }) => leftOut === null);
  const leftOut = overshoots.filter((each) => each.leftOut !== null);
  if (overshoots.length === 0) return null;
  const beyond = (kmh: number): string => `had drive ${kmh.toFixed(1)} km/h beyond its cap`;
  return (
    <ul className={classes['odd']} aria-label="Drive beyond the cap">
      {farthest && (
        <LeaveOut
          key={farthest.visitId}
          unit={farthest}
          says={`${beyond(farthest.kmh)}, farther than the map says: the next ones are capped by it.`}
          leave={leave}
          leaving={leaving}
        />
      )}
      {leftOut.map((each) => (
        <LeaveOut
          key={each.visitId}
          unit={each}
          says={`${beyond(each.kmh)}; left out by ${each.leftOut?.by}: ${each.leftOut?.words}`}
          leave={leave}
          leaving={leaving}
        />
      ))}
    </ul>
  );
}
