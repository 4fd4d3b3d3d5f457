import { Link } from 'react-router';
import { asProblem } from '../state/api.js';
import { Busy, Notice } from '../ui/notice.js';
import { whenFull } from '../ui/when.js';
import { ledgerApi } from './ledger-api.js';
import classes from './record-page.module.css';

/** How far the ledger had come at each time, signed: texts to be kept where nobody of the house can reach them. */
export function CheckpointsPage() {
  const { data, error, refetch } = ledgerApi.useCheckpointsQuery(null);
  const problem = asProblem(error);
  return (
    <div className={classes['page']}>
      <header>
        <p className="cap">
          <Link to="/ledger">Ledger</Link>
        </p>
        <h1>Checkpoints</h1>
        <p>
          Each says how many seals and heads of open visits the ledger had, and one root over all of them, signed by a
          key that is not in the database. Keep one somewhere else: held against it later, entries that were changed,
          cut off or taken away no longer fit. It is no proof of when something was done, and none of what was never
          entered.
        </p>
      </header>
      <p>
        <a href="/api/ledger/checkpoints/key" download>
          The key by which anybody can check who signed
        </a>
      </p>
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {!data && !problem && <Busy />}
      {data?.length === 0 && (
        <Notice
          kind="note"
          title="None yet"
          says="One is made within minutes of a seal, where the server has a file for its key (docs/operating.md)."
        />
      )}
      {data && data.length > 0 && (
        <table className={classes['table']} aria-label="Checkpoints">
          <thead>
            <tr className="cap">
              <th scope="col">Made</th>
              <th scope="col">Leaves</th>
              <th scope="col">Text</th>
            </tr>
          </thead>
          <tbody>
            {data.map(({ size, root, at }) => (
              <tr key={size}>
                <td>
                  {whenFull(at)}
                  <small className={classes['root']}>root {root}</small>
                </td>
                <td className="num">{size}</td>
                <td>
                  <a href={`/api/ledger/checkpoints/${size}`} download>
                    Keep it elsewhere
                  </a>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
