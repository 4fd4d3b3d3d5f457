import { TextInput } from '@mantine/core';
import { useState } from 'react';
import dayjs from 'dayjs';
import type { VehicleClass } from '@decurio/core';
import { confirmClassRequest, type LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Notice } from '../../ui/notice.js';
import { slipsIn } from '../../ui/slips.js';
import { Doubts } from './doubts.js';
import classes from '../library-form.module.css';

export interface ConfirmClassProps {
  readonly each: VehicleClass;
  readonly entry: LibraryEntry<'rulePack'>;
  readonly onDone: () => void;
}

/** A lead answers for one class: whom they asked, what paper says so, until when it holds. */
export function ConfirmClass({ each, entry, onDone }: ConfirmClassProps) {
  const { who } = useSession();
  const [confirm, confirming] = api.useConfirmClassMutation();
  const draft = useDraft(`confirm.${entry.id}.${entry.version}.${each.id}`, {
    authority: each.checked?.authority ?? '',
    source: '',
    expiresOn: dayjs().add(1, 'year').format('YYYY-MM-DD'),
  });
  const { authority, source, expiresOn } = draft.value;
  const [slips, setSlips] = useState<Record<string, string>>({});
  const problem = asProblem(confirming.error);
  const submit = async () => {
    const body = { version: entry.version, authority: authority.trim(), source: source.trim(), expiresOn };
    const found = slipsIn(confirmClassRequest, body);
    setSlips(found);
    if (Object.keys(found).length > 0) return;
    const answer = await confirm({ id: entry.id, classId: each.id, body });
    if (!answer.data) return;
    draft.forget();
    onDone();
  };
  return (
    <form
      className={classes['bring']}
      aria-label={`Confirm ${each.title}`}
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <p>
        As {who?.name} you confirm every value below for {entry.document.place}. Your name stands on every certificate
        under this class.
      </p>
      <Begun draft={draft} />
      {each.doubts.length > 0 && <Doubts each={each} />}
      <div className={classes['row']}>
        <TextInput
          label="Authority that was asked"
          value={authority}
          onChange={(e) => draft.change({ authority: e.target.value })}
          error={slips['authority']}
          maxLength={120}
          autoFocus
        />
        <TextInput
          label="Paper that says so"
          value={source}
          onChange={(e) => draft.change({ source: e.target.value })}
          error={slips['source']}
          maxLength={400}
        />
        <TextInput
          type="date"
          label="Holds until"
          value={expiresOn}
          onChange={(e) => draft.change({ expiresOn: e.target.value })}
          error={slips['expiresOn']}
        />
      </div>
      {problem && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton type="submit" look="main" busy={confirming.isLoading} onAct={() => undefined}>
          Confirm in writing
        </ActButton>
        <ActButton onAct={onDone}>Leave it</ActButton>
      </div>
    </form>
  );
}
