import { useNavigate } from 'react-router';
import { followParent, type FollowedChange, type RulePack } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { fieldTitle } from './class-words.js';
import classes from '../library-form.module.css';

export interface ParentNoticeProps {
  readonly entry: LibraryEntry<'rulePack'>;
  readonly mayEdit: boolean;
}

/** Whose classes a pack follows, and what a newer version of that would change here. */
export function ParentNotice({ entry, mayEdit }: ParentNoticeProps) {
  const { parent } = entry.document;
  const heads = api.useLibraryQuery('rulePack', { skip: parent === null }).data;
  const was = api.useAtVersionQuery(
    { kind: 'rulePack', id: parent?.id ?? '', version: parent?.version ?? 1 },
    { skip: parent === null },
  ).data;
  const navigate = useNavigate();
  const [add, adding] = api.useAddDocumentMutation();
  if (parent === null) return null;
  const head = heads?.find(({ id }) => id === parent.id);
  if (!head || !was) return null;
  const place = (head.document as RulePack).place;
  if (head.version === parent.version)
    return (
      <Notice
        kind="note"
        says={`Follows the rules of ${place}, version ${parent.version}. What differs is named under each class.`}
      />
    );
  const next = followParent(entry.document, was.document as RulePack, head.document as RulePack, head.version);
  const problem = asProblem(adding.error);
  const take = () =>
    void add({ kind: 'rulePack', document: next.pack }).then(
      (answer) => answer.data && void navigate(`/library/rulePack/${entry.id}`),
    );
  return (
    <section className={classes['bring']} aria-label={`The rules of ${place} changed`}>
      <h2>
        The rules of {place} changed: version {head.version}, and this follows {parent.version}
      </h2>
      {next.changes.length === 0 ? (
        <p className="soft">No value of this pack would change.</p>
      ) : (
        <>
          <p className="soft">
            Taken over, these become as there. A class of which a value changes is not checked any more.
          </p>
          <ul className={classes['list']}>
            {next.changes.map((change) => (
              <li key={`${change.classId} ${change.field}`}>{changeWords(change)}</li>
            ))}
          </ul>
        </>
      )}
      {problem && <Notice kind="stop" says={problem.message} />}
      {mayEdit && (
        <div className={classes['acts']}>
          <ActButton look="main" busy={adding.isLoading} onAct={take}>
            Take it over
          </ActButton>
        </div>
      )}
    </section>
  );
}

const plain = (value: unknown): string =>
  typeof value === 'string' ? value || 'nothing' : value === null ? 'nothing' : JSON.stringify(value);

const changeWords = ({ classId, field, was, is }: FollowedChange): string =>
  `${classId}, ${fieldTitle(field)}: ${plain(was)} becomes ${plain(is)}`;
