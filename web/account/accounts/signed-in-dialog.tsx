import type { AccountView } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { Dialog } from '../../ui/dialog.js';
import { Busy, Notice } from '../../ui/notice.js';
import { Place } from '../place.js';
import { accountsApi } from './accounts-api.js';
import list from '../sessions-page.module.css';

interface SignedInDialogProps {
  readonly account: Pick<AccountView, 'id' | 'displayName'>;
  readonly onClose: () => void;
}

/** Where somebody else is signed in, each ended from here. */
export function SignedInDialog({ account: { id, displayName }, onClose }: SignedInDialogProps) {
  const { data, error } = accountsApi.useSessionsOfQuery(id, { refetchOnMountOrArgChange: true });
  const [end, ending] = accountsApi.useEndSessionOfMutation();
  const problem = asProblem(error) ?? asProblem(ending.error);
  return (
    <Dialog title={`Where ${displayName} is signed in`} onClose={onClose} size="lg">
      {problem && <Notice kind="stop" says={problem.message} />}
      {!data && !problem && <Busy />}
      {data?.length === 0 && <p>Nowhere.</p>}
      <ul className={list['list']}>
        {data?.map((session) => (
          <Place
            key={session.id}
            session={session}
            busy={ending.isLoading}
            onEnd={() => void end({ id, sessionId: session.id })}
          />
        ))}
      </ul>
    </Dialog>
  );
}
