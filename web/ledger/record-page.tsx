import { useMemo } from 'react';
import { Link, useParams } from 'react-router';
import { foldVisit, mapTitle, shortSeal } from '@decurio/core';
import type { LedgerRecordView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { capital } from '../ui/capital.js';
import { Busy, Notice } from '../ui/notice.js';
import { PrivateLandStrip } from '../ui/private-land.js';
import { whenFull } from '../ui/when.js';
import { EvidenceTable } from './evidence-table.js';
import { LeftAs } from './left-as.js';
import { SealVerdict } from './seal-verdict.js';
import { WhereItIs } from './where-it-is.js';
import classes from './record-page.module.css';

/** One visit: how the unit left, every entry with who and when, and its seal. */
export function RecordPage() {
  const { visitId = '' } = useParams();
  const { data, error, refetch } = api.useRecordQuery(visitId);
  const problem = asProblem(error);
  if (problem?.code === 'recordDamaged' && !data) return <DamagedRecord visitId={visitId} says={problem.message} />;
  if (problem && !data)
    return (
      <Notice
        kind="stop"
        title="This record cannot be shown"
        says={problem.message}
        act={{ label: 'Try again', onAct: () => void refetch() }}
        page
      />
    );
  if (!data) return <Busy />;
  return <Record record={data} />;
}

function Record({ record }: { readonly record: LedgerRecordView }) {
  const [check, checking] = api.useCheckSealMutation();
  const isSealed = record.sealedAt !== '';
  const state = useMemo(() => {
    const fold = foldVisit(record.evidence);
    return fold.ok ? fold.value : null;
  }, [record.evidence]);
  const problem = asProblem(checking.error);
  return (
    <div className={classes['page']}>
      {state?.opened.order.privateLand && (
        <PrivateLandStrip label={state.opened.order.privateLand.label} endsOn={state.opened.order.privateLand.endsOn} />
      )}
      <header className={classes['head']}>
        <div>
          <p className="cap">
            Order {record.orderNumber} · {record.customer}
          </p>
          <h1 className={classes['serial']}>{record.serial}</h1>
          <p>
            {record.typeName}, {mapTitle(record.map)}. {capital(record.className)}, legal values{' '}
            {state?.opened.order.classChecked ?? 'not checked'}.
          </p>
          <p className="soft">
            <Link className={classes['life'] ?? ''} to={`/ledger/unit/${encodeURIComponent(record.serial)}`}>
              Its whole life
            </Link>{' '}
            {isSealed
              ? `Sealed ${whenFull(record.sealedAt)} by ${record.sealedBy}`
              : state?.withdrawn
                ? `Withdrawn: ${state.withdrawn}`
                : 'Not signed off yet'}
          </p>
        </div>
        {isSealed && (
          <div className={classes['acts']}>
            <a
              className={classes['paper']}
              href={`/api/visits/${record.visitId}/certificate.pdf`}
              target="_blank"
              rel="noreferrer"
            >
              Certificate (PDF)
            </a>
            <a className={classes['paper']} href={`/api/visits/${record.visitId}/record.json`} download>
              Record (JSON)
            </a>
            <ActButton look="main" busy={checking.isLoading} onAct={() => void check(record.visitId)}>
              Verify the seal
            </ActButton>
          </div>
        )}
      </header>
      {isSealed && record.unprintable.length > 0 && (
        <Notice
          kind="care"
          says={`The certificate prints question marks for letters it has no font for: ${record.unprintable.join('; ')}. The record itself holds them as they are.`}
        />
      )}
      {isSealed && !checking.data && !problem && (
        <p className={classes['seal']}>
          Seal <b>{shortSeal(record.seal)}</b> <span className="soft">{record.seal}</span>
        </p>
      )}
      {isSealed && <WhereItIs visitId={record.visitId} unitId={record.unitId} />}
      {checking.data && <SealVerdict verdict={checking.data} broken="The seal does not hold" />}
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['columns']}>
        {state && <LeftAs state={state} map={record.map} evidence={record.evidence} />}
        <EvidenceTable evidence={record.evidence} map={record.map} />
      </div>
      <p className={`soft ${classes['covers']}`}>
        The seal covers every entry with who, where and when, and each photograph by its hash. It names{' '}
        {mapTitle(record.map)} by its version; what the codes mean stands in the library, which keeps every version and
        is not under this seal.
      </p>
    </div>
  );
}

/** Rows that are not whole show nothing that could be believed; what is amiss can still be asked. */
function DamagedRecord({ visitId, says }: { readonly visitId: string; readonly says: string }) {
  const [check, { data, error, isLoading }] = api.useCheckSealMutation();
  const problem = asProblem(error);
  return (
    <div className={classes['page']}>
      <Notice kind="stop" title="This record is damaged" says={says} />
      {!data && (
        <div className={classes['acts']}>
          <ActButton look="main" busy={isLoading} onAct={() => void check(visitId)}>
            Verify the seal
          </ActButton>
        </div>
      )}
      {data && <SealVerdict verdict={data} broken="The seal does not hold" />}
      {problem && <Notice kind="stop" says={problem.message} />}
    </div>
  );
}
