import { findCode, formatRaw, codeTitle, meaningBeside, type DisplayMap, type VisitState } from '@decurio/core';
import classes from '../reading/reading.module.css';

/** What was read before anything was touched, with its meaning; what is not as expected is marked. */
export function FoundSoFar({ state, map }: { readonly state: VisitState; readonly map: DisplayMap }) {
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
    </div>
  );
}
