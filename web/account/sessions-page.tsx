import type { OpenSession } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { whenClock } from '../ui/when.js';
import { OwnPassword } from './accounts/own-password.js';
import { Counted } from './counted.js';
import classes from './sessions-page.module.css';

/** Where one is signed in: each ended from here, as when a tablet was left behind. */
export function SessionsPage() {
  const { data, error, refetch } = api.useSessionsQuery(null, { refetchOnMountOrArgChange: true });
  const [end, ending] = api.useEndSessionMutation();
  const problem = asProblem(error) ?? asProblem(ending.error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />
    ) : (
      <Busy />
    );
  const elsewhere = data.filter(({ isThis }) => !isThis);
  return (
    <div className={classes['page']}>
      <h1>Where you are signed in</h1>
      <p className="soft">
        {elsewhere.length === 0
          ? 'Here, and nowhere else.'
          : 'A place that you do not know, or a device that was left behind, is ended here. What waits unsent on that device stays on it until you sign in there again.'}
      </p>
      {problem && <Notice kind="stop" says={problem.message} />}
      <ul className={classes['list']}>
        {data.map((session) => (
          <Place key={session.id} session={session} busy={ending.isLoading} onEnd={() => void end(session.id)} />
        ))}
      </ul>
      <section aria-label="Your own password">
        <h2>Your own password</h2>
        <OwnPassword />
      </section>
      <Counted />
    </div>
  );
}

function Place({
  session: { station, openedAt, seenAt, isThis },
  busy,
  onEnd,
}: {
  readonly session: OpenSession;
  readonly busy: boolean;
  readonly onEnd: () => void;
}) {
  return (
    <li>
      <div>
        <strong>{station === '' ? 'no bay named' : station}</strong>
        <span>
          since <span className="num">{whenClock(openedAt)}</span>, last heard from{' '}
          <span className="num">{whenClock(seenAt)}</span>
        </span>
      </div>
      {isThis ? (
        <span className={classes['here']}>this one</span>
      ) : (
        <ActButton
          look="care"
          busy={busy}
          onAct={onEnd}
        >{`End it at ${station === '' ? 'that device' : station}`}</ActButton>
      )}
    </li>
  );
}
