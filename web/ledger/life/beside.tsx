import { NativeSelect, TextInput } from '@mantine/core';
import { useState } from 'react';
import { skipToken } from '@reduxjs/toolkit/query/react';
import type { ComparedStates } from '@decurio/contract';
import { asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { capital } from '../../ui/capital.js';
import { Busy, Notice } from '../../ui/notice.js';
import { ledgerApi } from '../ledger-api.js';
import { statesOf, type ChosenState } from './states-of.js';
import classes from './life-page.module.css';

export interface BesideProps {
  readonly states: readonly ChosenState[];
  readonly one: string;
  readonly other: string;
  /** Another unit whose states may be chosen too; empty for none. */
  readonly withSerial: string;
  readonly onAsk: (next: Readonly<Record<string, string>>) => void;
}

/** Two states side by side, each a choice: what differs, and what that does on the road. */
export function Beside({ states, one, other, withSerial, onAsk }: BesideProps) {
  const [typed, setTyped] = useState(withSerial);
  const { data: second, error: secondError } = ledgerApi.useUnitLifeQuery(withSerial === '' ? skipToken : withSerial);
  const choices = [...states, ...(second ? statesOf(second, true) : [])];
  const refs = askFor(one, other);
  const { data, error, isFetching } = ledgerApi.useComparedQuery(refs ?? skipToken);
  const problem = asProblem(error) ?? asProblem(secondError);
  const options = choices.map(({ id, title }) => ({ value: id, label: capital(title) }));
  if (states.length === 0)
    return <Notice kind="note" says="No code of it was read yet: there is nothing to hold beside anything." />;
  return (
    <section className={classes['beside']} aria-label="Side by side">
      <div className={classes['choices']}>
        <NativeSelect label="This" data={options} value={one} onChange={({ target }) => onAsk({ one: target.value })} />
        <NativeSelect
          label="beside this"
          data={options}
          value={other}
          onChange={({ target }) => onAsk({ other: target.value })}
        />
      </div>
      <form
        className={classes['with']}
        onSubmit={(event) => {
          event.preventDefault();
          onAsk({ with: typed.trim() });
        }}
      >
        <TextInput
          label="or a state of another unit"
          placeholder="its serial"
          value={typed}
          onChange={({ target }) => setTyped(target.value)}
          maxLength={40}
          autoComplete="off"
        />
        <ActButton
          look="quiet"
          type="submit"
          disabled={typed.trim() === ''}
          onAct={() => onAsk({ with: typed.trim() })}
        >
          Add its states
        </ActButton>
      </form>
      {problem && <Notice kind="stop" says={problem.message} />}
      {isFetching && !data && <Busy />}
      {data && <Compared compared={data} />}
    </section>
  );
}

function askFor(one: string, other: string) {
  const [[first, oneAt], [second, otherAt]] = [one.split('.'), other.split('.')];
  return first && oneAt && second && otherAt ? { one: first, oneAt, other: second, otherAt } : null;
}

function Compared({ compared: { differences, same, unread, one, other } }: { readonly compared: ComparedStates }) {
  const alike = `${same === 1 ? '1 code shows' : `${same} codes show`} the same.`;
  return (
    <>
      {differences.length === 0 ? (
        <Notice kind="done" says={`Nothing that was read differs. ${alike}`} />
      ) : (
        <table className={classes['table']} aria-label="What differs">
          <thead>
            <tr className="cap">
              <th scope="col">What</th>
              <th scope="col">This</th>
              <th scope="col">That</th>
            </tr>
          </thead>
          <tbody>
            {differences.map(({ about, title, one: was, other: is, grade, says }) => (
              <tr key={`${about} ${title}`} data-grade={grade ?? 'none'}>
                <th scope="row">
                  {title}
                  <small>{says}</small>
                </th>
                <td>{was}</td>
                <td>{is}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="soft">
        {differences.length > 0 && `${alike} `}
        {unread.length > 0 && `Read of one of them alone, and not judged: ${unread.join(', ')}. `}
        {one.serial === other.serial &&
          Date.parse(one.at) > Date.parse(other.at) &&
          'The first is the later one: what is said goes back in time.'}
      </p>
    </>
  );
}
