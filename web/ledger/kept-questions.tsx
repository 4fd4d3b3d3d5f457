import { Menu, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { LedgerQuestion } from '@decurio/core';
import { asProblem } from '../state/api.js';
import { ledgerApi } from './ledger-api.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { Notice } from '../ui/notice.js';
import classes from './ledger-page.module.css';

/** Questions that the house asks again and again, under a name. */
export function KeptQuestions({
  question,
  onAsk,
}: {
  readonly question: LedgerQuestion;
  readonly onAsk: (question: LedgerQuestion) => void;
}) {
  const { data: kept = [] } = ledgerApi.useKeptQuestionsQuery(null);
  const [drop] = ledgerApi.useDropQuestionMutation();
  const [isKeeping, setKeeping] = useState(false);
  const same = kept.find((each) => JSON.stringify(sorted(each.question)) === JSON.stringify(sorted(question)));
  return (
    <>
      {kept.length > 0 && (
        <Menu withinPortal position="bottom-start">
          <Menu.Target>
            <button type="button" className={classes['link']}>
              Kept questions
            </button>
          </Menu.Target>
          <Menu.Dropdown>
            {kept.map((each) => (
              <Menu.Item key={each.id} onClick={() => onAsk(each.question)}>
                {each.name}
              </Menu.Item>
            ))}
          </Menu.Dropdown>
        </Menu>
      )}
      {same ? (
        <button type="button" className={classes['link']} onClick={() => void drop(same.id)}>
          Keep "{same.name}" no longer
        </button>
      ) : (
        Object.keys(question).length > 0 && (
          <button type="button" className={classes['link']} onClick={() => setKeeping(true)}>
            Keep this question
          </button>
        )
      )}
      {isKeeping && <KeepDialog question={question} onClose={() => setKeeping(false)} />}
    </>
  );
}

const sorted = (question: LedgerQuestion) => Object.entries(question).sort(([a], [b]) => (a < b ? -1 : 1));

function KeepDialog({ question, onClose }: { readonly question: LedgerQuestion; readonly onClose: () => void }) {
  const [name, setName] = useState('');
  const [id] = useState(() => crypto.randomUUID());
  const [keep, keeping] = ledgerApi.useKeepQuestionMutation();
  const problem = asProblem(keeping.error);
  const submit = async () => {
    if (name.trim() === '') return;
    const answer = await keep({ id, name: name.trim(), question });
    if (!answer.error) onClose();
  };
  return (
    <Dialog title="Keep this question" onClose={onClose}>
      <form
        className={classes['keep']}
        onSubmit={(event) => {
          event.preventDefault();
          void submit();
        }}
      >
        <TextInput
          label="Under which name"
          value={name}
          onChange={({ target }) => setName(target.value)}
          maxLength={80}
          data-autofocus
          data-scan-guard="words"
        />
        {problem && <Notice kind="stop" says={problem.message} />}
        <div className={classes['pages']}>
          <ActButton look="main" type="submit" busy={keeping.isLoading} onAct={() => void submit()}>
            Keep it
          </ActButton>
        </div>
      </form>
    </Dialog>
  );
}
