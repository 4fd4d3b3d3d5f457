import { Suspense, useState } from 'react';
import { findCode, formatRaw, codeTitle, meaningBeside, type DisplayMap, type VisitState } from '@decurio/core';
import { KeyButton } from '../../ui/keys/key-button.js';
import { part } from '../lazy-part.js';
import type { Visit } from '../use-visit.js';
import classes from '../reading/reading.module.css';

const StrayDialog = part(() => import('./stray-dialog.js').then((m) => ({ default: m.StrayDialog })));

export interface FoundSoFarProps {
  readonly state: VisitState;
  readonly map: DisplayMap;
  readonly visit: Visit;
  /** The unit is on this stand: more may be told of it. */
  readonly isHere: boolean;
}

/** What was read before anything was touched, with its meaning; what is not as expected is marked. */
export function FoundSoFar({ state, map, visit, isHere }: FoundSoFarProps) {
  const [stray, setStray] = useState(false);
  const labels = map.codes
    .map(({ label }) => label)
    .filter((label) => label in state.found || state.toFind.includes(label));
  return (
    <div className={classes['progress']}>
      <h2 className="cap">Found so far</h2>
      <ol>
        {labels.map((label) => {
          const code = findCode(map, label);
          const raw = state.found[label];
          const met = state.surprises.find((surprise) => surprise.label === label);
          return (
            <li key={label} data-now={label === state.toFind[0]} data-odd={met !== undefined}>
              <b>{label}</b>
              <span>
                {code && codeTitle(code)}
                {met && <small> not as expected</small>}
              </span>
              <span className="num">
                {raw === undefined ? '' : raw === null ? 'not shown' : code ? formatRaw(code, raw) : raw}{' '}
                {code && raw !== undefined && raw !== null && <small>{meaningBeside(code, raw)}</small>}
              </span>
            </li>
          );
        })}
      </ol>
      {isHere && (
        <KeyButton hotkey="A" onAct={() => setStray(true)}>
          A code that is not asked for
        </KeyButton>
      )}
      <Suspense fallback={null}>{stray && <StrayDialog visit={visit} onClose={() => setStray(false)} />}</Suspense>
    </div>
  );
}
