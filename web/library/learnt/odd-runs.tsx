import { TextInput } from '@mantine/core';
import { useState } from 'react';
import type { FamilyRun } from '@decurio/core';
import type { LearntFamily } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import classes from './learnt.module.css';

/** Units that do not read as their family, and those that a lead left out, with the reason. */
export function OddRuns({ family: { runs, advice } }: { readonly family: LearntFamily }) {
  const leftOut = runs.filter((run) => run.leftOut !== null);
  if (advice.odd.length === 0 && leftOut.length === 0) return null;
  return (
    <ul className={classes['odd']} aria-label="Units unlike their family">
      {advice.odd.map(({ run, seen }) => (
        <OddRun
          key={run.visitId}
          run={run}
          says={
            seen === 'atOnce'
              ? 'reads otherwise than those before it. Until somebody says why, it counts, and makes the family less sure.'
              : 'reads otherwise than all the others together. Until somebody says why, it counts, and makes the family less sure.'
          }
        />
      ))}
      {leftOut.map((run) => (
        <OddRun key={run.visitId} run={run} says={`left out by ${run.leftOut?.by}: ${run.leftOut?.words}`} />
      ))}
    </ul>
  );
}

function OddRun({ run, says }: { readonly run: FamilyRun; readonly says: string }) {
  const { who } = useSession();
  const [leave, leaving] = api.useLeaveRunOutMutation();
  const [words, setWords] = useState<string | null>(null);
  const problem = asProblem(leaving.error);
  const mayDecide = who !== null && who !== undefined && who.role !== 'technician';
  const send = (text: string) =>
    void leave({ visitId: run.visitId, words: text }).then((answer) => {
      if (!answer.error) setWords(null);
    });
  return (
    <li>
      <p>
        <strong>{run.serial}</strong> {says}
      </p>
      {mayDecide && run.leftOut && (
        <ActButton busy={leaving.isLoading} onAct={() => send('')}>
          Take it in again
        </ActButton>
      )}
      {mayDecide && !run.leftOut && words === null && (
        <ActButton onAct={() => setWords('')}>Say why it is left out</ActButton>
      )}
      {words !== null && (
        <form
          className={classes['why']}
          onSubmit={(event) => {
            event.preventDefault();
            send(words.trim());
          }}
        >
          <TextInput
            label="Why it is no measure of the others"
            placeholder="Its tyre was flat"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            maxLength={200}
            minLength={3}
            required
            error={problem?.fields?.['words']}
            autoFocus
          />
          <ActButton type="submit" look="care" busy={leaving.isLoading} onAct={() => undefined}>
            Leave it out
          </ActButton>
          <ActButton onAct={() => setWords(null)}>Let it count</ActButton>
        </form>
      )}
      {problem && !problem.fields && <Notice kind="stop" says={problem.message} />}
    </li>
  );
}
