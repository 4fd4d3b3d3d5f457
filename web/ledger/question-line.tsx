import { Autocomplete, NativeSelect, Popover, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  COMPARISONS,
  FUNCTIONS,
  functionTitle,
  PROOF_OUTCOMES,
  unitOfFunction,
  vocabularyOf,
  WHEREABOUTS,
  type CodeFunction,
  type LedgerQuestion,
} from '@decurio/core';
import type { LedgerChoices } from '@decurio/contract';
import { ActButton } from '../ui/act-button.js';
import { partsLeft, partsOf, partTitle, withoutPart, type QuestionPart } from './question-parts.js';
import classes from './question-line.module.css';

export interface QuestionLineProps {
  readonly question: LedgerQuestion;
  readonly choices: LedgerChoices | undefined;
  readonly onAsk: (question: LedgerQuestion) => void;
}

/** The question as a sentence, each word of it a choice. */
export function QuestionLine({ question, choices, onAsk }: QuestionLineProps) {
  const [open, setOpen] = useState<QuestionPart['id'] | 'more' | null>(null);
  const parts = partsOf(question, choices);
  const left = partsLeft(question);
  const fresh = open !== null && open !== 'more' && !parts.some(({ id }) => id === open) ? open : null;
  return (
    <p className={classes['line']} aria-label="The question">
      {parts.map(({ id, before, says }, i) => (
        <span key={id} className={classes['part']}>
          {i > 0 && ', '}
          {before}{' '}
          <Word
            id={id}
            says={says}
            isOpen={open === id}
            onOpen={(isOpen) => setOpen(isOpen ? id : null)}
            {...{ question, choices, onAsk }}
          />
        </span>
      ))}
      {fresh !== null && (
        <span className={classes['part']}>
          {', '}
          <Word
            id={fresh}
            says={partTitle(fresh as Exclude<QuestionPart['id'], 'where'>)}
            isOpen
            onOpen={(isOpen) => !isOpen && setOpen(null)}
            {...{ question, choices, onAsk }}
          />
        </span>
      )}
      {left.length > 0 && (
        <Popover opened={open === 'more'} onChange={(isOpen) => setOpen(isOpen ? 'more' : null)} trapFocus withinPortal>
          <Popover.Target>
            <button
              type="button"
              className={classes['more']}
              aria-expanded={open === 'more'}
              onClick={() => setOpen(open === 'more' ? null : 'more')}
            >
              and …
            </button>
          </Popover.Target>
          <Popover.Dropdown>
            <div className={classes['list']}>
              {left.map((id) => (
                <ActButton key={id} onAct={() => setOpen(id)}>
                  {partTitle(id)}
                </ActButton>
              ))}
            </div>
          </Popover.Dropdown>
        </Popover>
      )}
    </p>
  );
}

interface WordProps extends QuestionLineProps {
  readonly id: QuestionPart['id'];
  readonly says: string;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
}

