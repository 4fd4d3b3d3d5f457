import { TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useState } from 'react';
import { Link, NavigationType, useLocation, useNavigationType, useSearchParams } from 'react-router';
import type { LedgerQuestion } from '@decurio/core';
import { asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { Busy, Notice } from '../ui/notice.js';
import { AnswerList } from './answer-list.js';
import { CheckRecordFile } from './check-record-file.js';
import { FoundByBeginning } from './found-by-beginning.js';
import { ledgerApi } from './ledger-api.js';
import { KeptQuestions } from './kept-questions.js';
import { QuestionLine } from './question-line.js';
import { isWhole, questionIn } from './question-parts.js';
import classes from './ledger-page.module.css';

/** What left, how, and proved by whom: a question read as a sentence, and the sealed units that answer it, newest first. */
export function LedgerPage() {
  const [typed, setTyped] = useState('');
  const [search] = useDebouncedValue(typed.trim(), 200);
  // Going back and forward asks what stood there; what is typed here is in the address a moment later, and never read from it.
  const { key } = useLocation();
  const isGoing = useNavigationType() === NavigationType.Pop;
  const [went, setWent] = useState(key);
  if (isGoing && key !== went) setWent(key);
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <h1>Ledger</h1>
        <TextInput
          className={classes['search'] ?? ''}
          data-scan-guard
          aria-label="Find by serial, order or customer"
          placeholder="Serial, order or customer"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          maxLength={60}
        />
        <CheckRecordFile />
        <Link className={classes['link']} to="/ledger/quality">
          Quality
        </Link>
        <Link className={classes['link']} to="/ledger/elsewhere">
          Elsewhere
        </Link>
        <Link className={classes['link']} to="/ledger/moved">
          What moved
        </Link>
        <Link className={classes['link']} to="/ledger/checkpoints">
          Checkpoints
        </Link>
      </header>
      {search === '' ? <Asked key={went} /> : <FoundByBeginning key={search} search={search} />}
    </div>
  );
}

function Asked() {
  const [params, setParams] = useSearchParams();
  const [question, setQuestion] = useState(() => questionIn(params));
  const { data: choices } = ledgerApi.useLedgerChoicesQuery(null);
  const ask = (next: LedgerQuestion) => {
    setQuestion(next);
    setParams({ ...next } as Record<string, string>, { replace: true });
  };
  return (
    <>
      <QuestionLine question={question} choices={choices} onAsk={ask} />
      {(choices?.wanting ?? 0) > 0 && (
        <Notice
          kind="note"
          says={`${choices?.wanting} units sealed earlier are still being taken in and cannot be found by a question yet.`}
        />
      )}
      <Answer question={question} onAsk={ask} />
    </>
  );
}

function Answer({
  question,
  onAsk,
}: {
  readonly question: LedgerQuestion;
  readonly onAsk: (question: LedgerQuestion) => void;
}) {
  const [asked] = useDebouncedValue(question, 250);
  const { data, error, refetch, hasNextPage, isFetchingNextPage, fetchNextPage, isFetching } =
    ledgerApi.useAskLedgerInfiniteQuery(asked, { skip: !isWhole(asked) });
  const { who } = useSession();
  const problem = asProblem(error);
  const items = data?.pages.flatMap((page) => page.items) ?? [];
  const file = (as: string) => `/api/ledger/answer/file/${as}?${new URLSearchParams({ ...asked }).toString()}`;
  const isAll = Object.keys(asked).length === 0;
  if (!isWhole(asked)) return <Notice kind="note" says="Say with what the code is to be compared." />;
  return (
    <>
      <div className={classes['acts']} aria-live="polite">
        <span className="soft">
          {data ? `${items.length}${hasNextPage ? ' and more' : ''} found` : ''}
          {isFetching && data ? ', looking …' : ''}
        </span>
        {items.length > 0 && (
          <>
            <a href={file('csv')} download>
              CSV
            </a>
            <a href={file('jsonl')} download>
              JSON Lines
            </a>
            {asked.customer !== undefined && who?.role !== 'technician' && (
              <a href={`/api/archives/customer?customer=${encodeURIComponent(asked.customer)}`} download>
                Archive of {asked.customer}
              </a>
            )}
          </>
        )}
        <KeptQuestions question={asked} onAsk={onAsk} />
      </div>
      {problem && (
        <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} />
      )}
      {!data && !problem && <Busy />}
      {data && items.length === 0 && (
        <Notice
          kind="note"
          title={isAll ? 'Nothing is sealed yet' : 'Nothing found'}
          says={
            isAll
              ? 'A unit stands here once it was signed off on the bench.'
              : 'No sealed unit answers this question. Leave a part of it out, or ask for every visit.'
          }
        />
      )}
      {items.length > 0 && (
        <AnswerList
          items={items}
          code={asked.code}
          hasMore={hasNextPage && !isFetchingNextPage}
          onMore={() => void fetchNextPage()}
        />
      )}
    </>
  );
}
