import { findCode, formatRaw, codeTitle, type DisplayMap, type VisitState } from '@decurio/core';
import classes from '../reading/reading.module.css';

/** What was read so far, as typed; no target and no verdict until all are read. */
export function ReadProgress({ state, map }: { readonly state: VisitState; readonly map: DisplayMap }) {
  const allRead = state.verdicts.every((v) => v.verdict !== 'notRead' || !state.toRead.includes(v.label));
  const next = state.toRead.find((label) => state.verdicts.some((v) => v.label === label && v.verdict === 'notRead'));
  return (
    <div className={classes['progress']}>
      <h2 className="cap">Read so far</h2>
      <ol>
        {state.toRead.map((label) => {
          const code = findCode(map, label);
          const readings = state.readings[label] ?? [];
          const last = readings.at(-1);
          return (
            <li key={label} data-now={label === next}>
              <b>{label}</b>
              <span>{code && codeTitle(code)}</span>
              <span className="num">
                {last === undefined || label === next
                  ? ''
                  : last === null
                    ? 'not shown'
                    : code
                      ? formatRaw(code, last)
                      : last}
              </span>
            </li>
          );
        })}
      </ol>
      {!allRead && (
        <p className="soft">
          Targets stay hidden until every code is read: believing oneself is the commonest mistake.
        </p>
      )}
    </div>
  );
}
