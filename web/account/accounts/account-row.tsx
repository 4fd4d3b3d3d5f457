import { Select, VisuallyHidden } from '@mantine/core';
import { useState } from 'react';
import type { Role } from '@decurio/core';
import { ROLES, type AccountView } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { whenClock } from '../../ui/when.js';
import { accountsApi } from './accounts-api.js';
import { SignedInDialog } from './signed-in-dialog.js';
import classes from './accounts.module.css';

interface AccountRowProps {
  readonly account: AccountView;
  readonly isOwn: boolean;
  /** A password for once was made. */
  readonly onPassword: (password: string) => void;
}

export function AccountRow({ account, isOwn, onPassword }: AccountRowProps) {
  const { id, signInName, displayName, role, lockedAt, sessions } = account;
  const [isLooking, setIsLooking] = useState(false);
  const [giveRole, giving] = accountsApi.useGiveRoleMutation();
  const [lock, locking] = accountsApi.useLockAccountMutation();
  const [reset, resetting] = accountsApi.useResetPasswordMutation();
  const problem = asProblem(giving.error) ?? asProblem(locking.error) ?? asProblem(resetting.error);
  const isBusy = giving.isLoading || locking.isLoading || resetting.isLoading;
  return (
    <li data-locked={lockedAt !== null || undefined}>
      <div className={classes['who']}>
        <strong>{displayName}</strong>
        <span className="soft">
          signs in as <b>{signInName}</b>; {standing(account)}
        </span>
      </div>
      {isOwn ? (
        <span className="soft">{role}, you</span>
      ) : (
        <div className={classes['rowActs']}>
          <Select
            aria-label={`Role of ${displayName}`}
            value={role}
            data={[...ROLES]}
            allowDeselect={false}
            disabled={isBusy || lockedAt !== null}
            onChange={(next) => next && void giveRole({ id, role: next as Role })}
          />
          {sessions > 0 && (
            <ActButton onAct={() => setIsLooking(true)}>
              Where<VisuallyHidden> {displayName} is signed in</VisuallyHidden>
            </ActButton>
          )}
          {lockedAt === null && (
            <ActButton
              busy={resetting.isLoading}
              onAct={() =>
                void reset({ id }).then(({ data }) => {
                  if (data) onPassword(data.password);
                })
              }
            >
              New password<VisuallyHidden> for {displayName}</VisuallyHidden>
            </ActButton>
          )}
          <ActButton
            look={lockedAt === null ? 'care' : 'quiet'}
            busy={locking.isLoading}
            onAct={() => void lock({ id, act: lockedAt === null ? 'lock' : 'unlock' })}
          >
            {lockedAt === null ? 'Lock' : 'Unlock'}
            <VisuallyHidden> {displayName}</VisuallyHidden>
          </ActButton>
        </div>
      )}
      {problem && <Notice kind="stop" says={problem.message} />}
      {isLooking && <SignedInDialog account={account} onClose={() => setIsLooking(false)} />}
    </li>
  );
}

function standing({ lockedAt, isPasswordForOnce, lastInAt, sessions }: AccountView): string {
  if (lockedAt !== null) return `locked since ${whenClock(lockedAt)}`;
  if (isPasswordForOnce) return 'has not chosen a password yet';
  if (sessions > 0) return sessions === 1 ? 'signed in now' : `signed in at ${sessions} places`;
  return lastInAt === null ? 'was never here' : `last here ${whenClock(lastInAt)}`;
}
