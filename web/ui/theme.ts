import { createTheme, type CSSVariablesResolver, type MantineColorsTuple } from '@mantine/core';

/** Ten steps from wash to deep around one colour of ours, the colour itself at index 6. */
const verdigris: MantineColorsTuple = [
  '#EEF5F2',
  '#DCEAE4',
  '#BBD6CC',
  '#95BFB1',
  '#6FA797',
  '#3F8576',
  '#17695C',
  '#125549',
  '#0E4239',
  '#0A302A',
];
const ochre: MantineColorsTuple = [
  '#FCF6E6',
  '#F6E9CC',
  '#ECD49C',
  '#E2BE6B',
  '#D5A540',
  '#C48C1C',
  '#B4780A',
  '#8F5E06',
  '#6B4604',
  '#483003',
];
const madder: MantineColorsTuple = [
  '#FAEDEA',
  '#F4DCD7',
  '#E7B5AD',
  '#D98D82',
  '#C9645A',
  '#B5453B',
  '#A32E26',
  '#84231D',
  '#651A15',
  '#47110E',
];
const slate: MantineColorsTuple = [
  '#EEF2F6',
  '#DEE6EE',
  '#BBC9D8',
  '#95AAC0',
  '#6F8AA7',
  '#53708F',
  '#3A5674',
  '#2E455E',
  '#233448',
  '#182432',
];

export const theme = createTheme({
  colors: { verdigris, ochre, madder, slate },
  primaryColor: 'verdigris',
  primaryShade: 6,
  white: '#FBFAF6',
  black: '#18211D',
  defaultRadius: 0,
  fontFamily: 'Barlow, sans-serif',
  fontFamilyMonospace: '"Atkinson Hyperlegible Mono", monospace',
  headings: { fontFamily: '"Barlow Semi Condensed", sans-serif', fontWeight: '600' },
  fontSizes: { xs: '0.8125rem', sm: '0.9375rem', md: '1rem', lg: '1.125rem', xl: '1.375rem' },
  cursorType: 'pointer',
  respectReducedMotion: true,
  // Hints stand under their field, so that fields of a row stay level.
  components: {
    InputWrapper: { defaultProps: { inputWrapperOrder: ['label', 'input', 'description', 'error'] } },
    // Whoever types into a list means the first that is left of it by Enter.
    Select: { defaultProps: { selectFirstOptionOnChange: true } },
  },
});

/** Greys, reds and borders of the component library, brought to ours. */
export const themeVariables: CSSVariablesResolver = () => ({
  variables: {},
  light: {
    '--mantine-color-dimmed': 'var(--soft)',
    '--mantine-color-placeholder': '#6f7771',
    '--mantine-color-error': 'var(--madder)',
    '--mantine-color-default-border': '#8d8f86',
    '--mantine-color-gray-4': '#8d8f86',
  },
  dark: {},
});
