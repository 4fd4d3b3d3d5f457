import './key-cap.css';

export interface KeyCapProps {
  /** The key as it is printed: `A`, `Space`, `Enter`. */
  readonly of: string;
  /** What acts instead while words are typed; `Esc`, which leaves them, where nothing else is said; empty: only that it waits. */
  readonly whileTyping?: string;
}

/** A key as it stands on what it does. While words are typed those that would be typed too say what comes before them. */
export function KeyCap({ of, whileTyping = 'Esc' }: KeyCapProps) {
  const isTyped = of.length === 1 || of === 'Space';
  return (
    <kbd aria-hidden="true" data-while-typing={isTyped ? whileTyping : undefined}>
      {of}
    </kbd>
  );
}
