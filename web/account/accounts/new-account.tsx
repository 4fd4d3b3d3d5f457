import { Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { Role } from '@decurio/core';
import { ROLES, type NewAccountRequest } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { accountsApi } from './accounts-api.js';
import classes from './accounts.module.css';

const NOBODY: NewAccountRequest = { displayName: '', signInName: '', role: 'technician' };

interface NewAccountProps {
  readonly onMade: (account: NewAccountRequest, password: string) => void;
}

/** Lets one more person sign in. */
export function NewAccount({ onMade }: NewAccountProps) {
  const [make, making] = accountsApi.useMakeAccountMutation();
  const [typed, setTyped] = useState(NOBODY);
  const problem = asProblem(making.error);
  const fields = problem?.fields ?? {};
  const type = (part: Partial<NewAccountRequest>) => setTyped({ ...typed, ...part });
  return (
    <form
      className={classes['new']}
      aria-label="Another account"
      onSubmit={(event) => {
        event.preventDefault();
        void make(typed).then(({ data }) => {
          if (!data) return;
          onMade(typed, data.password);
          setTyped(NOBODY);
        });
      }}
    >
      <h2>Another account</h2>
      <div className={classes['fields']}>
        <TextInput
          label="Name in records"
          placeholder="As certificates are to say it"
          value={typed.displayName}
          onChange={(e) => type({ displayName: e.target.value })}
          maxLength={80}
          error={fields['displayName']}
          data-scan-guard="words"
          required
        />
        <TextInput
          label="Signs in as"
          value={typed.signInName}
          onChange={(e) => type({ signInName: e.target.value })}
          maxLength={40}
          autoCapitalize="none"
          error={fields['signInName']}
          data-scan-guard="words"
          required
        />
        <Select
          label="Role"
          value={typed.role}
          data={[...ROLES]}
          allowDeselect={false}
          onChange={(role) => type({ role: (role ?? 'technician') as Role })}
        />
      </div>
      <p className="soft">
        A technician works at a stand; a lead releases, decides and edits the library; an owner keeps the house, its
        persons and this list.
      </p>
      {problem && Object.keys(fields).length === 0 && <Notice kind="stop" says={problem.message} />}
      <div className={classes['acts']}>
        <ActButton
          type="submit"
          look="main"
          busy={making.isLoading}
          disabled={typed.displayName.trim() === '' || typed.signInName.trim() === ''}
          onAct={() => undefined}
        >
          Make it
        </ActButton>
      </div>
    </form>
  );
}
