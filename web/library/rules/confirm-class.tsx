import { TextInput } from '@mantine/core';
import { useState } from 'react';
import dayjs from 'dayjs';
import type { VehicleClass } from '@decurio/core';
import { confirmClassRequest, type LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
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
  const [authority, setAuthority] = useState(each.checked?.authority ?? '');
  const [source, setSource] = useState('');
  const [expiresOn, setExpiresOn] = useState(dayjs().add(1, 'year').format('YYYY-MM-DD'));
  const [slips, setSlips] = useState<Record<string, string>>({});
  const problem = asProblem(confirming.error);
  const submit = async () => {
    const body = { version: entry.version, authority: authority.trim(), source: source.trim(), expiresOn };
    const found = slipsIn(confirmClassRequest, body);
    setSlips(found);
    if (Object.keys(found).length > 0) return;
    const answer = await confirm({ id: entry.id, classId: each.id, body });
    if (answer.data) onDone();
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
      {each.doubts.length > 0 && <Doubts each={each} />}
      <div className={classes['row']}>
        <TextInput
          label="Authority that was asked"
          value={authority}
          onChange={(e) => setAuthority(e.target.value)}
          error={slips['authority']}
          maxLength={120}
          autoFocus
        />
        <TextInput
          label="Paper that says so"
          value={source}
          onChange={(e) => setSource(e.target.value)}
          error={slips['source']}
          maxLength={400}
        />
        <TextInput
          type="date"
          label="Holds until"
          value={expiresOn}
          onChange={(e) => setExpiresOn(e.target.value)}
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
