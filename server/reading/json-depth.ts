/** Deeper than any document or entry of ours nests; what nests deeper is made to break whoever reads it. */
export const DEEPEST_JSON = 40;

const [QUOTE, BACKSLASH, OPEN_ARRAY, CLOSE_ARRAY, OPEN_OBJECT, CLOSE_OBJECT] = [...'"\\[]{}'].map((letter) =>
  letter.charCodeAt(0),
);

/** How deep a JSON text nests, counted without reading it; stops counting once it is deeper than `most`. */
export function jsonDepth(text: string, most = DEEPEST_JSON): number {
  let depth = 0;
  let deepest = 0;
  let inText = false;
  for (let i = 0; i < text.length && deepest <= most; i++) {
    const code = text.charCodeAt(i);
    if (inText) {
      if (code === BACKSLASH) i++;
      else if (code === QUOTE) inText = false;
    } else if (code === QUOTE) inText = true;
    else if (code === OPEN_ARRAY || code === OPEN_OBJECT) deepest = Math.max(deepest, ++depth);
    else if (code === CLOSE_ARRAY || code === CLOSE_OBJECT) depth--;
  }
  return deepest;
}
