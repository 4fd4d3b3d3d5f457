import { TextInput, VisuallyHidden } from '@mantine/core';
import { useState } from 'react';
import { MACHINE_PURPOSES, type MachineView } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Dialog } from '../../ui/dialog.js';
import { Notice } from '../../ui/notice.js';
import { whenClock } from '../../ui/when.js';
import { accountsApi } from './accounts-api.js';
import list from '../sessions-page.module.css';
import classes from './accounts.module.css';

interface Given {
  readonly name: string;
  readonly token: string;
}

/** Programs of others that may ask the house something: let in by a token, and ended. */
export function Machines() {
  const { data = [], error } = accountsApi.useMachinesQuery(null, { refetchOnMountOrArgChange: true });
  const [make, making] = accountsApi.useMakeMachineMutation();
  const [end, ending] = accountsApi.useEndMachineMutation();
  const [name, setName] = useState('');
  const [given, setGiven] = useState<Given | null>(null);
  const failed = asProblem(error) ?? asProblem(ending.error);
  const refused = asProblem(making.error);
  const isWrongName = refused?.fields?.['name'] !== undefined;
  return (
    <section className={classes['machines']} aria-label="Programs that may ask">
      <h2>Programs that may ask</h2>
      <p className="soft">
        A hire system may ask whether a unit may go out, and nothing else: it reads no customer, no code and no name.
      </p>
      {failed && <Notice kind="stop" says={failed.message} />}
      <ul className={`${list['list']} ${classes['list']}`}>
        {data.map((machine) => (
          <li key={machine.id} data-locked={machine.endedAt !== null || undefined}>
            <div className={classes['who']}>
              <strong>{machine.name}</strong>
              <span className="soft">
                {MACHINE_PURPOSES[machine.purpose]}; {standing(machine)}
              </span>
            </div>
            {machine.endedAt === null && (
              <ActButton look="care" busy={ending.isLoading} onAct={() => void end({ id: machine.id })}>
                End<VisuallyHidden> {machine.name}</VisuallyHidden>
              </ActButton>
            )}
          </li>
        ))}
      </ul>
      <form
        className={classes['new']}
        aria-label="Another program"
        onSubmit={(event) => {
          event.preventDefault();
          void make({ name, purpose: 'mayGoOut' }).then(({ data: made }) => {
            if (!made) return;
            setGiven({ name, token: made.token });
            setName('');
          });
        }}
      >
        <TextInput
          label="Another program"
          placeholder="Whose it is, such as: hire desk, Gull Point"
          value={name}
          onChange={(event) => setName(event.target.value)}
          maxLength={60}
          error={refused?.fields?.['name']}
          data-scan-guard="words"
        />
        {refused && !isWrongName && <Notice kind="stop" says={refused.message} />}
        <div className={classes['acts']}>
          <ActButton type="submit" busy={making.isLoading} disabled={name.trim() === ''} onAct={() => undefined}>
            Give it a token
          </ActButton>
        </div>
      </form>
      {given && (
        <Dialog title={`The token of ${given.name}`} onClose={() => setGiven(null)} mustBeAnswered size="lg">
          <div className={classes['given']}>
            <p>It goes into that program, which sends it with each question:</p>
            <output className={classes['token']}>Authorization: Bearer {given.token}</output>
            <output className={classes['token']}>
              GET {window.location.origin}/api/machine/units/SERIAL/may-go-out
            </output>
            <p>It is shown this once and stands nowhere. Whoever has it may ask; end it here when it is not needed.</p>
            <ActButton look="main" onAct={() => setGiven(null)}>
              It is kept
            </ActButton>
          </div>
        </Dialog>
      )}
    </section>
  );
}

function standing({ madeAt, madeBy, askedAt, endedAt }: MachineView): string {
  if (endedAt !== null) return `ended ${whenClock(endedAt)}`;
  const asked = askedAt === null ? 'has not asked yet' : `last asked ${whenClock(askedAt)}`;
  return `${asked}; let in ${whenClock(madeAt)} by ${madeBy}`;
}