function Word({ id, says, isOpen, onOpen, question, choices, onAsk }: WordProps) {
  return (
    <Popover opened={isOpen} onChange={onOpen} trapFocus withinPortal width={320}>
      <Popover.Target>
        <button type="button" className={classes['word']} aria-expanded={isOpen} onClick={() => onOpen(!isOpen)}>
          {says}
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          className={classes['choice']}
          onSubmit={(event) => {
            event.preventDefault();
            onOpen(false);
          }}
        >
          <Choice {...{ id, question, choices, onAsk }} />
          <div className={classes['acts']}>
            <ActButton look="main" type="submit" onAct={() => onOpen(false)}>
              So
            </ActButton>
            {id !== 'where' && (
              <ActButton
                onAct={() => {
                  onAsk(withoutPart(question, id));
                  onOpen(false);
                }}
              >
                Leave it out
              </ActButton>
            )}
          </div>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}

const ALL_CODES = (Object.keys(FUNCTIONS) as CodeFunction[]).map((code) => ({
  value: code,
  label: functionTitle(code),
}));

function Choice({ id, question, choices, onAsk }: QuestionLineProps & { readonly id: QuestionPart['id'] }) {
  const set = (change: Partial<Record<keyof LedgerQuestion, string | undefined>>) =>
    onAsk(
      Object.fromEntries(
        Object.entries({ ...question, ...change }).filter(([, value]) => value !== undefined && value !== ''),
      ),
    );
  const oneOf = (label: string, field: keyof LedgerQuestion, data: readonly string[]) => (
    <Autocomplete
      label={label}
      data={[...data]}
      value={question[field] ?? ''}
      onChange={(value) => set({ [field]: value })}
      maxLength={120}
      data-scan-guard="words"
    />
  );
  switch (id) {
    case 'where':
      return (
        <NativeSelect
          label="Which units"
          data={Object.entries(WHEREABOUTS).map(([value, label]) => ({ value, label }))}
          value={question.where ?? 'newest'}
          onChange={({ target }) => set({ where: target.value === 'newest' ? undefined : target.value })}
        />
      );
    case 'code':
      return <CodeChoice {...{ question, choices, set }} />;
    case 'customer':
      return oneOf('Customer', 'customer', choices?.customers ?? []);
    case 'type':
      return oneOf('Type', 'type', choices?.types ?? []);
    case 'className':
      return oneOf('Class', 'className', choices?.classes ?? []);
    case 'order':
    case 'serial':
      return (
        <TextInput
          label={id === 'order' ? 'Number of the order' : 'Part of a serial'}
          value={question[id] ?? ''}
          onChange={({ target }) => set({ [id]: target.value })}
          maxLength={40}
          autoComplete="off"
          data-scan-guard="words"
        />
      );
    case 'map':
      return (
        <Select
          label="Display"
          data={(choices?.maps ?? []).map(({ id: value, title }) => ({ value, label: title }))}
          value={question.map ?? null}
          onChange={(map) => set({ map: map ?? undefined })}
          comboboxProps={{ withinPortal: false }}
        />
      );
    case 'by':
      return (
        <Select
          label="Signed off by"
          data={(choices?.people ?? []).map(({ id: value, name }) => ({ value, label: name }))}
          value={question.by ?? null}
          onChange={(by) => set({ by: by ?? undefined })}
          comboboxProps={{ withinPortal: false }}
        />
      );
    case 'worked':
      return (
        <Select
          label="Worked on by"
          data={(choices?.workers ?? []).map(({ id: value, name }) => ({ value, label: name }))}
          value={question.worked ?? null}
          onChange={(worked) => set({ worked: worked ?? undefined })}
          comboboxProps={{ withinPortal: false }}
        />
      );
    case 'words':
      return (
        <TextInput
          label="Any part of what was found or decided"
          value={question.words ?? ''}
          onChange={({ target }) => set({ words: target.value })}
          maxLength={80}
          autoComplete="off"
          data-scan-guard="words"
        />
      );
    case 'proof':
      return (
        <>
          <Select
            label="Which test"
            data={(choices?.proofs ?? []).map(({ test, title }) => ({ value: test, label: title }))}
            value={question.proof ?? null}
            onChange={(proof) => set({ proof: proof ?? undefined, proved: question.proved })}
            comboboxProps={{ withinPortal: false }}
            searchable
          />
          <NativeSelect
            label="What came of it"
            data={[
              { value: '', label: 'whatever came of it' },
              ...Object.entries(PROOF_OUTCOMES).map(([value, label]) => ({ value, label })),
            ]}
            value={question.proved ?? ''}
            onChange={({ target }) => set({ proved: target.value })}
          />
        </>
      );
    case 'from':
    case 'to':
      return (
        <TextInput
          type="date"
          label={id === 'from' ? 'Sealed since' : 'Sealed until'}
          value={question[id] ?? ''}
          onChange={({ target }) => set({ [id]: target.value })}
        />
      );
    case 'finding':
      return (
        <NativeSelect
          label="What was not as it should be"
          data={[
            { value: '', label: 'choose' },
            { value: 'accepted', label: 'something accepted in writing' },
            { value: 'unproved', label: 'something left unproved' },
          ]}
          value={question.finding ?? ''}
          onChange={({ target }) => set({ finding: target.value })}
        />
      );
  }
}

interface CodeChoiceProps {
  readonly question: LedgerQuestion;
  readonly choices: LedgerChoices | undefined;
  readonly set: (change: Partial<Record<keyof LedgerQuestion, string | undefined>>) => void;
}

/** What a code was left at: its function, how it compares, and with what; words are offered as they were read. */
function CodeChoice({ question: { code, is = 'over', value }, choices, set }: CodeChoiceProps) {
  const read = new Map((choices?.codes ?? []).map((each) => [each.code, each.words]));
  const words = code === undefined ? [] : [...new Set([...(read.get(code) ?? []), ...vocabularyOf(code)])];
  const unit = code === undefined ? '' : unitOfFunction(code);
  return (
    <>
      <NativeSelect
        label="What it controls"
        data={[
          { value: '', label: 'choose' },
          ...ALL_CODES.filter(({ value: own }) => read.size === 0 || read.has(own)),
        ]}
        value={code ?? ''}
        onChange={({ target }) => set({ code: target.value, is: target.value === '' ? undefined : is })}
      />
      <NativeSelect
        label="was left"
        data={Object.entries(COMPARISONS).map(([own, label]) => ({ value: own, label }))}
        value={is}
        onChange={({ target }) => set({ is: target.value })}
      />
      {is === 'means' ? (
        <Autocomplete
          label="the word"
          data={words}
          value={value ?? ''}
          onChange={(next) => set({ value: next })}
          comboboxProps={{ withinPortal: false }}
          maxLength={40}
          data-scan-guard="words"
        />
      ) : (
        <TextInput
          label={unit === '' ? 'the number' : `the number, in ${unit}`}
          value={value ?? ''}
          onChange={({ target }) => set({ value: target.value })}
          inputMode="decimal"
          maxLength={12}
          autoComplete="off"
          data-scan-guard="words"
        />
      )}
    </>
  );
}
