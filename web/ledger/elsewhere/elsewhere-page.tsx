import { useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { ArchiveReport, ElsewhereArchive } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Dialog } from '../../ui/dialog.js';
import { Busy, Notice } from '../../ui/notice.js';
import { whenFull } from '../../ui/when.js';
import { ledgerApi } from '../ledger-api.js';
import classes from './elsewhere-page.module.css';

/** Archives of other houses: checked whole before any of it is believed, and kept apart from the house's own ledger. */
export function ElsewherePage() {
  const [params] = useSearchParams();
  const { who } = useSession();
  const chosen = params.get('archive') ?? undefined;
  const { data, error, refetch } = ledgerApi.useElsewhereQuery(chosen);
  const problem = asProblem(error);
  return (
    <div className={classes['page']}>
      <header>
        <p className="cap">
          <Link to="/ledger">Ledger</Link>
        </p>
        <h1>Elsewhere</h1>
        <p>
          Records that another house made and sealed, brought in as an archive. All of it is checked first; what is
          taken in never overwrites anything, and stands apart from this house&rsquo;s own ledger. That a house is who
          it says shows by its key alone: ask it for that another way.
        </p>
      </header>
      {who?.role !== 'technician' && <BringIn />}
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {!data && !problem && <Busy />}
      {data?.archives.length === 0 && (
        <Notice
          kind="note"
          title="Nothing from elsewhere"
          says="An archive is made on the page of an order, or on Ledger for a customer who is asked for, and brought in here by a lead."
        />
      )}
      {data && data.archives.length > 0 && (
        <ul className={classes['archives']} aria-label="Archives of other houses">
          {data.archives.map((archive) => (
            <Archive
              key={archive.id}
              archive={archive}
              isChosen={archive.id === chosen}
              mayDrop={who?.role === 'owner'}
            />
          ))}
        </ul>
      )}
      {data && data.records.length > 0 && (
        <table className={classes['table']} aria-label="Records of the archive">
          <thead>
            <tr className="cap">
              <th scope="col">Serial</th>
              <th scope="col">Type</th>
              <th scope="col">Customer</th>
              <th scope="col">Order</th>
              <th scope="col">Sealed</th>
            </tr>
          </thead>
          <tbody>
            {data.records.map(({ visitId, serial, typeName, customer, orderNumber, sealedAt, sealedBy }) => (
              <tr key={visitId}>
                <th scope="row">
                  <Link to={`/ledger/elsewhere/${visitId}`}>{serial}</Link>
                </th>
                <td>{typeName}</td>
                <td>{customer}</td>
                <td className="num">{orderNumber}</td>
                <td>
                  {whenFull(sealedAt)} by {sealedBy}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

interface ArchiveProps {
  readonly archive: ElsewhereArchive;
  readonly isChosen: boolean;
  readonly mayDrop: boolean;
}

function Archive({ archive: { id, name, origin, records, takenBy, takenAt }, isChosen, mayDrop }: ArchiveProps) {
  const [drop, dropping] = ledgerApi.useDropArchiveMutation();
  const [isAsked, setAsked] = useState(false);
  return (
    <li data-chosen={isChosen}>
      <p>
        <b>
          <Link to={`/ledger/elsewhere?archive=${id}`}>{name}</Link>
        </b>{' '}
        {records === 1 ? '1 record' : `${records} records`} from {origin === '' ? 'a house without a key' : origin}
      </p>
      <p className="soft">
        Taken in by {takenBy}, {whenFull(takenAt)}
      </p>
      {mayDrop && isChosen && (
        <ActButton look="quiet" onAct={() => setAsked(true)}>
          Take it out
        </ActButton>
      )}
      {isAsked && (
        <Dialog title={`Take out ${name}`} onClose={() => setAsked(false)}>
          <p>
            Its records, documents and photographs are gone from here, with all that they say of persons. The file it
            came in can be brought in again.
          </p>
          <ActButton look="care" busy={dropping.isLoading} onAct={() => void drop(id).then(() => setAsked(false))}>
            Take it out for good
          </ActButton>
        </Dialog>
      )}
    </li>
  );
}

/** A file is checked as it is brought, and taken in by a second act. */
function BringIn() {
  const picker = useRef<HTMLInputElement>(null);
  const [bring, bringing] = ledgerApi.useBringArchiveMutation();
  const [file, setFile] = useState<File | null>(null);
  const problem = asProblem(bringing.error);
  const check = (next: File) => {
    setFile(next);
    void bring({ file: next, take: false });
  };
  return (
    <section className={classes['bring']} aria-label="Bring in an archive">
      <div className={classes['acts']}>
        <ActButton look="main" busy={bringing.isLoading} onAct={() => picker.current?.click()}>
          Check an archive
        </ActButton>
        <span className="soft">{bringing.isLoading ? `Checking ${file?.name ?? ''} …` : (file?.name ?? '')}</span>
      </div>
      <input
        ref={picker}
        type="file"
        accept="application/zip,.zip"
        hidden
        aria-label="Archive file"
        onChange={(event) => {
          const next = event.target.files?.[0];
          event.target.value = '';
          if (next) check(next);
        }}
      />
      {problem && <Notice kind="stop" title="Not taken in" says={problem.message} />}
      {bringing.data && file && (
        <Report report={bringing.data} onTake={() => void bring({ file, take: true })} busy={bringing.isLoading} />
      )}
    </section>
  );
}

interface ReportProps {
  readonly report: ArchiveReport;
  readonly busy: boolean;
  readonly onTake: () => void;
}

function Report({ report, busy, onTake }: ReportProps) {
  const { holds, findings, name, origin, records, fresh, known, ours, files, isTaken } = report;
  const from = origin === '' ? 'a house without a key' : origin;
  if (!holds)
    return (
      <>
        <Notice
          kind="stop"
          title="It does not hold"
          says={`${findings.length === 1 ? 'One thing is' : `${findings.length} things are`} not as they were sealed: nothing of it was taken in.`}
        />
        <ul className={classes['findings']}>
          {findings.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
      </>
    );
  const counts = [
    `${fresh} new here`,
    known > 0 ? `${known} taken in before` : '',
    ours > 0 ? `${ours} of this house itself` : '',
  ].filter((part) => part !== '');
  return (
    <>
      <Notice
        kind="done"
        title={isTaken ? 'Taken in' : 'All of it holds'}
        says={`${name}, from ${from}: ${records === 1 ? '1 record' : `${records} records`} (${counts.join(', ')}), ${files} files.`}
      />
      {fresh === 0 && !isTaken && <p className="soft">There is nothing new in it to be taken in.</p>}
      {fresh > 0 && !isTaken && (
        <ActButton look="main" busy={busy} onAct={onTake}>
          Take it in
        </ActButton>
      )}
    </>
  );
}
