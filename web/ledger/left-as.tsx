import {
  findCode,
  formatRaw,
  codeTitle,
  meaningOf,
  type DisplayMap,
  type Evidence,
  type VisitState,
} from '@decurio/core';
import classes from './record-page.module.css';

export interface LeftAsProps {
  readonly state: VisitState;
  readonly map: DisplayMap;
  readonly evidence: readonly Evidence[];
}

/** Every code at its newest reading, beside what it had to show. */
export function LeftAs({ state, map, evidence }: LeftAsProps) {
  const undone = new Set(evidence.flatMap((entry) => (entry.kind === 'undone' ? [entry.data.voids] : [])));
  const newest = new Map(
    evidence.flatMap((entry) =>
      entry.kind === 'codeRead' && !undone.has(entry.id) ? [[entry.data.label, entry.data.raw] as const] : [],
    ),
  );
  return (
    <section className={classes['part']} aria-label="Codes as read">
      <h2 className="cap">{state.step === null ? 'How it left' : 'Codes so far'}</h2>
      <table className={classes['table']}>
        <thead>
          <tr className="cap">
            <th scope="col">Code</th>
            <th scope="col">Sets</th>
            <th scope="col">Found</th>
            <th scope="col">Read</th>
            <th scope="col">Must</th>
          </tr>
        </thead>
        <tbody>
          {state.opened.setup.targets.map((target) => {
            const code = findCode(map, target.label);
            const raw = newest.get(target.label);
            const stands = state.accepted[target.label];
            const against = target.raw !== null && raw !== undefined && raw !== target.raw && stands === undefined;
            const first = state.found[target.label];
            return (
              <tr key={target.label} data-against={against}>
                <th scope="row">{target.label}</th>
                <td>
                  {codeTitle(code ?? target)}
                  <small>
                    {stands
                      ? `Accepted by ${stands.by}: ${stands.words}`
                      : code && typeof raw === 'number'
                        ? meaningOf(code, raw)
                        : target.because}
                  </small>
                </td>
                <td className="num">
                  {first === undefined ? '–' : first === null ? 'not shown' : code ? formatRaw(code, first) : first}
                </td>
                <td className="num">
                  {raw === undefined ? '–' : raw === null ? 'not shown' : code ? formatRaw(code, raw) : raw}
                </td>
                <td className="num">
                  {target.raw === null ? 'as found' : code ? formatRaw(code, target.raw) : target.raw}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
