import { createRequire } from 'node:module';

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
