import { useState } from 'react';
import { Link } from 'react-router';
import { shortSeal } from '@decurio/core';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { whenFull } from '../ui/when.js';
import classes from './ledger-page.module.css';

/** Every sealed visit whose serial, order or customer begins so, earlier ones of a unit too. */
export function FoundByBeginning({ search }: { readonly search: string }) {
  const [after, setAfter] = useState<readonly string[]>([]);
  const cursor = after.at(-1);
  const { data, error, isFetching, refetch } = api.useLedgerQuery({
    search,
    ...(cursor === undefined ? {} : { after: cursor }),
  });
  const problem = asProblem(error);
  return (
    <>
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {!data && !problem && <Busy />}
      {data && data.items.length === 0 && (
        <Notice
          kind="note"
          title="Nothing found"
          says={`No sealed unit begins with "${search}", nor its order or customer.`}
        />
      )}
      {data && data.items.length > 0 && (
        <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Sealed visits" aria-busy={isFetching}>
          <table className={classes['table']}>
            <thead>
              <tr className="cap">
                <th scope="col">Serial</th>
                <th scope="col">Type</th>
                <th scope="col">Order</th>
                <th scope="col">Customer</th>
                <th scope="col">Sealed</th>
                <th scope="col">By</th>
                <th scope="col">Seal</th>
              </tr>
            </thead>
            <tbody>
              {data.items.map((row) => (
                <tr key={row.visitId}>
                  <th scope="row">
                    <Link to={`/ledger/${row.visitId}`}>{row.serial}</Link>
                  </th>
                  <td>{row.typeName}</td>
                  <td className="num">{row.orderNumber}</td>
                  <td>{row.customer}</td>
                  <td>{whenFull(row.sealedAt)}</td>
                  <td>{row.sealedBy}</td>
                  <td className="num">{shortSeal(row.seal)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <div className={classes['pages']}>
        {after.length > 0 && <ActButton onAct={() => setAfter(after.slice(0, -1))}>Newer</ActButton>}
        {data?.next && <ActButton onAct={() => setAfter([...after, data.next ?? ''])}>Older</ActButton>}
      </div>
    </>
  );
}
