import { NumberInput, Radio } from '@mantine/core';
import {
  answerWords,
  HOUSE_CHOICES,
  STANDARD_CHOICES,
  type Choices,
  type HouseRules,
  type HouseChoice,
} from '@decurio/core';
import { TextField } from '../../ui/fields.js';
import { Begun } from '../../drafts/begun.js';
import { FormFoot } from '../form-foot.js';
import { useDocumentForm } from '../use-document-form.js';
import classes from '../library-form.module.css';

export const NEW_RULES: HouseRules = {
  format: 'decurio-house-rules/4',
  id: '',
  name: '',
  customer: null,
  choices: STANDARD_CHOICES,
};

/** Every question on which practitioners disagree, with its schools, the default and why. */
export function HouseRulesForm({ start, isNew }: { readonly start: HouseRules; readonly isNew: boolean }) {
  const { form, ...foot } = useDocumentForm('houseRules', start, (rules) => ({
    ...rules,
    customer: rules.customer === null || rules.customer.trim() === '' ? null : rules.customer.trim(),
  }));
  const rules = form.values;
  return (
    <>
      <h1>{isNew ? 'New house rules' : `${start.name}, edited`}</h1>
      <Begun draft={foot.draft} />
      <form
        className={classes['groups']}
        onSubmit={(event) => {
          event.preventDefault();
          foot.submit();
        }}
      >
        <div className={classes['row']}>
          <TextField form={form} path="name" label="Name" most={60} />
          {isNew && (
            <TextField form={form} path="id" label="Id in files" most={60} hint="lower-case letters, digits, hyphens" />
          )}
          <TextField form={form} path="customer" label="For one customer" most={120} hint="empty: for everybody" />
        </div>
        <ul className={classes['schools']}>
          {HOUSE_CHOICES.map((school) => (
            <Question
              key={school.choice}
              school={school}
              value={rules.choices[school.choice]}
              error={form.errors[`choices.${school.choice}`]}
              onChange={(value) => form.setFieldValue(`choices.${school.choice}`, value as never)}
            />
          ))}
        </ul>
        <FormFoot
          {...foot}
          isNew={isNew}
          back={`/library/houseRules/${isNew ? '' : start.id}`}
          says="Orders taken under them are worked out anew when you say so on their page."
        />
      </form>
    </>
  );
}

interface QuestionProps {
  readonly school: HouseChoice;
  readonly value: Choices[keyof Choices];
  readonly error: React.ReactNode;
  readonly onChange: (value: string | number) => void;
}

function Question({
  school: { choice, asks, answers, number, standard, because },
  value,
  error,
  onChange,
}: QuestionProps) {
  return (
    <li className={classes['school']} data-own={value !== standard}>
      <h2 id={`asks-${choice}`}>{asks}</h2>
      {answers ? (
        <Radio.Group value={String(value)} onChange={onChange} aria-labelledby={`asks-${choice}`} error={error}>
          <div className={classes['answers']}>
            {answers.map((answer) => (
              // Tab goes from question to question, arrows within one.
              <Radio.Card
                key={String(answer.value)}
                value={String(answer.value)}
                className={classes['answer'] ?? ''}
                tabIndex={answer === (answers.find((each) => each.value === value) ?? answers[0]) ? 0 : -1}
              >
                <Radio.Indicator />
                <span>{answer.title}</span>
              </Radio.Card>
            ))}
          </div>
        </Radio.Group>
      ) : (
        <NumberInput
          data-scan-guard
          hideControls
          aria-labelledby={`asks-${choice}`}
          value={typeof value === 'number' ? value : ''}
          onChange={(next) => onChange(next === '' ? '' : Number(next))}
          description={`${number?.unit ?? ''}${number?.zero ? `; 0 is ${number.zero}` : ''}`}
          step={number?.step ?? 1}
          decimalSeparator="."
          allowedDecimalSeparators={['.', ',']}
          error={error}
          w={150}
        />
      )}
      <p className={classes['because']}>
        Default: {answerWords(choice, standard)}. {because}
      </p>
    </li>
  );
}
