import type { Choice, Choices } from './house-rules.js';

/** One question on which good practitioners disagree, with its schools, the default and why. */
export interface HouseChoice<K extends Choice = Choice> {
  readonly choice: K;
  readonly asks: string;
  /** Answers to choose among; null where a number is typed. */
  readonly answers: readonly { readonly value: Choices[K]; readonly title: string }[] | null;
  readonly number?: {
    readonly min: number;
    readonly max: number;
    readonly step: number;
    readonly unit: string;
    readonly zero: string | null;
  };
  readonly standard: Choices[K];
  readonly because: string;
}

const choose = <K extends Choice>(
  choice: K,
  asks: string,
  answers: readonly (readonly [Choices[K], string])[],
  because: string,
): HouseChoice<K> => ({
  choice,
  asks,
  answers: answers.map(([value, title]) => ({ value, title })),
  standard: answers[0]?.[0] as Choices[K],
  because,
});

const type = <K extends Choice>(
  choice: K,
  asks: string,
  number: NonNullable<HouseChoice['number']>,
  standard: Choices[K],
  because: string,
): HouseChoice<K> => ({ choice, asks, answers: null, number, standard, because });

/** Every question in the order the screen asks it; the first answer is the default. */
export const HOUSE_CHOICES: readonly HouseChoice[] = [
  choose(
    'standstillStart',
    'Throttle from standstill',
    [
      ['rolling', 'only once rolling'],
      ['live', 'live'],
      ['pedalFirst', 'only once pedalling'],
    ],
    'Safest for riders who do not know the vehicle; live is smoother to ride away on.',
  ),
  choose(
    'throttleScope',
    'Throttle against assist level',
    [
      ['limited', 'limited by level'],
      ['full', 'full at every level'],
    ],
    'A rider who chose a low level means it for the throttle too.',
  ),
  choose(
    'walk',
    'Walk assist',
    [
      ['onForCargo', 'off, on for a heavy cargo type'],
      ['off', 'off'],
      ['on', 'on'],
    ],
    'Off for hire, on where pushing by hand is hard.',
  ),
  choose(
    'cruise',
    'Cruise',
    [
      ['off', 'off'],
      ['on', 'available'],
    ],
    'Riders who do not know it are surprised by it.',
  ),
  choose(
    'turbo',
    'Turbo',
    [
      ['whereCapHolds', 'only where the cap holds with it'],
      ['off', 'off'],
    ],
    'It lifts the cap on many scooters.',
  ),
  choose(
    'assistStart',
    'Assist start',
    [
      ['gentle', 'gentle'],
      ['middle', 'middle'],
      ['strong', 'strong'],
    ],
    'Nobody is thrown who did not expect it.',
  ),
  choose(
    'startRamp',
    'Start ramp',
    [
      ['gentle', 'gentle'],
      ['middle', 'middle'],
      ['strong', 'strong'],
    ],
    'Nobody is thrown who did not expect it.',
  ),
  choose(
    'motorBraking',
    'Motor braking',
    [
      ['weak', 'weak'],
      ['none', 'none'],
      ['strong', 'strong'],
    ],
    "Strong surprises, above all on a scooter's front wheel.",
  ),
  type(
    'assistLevels',
    'Levels',
    { min: 1, max: 20, step: 1, unit: 'levels', zero: null },
    5,
    'Few enough to count, enough to choose.',
  ),
  choose(
    'zeroLevel',
    'Level 0',
    [
      ['offered', 'offered'],
      ['notOffered', 'not offered'],
    ],
    'A rider can switch help off.',
  ),
  choose(
    'wheelValue',
    'Wheel value',
    [
      ['fitted', 'fitted to a reference speed where runs exist, else measured'],
      ['measured', 'as measured on the tape'],
      ['marked', 'as marked'],
    ],
    'The cap counts in the speed that the display shows.',
  ),
  choose(
    'wheelPulses',
    'Wheel pulses',
    [
      ['counted', 'as counted, never a trim'],
      ['trim', 'a finer trim than the wheel code'],
    ],
    'A wrong count makes the motor stutter on some vehicles.',
  ),
  choose(
    'shownSpeed',
    'Speed shown',
    [
      ['neverUnder', 'never under true'],
      ['nearest', 'nearest to true'],
    ],
    'The cap then errs to the slow side.',
  ),
  choose(
    'units',
    'Units shown',
    [
      ['kmh', 'km/h'],
      ['mph', 'mph'],
    ],
    'What riders there read on road signs.',
  ),
  type(
    'cutoffMarginVPerCell',
    'Cut-off above the cell floor',
    { min: 0, max: 1, step: 0.05, unit: 'V per cell', zero: "at the cell's floor" },
    0.1,
    'Cells run to their floor age fast.',
  ),
  choose(
    'packUse',
    'Pack use for range',
    [
      ['fourFifths', 'stop at four fifths'],
      ['all', 'all of it'],
    ],
    'Packs last longer, and the rider comes home.',
  ),
  choose(
    'batteryShown',
    'Battery indication',
    [
      ['percent', 'percent'],
      ['volts', 'volts'],
    ],
    'Percent for riders; volts are read on the bench.',
  ),
  type(
    'limpFromPercent',
    'Low-battery limp',
    { min: 0, max: 50, step: 1, unit: '% charge', zero: 'off' },
    10,
    'A slow way home instead of a sudden end.',
  ),
  type(
    'autoOffMin',
    'Switches itself off',
    { min: 0, max: 60, step: 1, unit: 'min', zero: 'never' },
    10,
    'A forgotten display empties the pack.',
  ),
  choose(
    'brightness',
    'Brightness',
    [
      ['full', 'full for sun, by sensor where fitted'],
      ['middle', 'middle'],
    ],
    'A display that cannot be read in the sun is ridden blind.',
  ),
  choose(
    'odometer',
    'Odometer',
    [
      ['never', 'never reset'],
      ['onHandOver', 'reset on hand-over'],
    ],
    'It is evidence.',
  ),
  choose(
    'uncapped',
    'Uncapped',
    [
      ['never', 'never'],
      ['inWriting', 'on private land, in writing'],
    ],
    "Only with a lead's written authority, a label and a day on which it ends; motor and pack wear more.",
  ),
  choose(
    'runs',
    'Speed runs',
    [
      ['sample', 'one in five, once eight or more tell what the next will be'],
      ['every', 'every unit'],
    ],
    'Units of one type, display and tyre read alike; every one is run again after one that did not.',
  ),
  choose(
    'readAsFound',
    'Read as found',
    [
      ['sample', 'first three of a batch in full, then one in five'],
      ['every', 'every unit'],
    ],
    'At once in full after any surprise.',
  ),
  choose(
    'photos',
    'Photographs',
    [
      ['none', 'of damage alone'],
      ['checkIn', 'of display, rating plate and serial at check in'],
      ['both', 'at check in, and of the display again at read-back'],
    ],
    'They answer what a word cannot; each takes a moment.',
  ),
  choose(
    'unplugCheck',
    'Display unplugged before read-back',
    [
      ['whereKept', 'where values live in the display only'],
      ['never', 'never'],
    ],
    'A display that comes off its plug later must not bring other values back.',
  ),
  choose(
    'reader',
    'Who reads back',
    [
      ['same', 'whoever keyed may'],
      ['other', 'somebody else'],
    ],
    'One person alone can finish a unit; a second one believes less.',
  ),
  choose(
    'proofs',
    'What is proved on the vehicle',
    [
      ['sample', 'safety on every unit, the rest on a sample'],
      ['every', 'everything on every unit'],
    ],
    'Levers, throttle, pedals and where drive ends are tried on each; a batch of one kind shows the rest by its first three and one in five.',
  ),
  choose(
    'prover',
    'Who proves',
    [
      ['same', 'whoever keyed may'],
      ['other', 'somebody else'],
    ],
    'The vehicle answers for itself, whoever asks it; a second one looks again.',
  ),
  choose(
    'unproved',
    'A test left out',
    [
      ['never', 'the unit stays'],
      ['inWriting', 'a lead may, in writing'],
    ],
    'What was not shown is not known; where it must leave all the same, every paper says so.',
  ),
  choose(
    'signers',
    'Who signs off',
    [
      ['one', 'one person'],
      ['two', 'two, each with their own password'],
    ],
    'One answers for it; two where a customer or an insurer asks for it.',
  ),
  choose(
    'pin',
    'Menu PIN',
    [
      ['perUnit', 'one for each unit'],
      ['perOrder', 'one for the order'],
      ['asFound', 'as found'],
    ],
    'The cap is not raised next day; one rider who learns it opens no other unit.',
  ),
  choose(
    'startPin',
    'Start PIN',
    [
      ['perOrder', 'one for the order'],
      ['perUnit', 'one for each unit'],
      ['asFound', 'as found'],
    ],
    'Riders know it: its digits are never those that open the menu.',
  ),
];

export const houseChoiceOf = (choice: Choice): HouseChoice | undefined =>
  HOUSE_CHOICES.find((school) => school.choice === choice);

/** The house rules of a shop that has not chosen yet. */
export const STANDARD_CHOICES = Object.fromEntries(
  HOUSE_CHOICES.map((school) => [school.choice, school.standard]),
) as unknown as Choices;

/** An answer as a person reads it: `only once rolling`, `10 min`, `never`. */
export function answerWords(choice: Choice, value: Choices[Choice]): string {
  const school = houseChoiceOf(choice);
  if (!school) return String(value);
  if (school.answers) return school.answers.find((answer) => answer.value === value)?.title ?? String(value);
  return value === 0 && school.number?.zero ? school.number.zero : `${value} ${school.number?.unit ?? ''}`.trim();
}
