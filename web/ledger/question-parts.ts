import {
  COMPARISONS,
  functionTitle,
  isCodeFunction,
  PROOF_OUTCOMES,
  questionFrom,
  unitOfFunction,
  WHEREABOUTS,
  type LedgerQuestion,
} from '@decurio/core';
import type { LedgerChoices } from '@decurio/contract';

/** One word of the question that can be chosen, with what stands before it. */
export interface QuestionPart {
  readonly id:
    | 'where'
    | 'code'
    | 'serial'
    | 'type'
    | 'map'
    | 'className'
    | 'customer'
    | 'order'
    | 'from'
    | 'to'
    | 'by'
    | 'worked'
    | 'finding'
    | 'words'
    | 'proof';
  readonly before: string;
  readonly says: string;
}

const PART_TITLES: Readonly<Record<Exclude<QuestionPart['id'], 'where'>, string>> = {
  code: 'what a code was left at',
  customer: 'a customer',
  from: 'sealed since',
  to: 'sealed until',
  type: 'a type',
  map: 'a display',
  className: 'a class',
  serial: 'part of a serial',
  order: 'an order',
  by: 'who signed it off',
  worked: 'who worked on it',
  finding: 'what was not as it should be',
  words: 'words of what was found or decided',
  proof: 'what came of a test',
};

/** What a part is called where it can be added. */
export const partTitle = (id: Exclude<QuestionPart['id'], 'where'>): string => PART_TITLES[id];

const FIELDS_OF: Readonly<Record<QuestionPart['id'], readonly (keyof LedgerQuestion)[]>> = {
  where: ['where'],
  code: ['code', 'is', 'value'],
  serial: ['serial'],
  type: ['type'],
  map: ['map'],
  className: ['className'],
  customer: ['customer'],
  order: ['order'],
  from: ['from'],
  to: ['to'],
  by: ['by'],
  worked: ['worked'],
  finding: ['finding'],
  words: ['words'],
  proof: ['proof', 'proved'],
};

/** The parts of a question in the order in which the sentence reads. */
export function partsOf(question: LedgerQuestion, choices: LedgerChoices | undefined): readonly QuestionPart[] {
  const {
    where = 'newest',
    code,
    is = 'over',
    value,
    serial,
    type,
    map,
    className,
    customer,
    order,
    from,
    to,
    by,
    worked,
    finding,
    words,
    proof,
    proved,
  } = question;
  const part = (id: QuestionPart['id'], before: string, says: string | undefined): readonly QuestionPart[] =>
    says === undefined ? [] : [{ id, before, says }];
  return [
    { id: 'where', before: 'Units', says: WHEREABOUTS[where] },
    ...part(
      'code',
      'with',
      code === undefined
        ? undefined
        : `${functionTitle(code).toLowerCase()} ${COMPARISONS[is]} ${value ?? '…'}${is === 'means' || unitOfFunction(code) === '' ? '' : ` ${unitOfFunction(code)}`}`,
    ),
    ...part('from', 'sealed since', from),
    ...part('to', 'sealed until', to),
    ...part('customer', 'for', customer),
    ...part('type', 'of type', type),
    ...part('map', 'with display', choices?.maps.find(({ id }) => id === map)?.title ?? map),
    ...part('className', 'under', className),
    ...part('order', 'in order', order),
    ...part('serial', 'with', serial === undefined ? undefined : `"${serial}" in the serial`),
    ...part('by', 'signed off by', choices?.people.find(({ id }) => id === by)?.name ?? by),
    ...part(
      'finding',
      'with',
      finding === undefined
        ? undefined
        : finding === 'accepted'
          ? 'something accepted in writing'
          : 'something left unproved',
    ),
    ...part('worked', 'worked on by', choices?.workers.find(({ id }) => id === worked)?.name ?? worked),
    ...part('words', 'with', words === undefined ? undefined : `"${words}" in what was found or decided`),
    ...part(
      'proof',
      'whose test',
      proof === undefined
        ? undefined
        : `"${choices?.proofs.find(({ test }) => test === proof)?.title ?? proof}" ${proved === undefined ? 'was asked' : `is ${PROOF_OUTCOMES[proved]}`}`,
    ),
  ];
}

/** Parts that can still be said. */
export const partsLeft = (question: LedgerQuestion): readonly Exclude<QuestionPart['id'], 'where'>[] =>
  (Object.keys(PART_TITLES) as Exclude<QuestionPart['id'], 'where'>[]).filter((id) =>
    FIELDS_OF[id].every((field) => question[field] === undefined),
  );

/** The question without a part. */
export const withoutPart = (question: LedgerQuestion, id: QuestionPart['id']): LedgerQuestion =>
  Object.fromEntries(
    Object.entries(question).filter(([field]) => !(FIELDS_OF[id] as readonly string[]).includes(field)),
  );

/** The question of an address; what is no part of one is left out. */
export function questionIn(params: URLSearchParams): LedgerQuestion {
  const question = questionFrom((name) => params.get(name));
  const { code } = question;
  return code !== undefined && !isCodeFunction(code) ? withoutPart(question, 'code') : question;
}

/** Whether a question can be asked: a code is compared with something. */
export const isWhole = ({ code, value }: LedgerQuestion): boolean => code === undefined || (value ?? '') !== '';
