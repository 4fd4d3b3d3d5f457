import { useState } from 'react';
import { ACCOUNT_EVENTS, type AccountEvent } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { whenClock } from '../../ui/when.js';
import { accountsApi } from './accounts-api.js';
import classes from './accounts.module.css';

/** As many as the server gives at once: where fewer came, there are no earlier ones. */
const A_PAGE = 100;

/** Sign-ins, refusals and changes, the newest first; nobody edits them. */
export function AccountEvents({ newest }: { readonly newest: readonly AccountEvent[] }) {
  const [earlier, setEarlier] = useState<readonly AccountEvent[]>([]);
  const [ask, asking] = accountsApi.useLazyEarlierEventsQuery();
  const all = [...newest, ...earlier.filter(({ n }) => n < (newest.at(-1)?.n ?? Infinity))];
  const [isEnd, setIsEnd] = useState(false);
  const problem = asProblem(asking.error);
  const goOn = () =>
    void ask(all.at(-1)?.n ?? 1).then(({ data }) => {
      if (!data) return;
      setEarlier([...earlier, ...data]);
      setIsEnd(data.length < A_PAGE);
    });
  return (
    <section className={classes['events']} aria-label="What came of accounts">
      <h2>What came of accounts</h2>
      {all.length === 0 && <p className="soft">Nothing yet.</p>}
      <ul tabIndex={0}>
        {all.map((event) => (
          <li key={event.n} data-alarm={event.kind === 'refused' || undefined}>
            <span className="num">{whenClock(event.at)}</span>
            <span>{wordsOf(event)}</span>
          </li>
        ))}
      </ul>
      {problem && <Notice kind="stop" says={problem.message} />}
      {newest.length === A_PAGE && !isEnd && (
        <div className={classes['acts']}>
          <ActButton busy={asking.isFetching} onAct={goOn}>
            Earlier
          </ActButton>
        </div>
      )}
    </section>
  );
}

function wordsOf({ kind, name, by, says }: AccountEvent): string {
  const what = `${name} ${ACCOUNT_EVENTS[kind]}`;
  const detail = kind === 'role' ? `: ${says}` : says === '' ? '' : kind === 'made' ? ` as ${says}` : `, ${says}`;
  return `${what}${detail}${by === null ? '' : `, by ${by}`}.`.replace('..', '.');
}
