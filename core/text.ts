/**
 * A text that is no longer than `most` UTF-16 units, cut between letters as people see them: no letter is halved, and
 * none loses its accent.
 * @example
 * shortened('Łódź 🚲🚲', 7); // 'Łódź 🚲'
 */
export function shortened(text: string, most: number): string {
  if (text.length <= most) return text;
  let length = 0;
  for (const { segment } of new Intl.Segmenter().segment(text.slice(0, most + LONGEST_LETTER))) {
    if (length + segment.length > most) break;
    length += segment.length;
  }
  return text.slice(0, length);
}

/** A family of four with skin tones is 25 units; what is longer is no letter that anybody writes. */
const LONGEST_LETTER = 64;

/** With a point at its end, and one alone where it has one already, as names may. */
export const withPoint = (words: string): string => (words.endsWith('.') ? words : `${words}.`);
