import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { foldVisit, mapTitle, shortSeal } from '@decurio/core';
import { asProblem } from '../../state/api.js';
import { Busy, Notice } from '../../ui/notice.js';
import { whenFull } from '../../ui/when.js';
import { EvidenceTable } from '../evidence-table.js';
import { LeftAs } from '../left-as.js';
import { ledgerApi } from '../ledger-api.js';
import classes from '../record-page.module.css';

/** A record that another house sealed, as it was brought in. */
export function ElsewhereRecordPage() {
  const { visitId = '' } = useParams();
  const { data, error } = ledgerApi.useElsewhereRecordQuery(visitId);
  const problem = asProblem(error);
  const state = useMemo(() => {
    const fold = data ? foldVisit(data.record.evidence) : null;
    return fold?.ok ? fold.value : null;
  }, [data]);
  if (problem) return <Notice kind="stop" title="This record cannot be shown" says={problem.message} page />;
  if (!data) return <Busy />;
  const { serial, customer, orderNumber, typeName, sealedAt, sealedBy, seal, origin, map, record } = data;
  return (
    <div className={classes['page']}>
      <Notice
        kind="note"
        says={`Made and sealed in another house${origin === '' ? '' : `, ${origin}`}. It was whole when it was brought in; what it was worked out from came with it.`}
      />
      <header>
        <p className="cap">
          <Link to="/ledger/elsewhere">Elsewhere</Link> · Order {orderNumber} · {customer}
        </p>
        <h1 className={classes['serial']}>{serial}</h1>
        <p>
          {typeName}
          {map && `, ${mapTitle(map)}`}. Sealed {whenFull(sealedAt)} by {sealedBy}, seal {shortSeal(seal)}.{' '}
          <Link className={classes['life'] ?? ''} to={`/ledger/unit/${encodeURIComponent(serial)}`}>
            Its whole life
          </Link>
        </p>
      </header>
      {map ? (
        <div className={classes['columns']}>
          {state && <LeftAs state={state} map={map} evidence={record.evidence} />}
          <EvidenceTable evidence={record.evidence} map={map} />
        </div>
      ) : (
        <Notice
          kind="care"
          says="The archive brought no map of its display: digits stand here without their meaning."
        />
      )}
    </div>
  );
}
