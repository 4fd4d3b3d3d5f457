/** Words that a screen reader says whenever they change, once; nothing is to be seen of them. */
export const Said = ({ words }: { readonly words: string }) => (
  <p className="hidden-words" role="status" aria-live="polite" aria-atomic="true">
    {words}
  </p>
);
