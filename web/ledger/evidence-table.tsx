import type { DisplayMap, Evidence } from '@decurio/core';
import { evidenceTitle, evidenceWords } from '../ui/evidence-words.js';
import { whenClock, whenFull, whenSecond } from '../ui/when.js';
import classes from './record-page.module.css';

const LATE_MS = 5 * 60_000;

/** Every entry in the order it was made, with who, where and when, and the hash that chains it. */
export function EvidenceTable({ evidence, map }: { readonly evidence: readonly Evidence[]; readonly map: DisplayMap }) {
  const undone = new Set(evidence.flatMap((entry) => (entry.kind === 'undone' ? [entry.data.voids] : [])));
  return (
    <section className={classes['part']} aria-label="Every entry">
      <h2 className="cap">
        {evidence.length} entries, first {evidence[0] ? whenFull(evidence[0].at) : ''}
      </h2>
      <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Entries">
        <table className={classes['table']}>
          <thead>
            <tr className="cap">
              <th scope="col">No.</th>
              <th scope="col">At</th>
              <th scope="col">By</th>
              <th scope="col">What</th>
              <th scope="col">Hash</th>
            </tr>
          </thead>
          <tbody>
            {evidence.map((entry) => (
              <tr key={entry.id} data-undone={undone.has(entry.id)}>
                <td className="num">{entry.seq}</td>
                <td className="num">
                  {whenSecond(entry.at)}
                  <Arrival entry={entry} />
                </td>
                <td className={classes['who']}>
                  {entry.by.name}
                  <small>{entry.station}</small>
                </td>
                <td>
                  <b>{evidenceTitle(entry.kind)}</b> {evidenceWords(entry, map)}
                  {entry.kind === 'photographed' && (
                    <a href={`/api/photos/${entry.data.photoId}`} target="_blank" rel="noreferrer">
                      {' '}
                      see it
                    </a>
                  )}
                  {undone.has(entry.id) && <small>taken back later</small>}
                </td>
                <td className="num" title={entry.hash}>
                  {entry.hash.slice(0, 8)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** An entry that waited on a device, or whose device's clock was off: when it arrived, and by how much. */
function Arrival({ entry: { at, receivedAt, clockOffS } }: { readonly entry: Evidence }) {
  const isLate = receivedAt !== undefined && Math.abs(Date.parse(receivedAt) - Date.parse(at)) > LATE_MS;
  if (!isLate && clockOffS === undefined) return null;
  return (
    <small className={classes['late']}>
      {isLate && `arrived ${whenClock(receivedAt)}`}
      {clockOffS !== undefined &&
        ` clock ${Math.round(Math.abs(clockOffS) / 60)} min ${clockOffS > 0 ? 'ahead' : 'behind'}`}
    </small>
  );
}
