import { answerWords, HOUSE_CHOICES } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { DocumentActs } from '../document-acts.js';
import classes from '../library-form.module.css';

/** The answers of a shop or customer, each with the default and why; own ways are marked. */
export function HouseRulesSheet({ entry }: { readonly entry: LibraryEntry<'houseRules'> }) {
  const { name, customer, choices } = entry.document;
  const own = HOUSE_CHOICES.filter(({ choice, standard }) => choices[choice] !== standard).length;
  return (
    <>
      <p className="cap">House rules · version {entry.version}</p>
      <h1>{name}</h1>
      <p className="soft">
        {customer === null ? 'For every order that names no others.' : `For ${customer}.`}{' '}
        {own === 0
          ? 'All answers are the defaults.'
          : `${own === 1 ? 'One answer differs' : `${own} answers differ`} from the defaults, marked with a square.`}
      </p>
      <DocumentActs entry={entry} />
      <ul className={classes['schools']}>
        {HOUSE_CHOICES.map(({ choice, asks, standard, because }) => {
          const isOwn = choices[choice] !== standard;
          return (
            <li key={choice} className={classes['school']} data-own={isOwn}>
              <h2>{asks}</h2>
              <p>
                <strong>{answerWords(choice, choices[choice])}</strong>
              </p>
              <p className={classes['because']}>
                {isOwn ? `Instead of the default, ${answerWords(choice, standard)}: ${because}` : because}
              </p>
            </li>
          );
        })}
      </ul>
    </>
  );
}
