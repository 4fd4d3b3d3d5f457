import type { LibraryEntry } from '@decurio/contract';
import { DocumentActs } from '../document-acts.js';
import { asksWords, OF_TITLES, STEP_TITLES } from './check-words.js';
import classes from '../library-form.module.css';

/** A list of checks as a person reads it, in the order they are made. */
export function CheckListSheet({ entry }: { readonly entry: LibraryEntry<'checkList'> }) {
  const { name, checks } = entry.document;
  return (
    <>
      <p className="cap">Checks · version {entry.version}</p>
      <h1>{name}</h1>
      <p className="soft">
        What a shop looks at before a vehicle leaves. One that is not good holds the unit until a lead has decided.
        Torques are the maker&apos;s: hold them against its papers.
      </p>
      <ol className={classes['checks']}>
        {checks.map(({ id, title, how, step, of, asks }) => (
          <li key={id}>
            <strong>{title}</strong>
            <span>{how}</span>
            <span className="soft">
              {asksWords(asks)}; {STEP_TITLES[step]}; {OF_TITLES[of]}
            </span>
          </li>
        ))}
      </ol>
      <DocumentActs entry={entry} />
    </>
  );
}
