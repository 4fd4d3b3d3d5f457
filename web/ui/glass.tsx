import type { Glass as GlassView } from '@decurio/core';
import classes from './glass.module.css';

export interface GlassProps {
  readonly view: GlassView;
  /** What stands over it, such as "display should show". */
  readonly says: string;
  /** Speed as it stands on the glass while riding; 0 where nothing turns. */
  readonly speed?: string;
}

/** The vehicle's display as it should look now, in seven segments: dark, riding, asking, in the menu, or saying something. */
export function Glass({ view, says, speed = '0' }: GlassProps) {
  return (
    <div className={classes['glass']} role="group" aria-label={says}>
      <Content view={view} says={says} speed={speed} />
    </div>
  );
}

function Content({ view, says, speed }: GlassProps & { readonly speed: string }) {
  switch (view.kind) {
    case 'off':
      return <Field title={says} text="   " note="dark" />;
    case 'riding':
      return (
        <>
          <Field title={says} text={speed.padStart(3, ' ')} note="speed: the menu is closed" />
          {view.level !== null && <Field title="Level" text={String(view.level)} />}
          {view.mode !== null && <Words title="Mode" words={view.mode} />}
          {view.icons.length > 0 && <Words title="Lit" words={view.icons.join(', ')} />}
        </>
      );
    case 'pin':
      return <Field title={`${says} · PIN`} text={view.digits} marked={view.at} />;
    case 'message':
      return <Field title={says} text={view.text} note="a message: wait until it has passed" />;
    case 'entry':
      return <Field title={`${says} · ${view.page}`} text={view.shows} isMarked />;
    case 'menu':
      return (
        <>
          <Field title={`${says} · ${view.page}`} text={view.shows} />
          {DIGITS_ALONE.test(view.text) ? (
            <Field
              title="Value"
              text={view.text.padStart(4, ' ')}
              isMarked={view.focus === 'value' && view.digit === null}
              marked={view.digit === null ? undefined : digitAt(view.text, view.digit)}
            />
          ) : (
            <Words title="Value" words={view.text} isMarked={view.focus === 'value'} />
          )}
        </>
      );
  }
}

/** What seven segments can show without being misread. */
const DIGITS_ALONE = /^[\d.:\- ]*$/;

/** Where the n-th digit stands in a text with points and colons, padded to four places. */
function digitAt(text: string, digit: number): number {
  const padded = text.padStart(4, ' ');
  let seen = -1;
  for (let i = 0; i < padded.length; i++) if (/\d/.test(padded[i] ?? '') && ++seen === digit) return i;
  return padded.length - 1;
}

interface FieldProps {
  readonly title: string;
  readonly text: string;
  readonly note?: string;
  readonly isMarked?: boolean;
  /** Which sign is marked alone. */
  readonly marked?: number | undefined;
}

function Field({ title, text, note, isMarked = false, marked }: FieldProps) {
  return (
    <div className={classes['field']} data-lit={isMarked}>
      <span className={classes['title']}>{title}</span>
      <span className={classes['digits']} data-long={text.length > 5} aria-hidden="true">
        <span className={classes['ghost']}>{text.replace(/[^.:]/g, '8')}</span>
        <span className={classes['shown']}>
          {[...text].map((sign, i) => (
            <span key={i} data-marked={i === marked}>
              {sign === ' ' ? '!' : sign}
            </span>
          ))}
        </span>
      </span>
      <span className="hidden-words">{text.trim()}</span>
      {note !== undefined && <span className={classes['note']}>{note}</span>}
    </div>
  );
}

interface WordsProps {
  readonly title: string;
  readonly words: string;
  readonly isMarked?: boolean;
}

const Words = ({ title, words, isMarked = false }: WordsProps) => (
  <div className={classes['field']} data-lit={isMarked}>
    <span className={classes['title']}>{title}</span>
    <span className={classes['words']}>{words}</span>
  </div>
);
