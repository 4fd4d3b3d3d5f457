import classes from './number-pad.module.css';

/** The words that a display shows instead of digits, for a finger; never takes the focus from the field. */
export function WordPad({
  words,
  typed,
  onWord,
}: {
  readonly words: readonly string[];
  readonly typed: string;
  readonly onWord: (word: string) => void;
}) {
  return (
    <div className={classes['words']} role="group" aria-label="Words it may show">
      {words.map((word) => (
        <button
          key={word}
          type="button"
          tabIndex={-1}
          aria-pressed={typed.trim().toLowerCase() === word.toLowerCase()}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onWord(word)}
        >
          {word}
        </button>
      ))}
    </div>
  );
}
