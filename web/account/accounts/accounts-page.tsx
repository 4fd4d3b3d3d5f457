import { useState } from 'react';
import type { AccountView } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Dialog } from '../../ui/dialog.js';
import { Busy, Notice } from '../../ui/notice.js';
import { AccountEvents } from './account-events.js';
import { AccountRow } from './account-row.js';
import { accountsApi } from './accounts-api.js';
import { Machines } from './machines.js';
import { NewAccount } from './new-account.js';
import list from '../sessions-page.module.css';
import classes from './accounts.module.css';

interface Given {
  readonly name: string;
  readonly signInName: string;
  readonly password: string;
}

/** Who may sign in and as what, for the owner of the house: made, given another role, begun anew, locked. */
export function AccountsPage() {
  const { data, error, refetch } = accountsApi.useAccountsQuery(null, { refetchOnMountOrArgChange: true });
  const { who } = useSession();
  const [given, setGiven] = useState<Given | null>(null);
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />
    ) : (
      <Busy />
    );
  const passwordFor = (
    { displayName, signInName }: Pick<AccountView, 'displayName' | 'signInName'>,
    password: string,
  ) => setGiven({ name: displayName, signInName, password });
  return (
    <div className={classes['page']}>
      <p className="cap">The house</p>
      <h1>Who may sign in</h1>
      <ul className={`${list['list']} ${classes['list']}`} aria-label="Accounts">
        {data.accounts.map((account) => (
          <AccountRow
            key={account.id}
            account={account}
            isOwn={account.id === who?.userId}
            onPassword={(password) => passwordFor(account, password)}
          />
        ))}
      </ul>
      <NewAccount onMade={passwordFor} />
      <Machines />
      <AccountEvents newest={data.events} />
      {given && (
        <Dialog title={`A password for ${given.name}`} onClose={() => setGiven(null)} mustBeAnswered>
          <div className={classes['given']}>
            <p>
              Signs in as <b>{given.signInName}</b> with
            </p>
            <output className={classes['password']}>{given.password}</output>
            <p>
              Hand it over in person. It is shown this once and stands nowhere; it opens nothing but the page where{' '}
              {given.name} chooses another.
            </p>
            <ActButton look="main" onAct={() => setGiven(null)}>
              It is handed over
            </ActButton>
          </div>
        </Dialog>
      )}
    </div>
  );
}
