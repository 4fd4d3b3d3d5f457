import { TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { Link } from 'react-router';
import { shortSeal } from '@decurio/core';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { whenFull } from '../ui/when.js';
import { CheckRecordFile } from './check-record-file.js';
import classes from './ledger-page.module.css';

/** What left, how, and proved by whom: sealed visits, newest first. */
export function LedgerPage() {
  const [typed, setTyped] = useState('');
  const [search] = useDebouncedValue(typed.trim(), 200);
  const [after, setAfter] = useState<readonly string[]>([]);
  const cursor = after.at(-1);
  const { data, error, isFetching, refetch } = api.useLedgerQuery({
    ...(cursor === undefined ? {} : { after: cursor }),
    ...(search === '' ? {} : { search }),
  });
  const problem = asProblem(error);
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <h1>Ledger</h1>
        <TextInput
          className={classes['search'] ?? ''}
          data-scan-guard
          aria-label="Find by serial, order or customer"
          placeholder="Serial, order or customer"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            setAfter([]);
          }}
          maxLength={60}
        />
        <CheckRecordFile />
      </header>
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {!data && !problem && <Busy />}
      {data && data.items.length === 0 && (
        <Notice
          kind="note"
          title={search === '' ? 'Nothing is sealed yet' : 'Nothing found'}
          says={
            search === ''
              ? 'A unit stands here once it was signed off on the bench.'
              : `No sealed unit begins with "${search}", nor its order or customer.`
          }
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
    </div>
  );
}
