import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { LibraryDocuments, LibraryEntry, LibraryKind } from '@decurio/contract';
import { documentSchemas, inTodaysForm } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import { saveFile } from '../ui/save-file.js';
import { slipsIn } from '../ui/slips.js';
import { whenFull } from '../ui/when.js';
import { FileInput } from '../ui/file-input.js';
import classes from './library-form.module.css';

type FormKind = Exclude<LibraryKind, 'displayMap'>;

/** Edit and take along, under a document that is read. */
export function DocumentActs<K extends FormKind>({ entry }: { readonly entry: LibraryEntry<K> }) {
  const { who } = useSession();
  const navigate = useNavigate();
  return (
    <>
      <div className={classes['acts']}>
        {who?.role !== 'technician' && (
          <ActButton look="main" onAct={() => void navigate(`/library/${entry.kind}/${entry.id}/edit`)}>
            Edit
          </ActButton>
        )}
        <ActButton
          onAct={() => saveFile(`${entry.id}-v${entry.version}.json`, JSON.stringify(entry.document, null, 2))}
        >
          Export as JSON
        </ActButton>
      </div>
      <Versions kind={entry.kind as FormKind} id={entry.id} />
    </>
  );
}

/** Every version there was, newest first. */
function Versions({ kind, id }: { readonly kind: FormKind; readonly id: string }) {
  const { data } = api.useVersionsQuery({ kind, id });
  return (
    <details className={classes['versions']}>
      <summary>Versions</summary>
      <p className="soft">A version never changes: visits and certificates name the one they used.</p>
      <ul>
        {data?.map((version) => (
          <li key={version.version}>
            Version {version.version}, {whenFull(version.addedAt)}, {version.addedBy}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** Brings a document of a kind in from a file; what is wrong with it is told by place. */
export function BringIn<K extends FormKind>({ kind, says }: { readonly kind: K; readonly says: string }) {
  const navigate = useNavigate();
  const [add] = api.useAddDocumentMutation();
  const [problems, setProblems] = useState<readonly string[]>([]);
  const bring = async (name: string, text: string) => {
    const read = readJson(text);
    if (read === null) return setProblems([`${name} is no JSON.`]);
    const document = inTodaysForm(read);
    const slips = Object.entries(slipsIn(documentSchemas[kind], document)).map(
      ([path, message]) => `${path === '' ? 'the file' : path}: ${message}`,
    );
    if (slips.length > 0) return setProblems(slips);
    const answer = await add({ kind, document: document as LibraryDocuments[K] });
    if (answer.data) return void navigate(`/library/${kind}/${answer.data.id}`);
    const problem = asProblem(answer.error);
    setProblems(problem ? [problem.message, ...Object.values(problem.fields ?? {})] : []);
  };
  return (
    <section className={classes['bring']}>
      <h2>Bring in a file</h2>
      <p className="soft">{says}</p>
      <FileInput
        label="Bring in a file"
        accept=".json,application/json"
        onText={(name, text) => void bring(name, text)}
      />
      {problems.length > 0 && (
        <Notice kind="stop" title="This file cannot be taken as it is" says={problems.slice(0, 6).join(' ')} />
      )}
    </section>
  );
}

function readJson(text: string): object | null {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' && value !== null ? value : null;
  } catch {
    return null;
  }
}
