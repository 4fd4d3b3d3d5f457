import { createRequire } from 'node:module';
import { openSync, type Font, type GlyphRun } from 'fontkit';

const { resolve } = createRequire(import.meta.url);

/** Font files that ship with the app, by the role they play on paper. */
export const PAPER_FONTS = {
  text: resolve('@expo-google-fonts/barlow/400Regular/Barlow_400Regular.ttf'),
  strong: resolve('@expo-google-fonts/barlow/600SemiBold/Barlow_600SemiBold.ttf'),
  label: resolve('@expo-google-fonts/barlow-semi-condensed/600SemiBold/BarlowSemiCondensed_600SemiBold.ttf'),
  code: resolve('@expo-google-fonts/atkinson-hyperlegible-mono/400Regular/AtkinsonHyperlegibleMono_400Regular.ttf'),
  codeStrong: resolve('@expo-google-fonts/atkinson-hyperlegible-mono/700Bold/AtkinsonHyperlegibleMono_700Bold.ttf'),
  /** Names in Greek, Cyrillic, Devanagari, Vietnamese. */
  otherText: resolve('@expo-google-fonts/noto-sans/400Regular/NotoSans_400Regular.ttf'),
  otherStrong: resolve('@expo-google-fonts/noto-sans/600SemiBold/NotoSans_600SemiBold.ttf'),
} as const;

export type PaperFont = keyof typeof PAPER_FONTS;

const opened = new Map<PaperFont, PDFKit.Mixins.PDFFontSource>();

/** Words laid out that are kept of a font; papers of one house say the same ones over and over. */
const MOST_WORDS = 8_000;

/** A font as it was read once in this thread: reading one anew, and laying out the same words, takes longer than all drawing. */
export function openedFont(name: PaperFont): PDFKit.Mixins.PDFFontSource {
  const known = opened.get(name);
  if (known !== undefined) return known;
  const font = withKeptWords(openSync(PAPER_FONTS[name]) as Font) as unknown as PDFKit.Mixins.PDFFontSource;
  opened.set(name, font);
  return font;
}

/** Lays a word out once. Each caller gets positions of its own, since papers scale them in place. */
function withKeptWords(font: Font): Font {
  const runs = new Map<string, GlyphRun>();
  const layout = font.layout.bind(font);
  font.layout = (text, ...more) => {
    if (more.length > 0 && more[0] !== undefined) return layout(text, ...more);
    let run = runs.get(text);
    if (!run) {
      if (runs.size >= MOST_WORDS) runs.clear();
      run = layout(text);
      runs.set(text, run);
    }
    const own = Object.create(Object.getPrototypeOf(run) as object) as GlyphRun;
    return Object.assign(own, run, { positions: run.positions.map((position) => ({ ...position })) });
  };
  return font;
}
