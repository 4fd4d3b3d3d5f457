import { api, asProblem } from '../state/api.js';
import { Busy, Notice } from '../ui/notice.js';
import { OwnPassword } from './accounts/own-password.js';
import { Counted } from './counted.js';
import { Place } from './place.js';
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
