import { useState } from 'react';
import { PERSONAL_KINDS } from '@decurio/core';
import type { PersonalView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { Busy, Notice } from '../ui/notice.js';
import { ReasonAct } from '../ui/reason-act.js';
import { whenFull } from '../ui/when.js';
import classes from './persons-kept.module.css';
import list from './sessions-page.module.css';

type Person = PersonalView['people'][number];

/** What is kept of persons apart from the records, and erasing the name of somebody who has left. */
export function PersonsKept() {
  const { data, error, refetch } = api.usePersonalQuery(null, { refetchOnMountOrArgChange: true });
  const { who } = useSession();
  const [leaving, setLeaving] = useState<Person | null>(null);
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
    ) : (
      <Busy />
    );
  return (
    <section className={classes['kept']} aria-label="Persons kept">
      <h2>Kept of persons</h2>
      <ul className={classes['kinds']}>
        {data.kinds.map(({ kind, kept, erased, oldest }) => (
          <li key={kind}>
            {PERSONAL_KINDS[kind]}: <b className="num">{kept}</b> kept
            {oldest !== null && `, the oldest of ${whenFull(oldest)}`}
            {erased > 0 && `; ${erased} erased`}.
          </li>
        ))}
      </ul>
      <ul className={`${list['list']} ${classes['people']}`}>
        {data.people.map((person) => (
          <li key={person.id}>
            <div>
              <strong>{person.name}</strong>
              <span>
                {person.role}, signs in as {person.signInName}, last on {whenFull(person.hereAt)}
              </span>
            </div>
            {person.id === who?.userId ? (
              <span className="soft">you</span>
            ) : (
              <ActButton look="care" onAct={() => setLeaving(person)}>{`Erase the name of ${person.name}`}</ActButton>
            )}
          </li>
        ))}
      </ul>
      <p className="soft">
        Who received a unit is erased on its page in the ledger. Not erased here: who confirmed a class or answers for
        private land, who is the customer of an order, what somebody typed into a remark, and names in entries of before
        names were kept apart.
      </p>
      {leaving && <Erase person={leaving} onClose={() => setLeaving(null)} />}
    </section>
  );
}

function Erase({ person, onClose }: { readonly person: Person; readonly onClose: () => void }) {
  const [erase, erasing] = api.useErasePersonMutation();
  return (
    <Dialog title={`Erase the name of ${person.name}`} onClose={onClose}>
      <p>
        Every record then says &quot;Name erased&quot; where {person.name} stands, and they can sign in no more. What
        they did stays, and every seal holds. This cannot be taken back.
      </p>
      <ReasonAct
        place={`erase/${person.id}`}
        label="Why"
        act="Erase it"
        look="care"
        busy={erasing.isLoading}
        error={asProblem(erasing.error)?.message}
        onAct={async (why) => {
          const done = await erase({ id: person.id, body: { why } });
          if (!('error' in done)) onClose();
          return !('error' in done);
        }}
      />
    </Dialog>
  );
}
