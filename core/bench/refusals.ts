/** Why an act may not happen: a stable code, and the sentence for a person. */
export interface Refusal {
  readonly code: RefusalCode;
  readonly message: string;
}

/** Every way in which an act at a unit can be refused, with what a person is told. */
const WORDS = {
  empty: () => 'This visit has no entries.',
  notOpened: () => 'A visit begins with its opening entry.',
  openedTwice: () => 'This visit is open already.',
  outOfSequence: (stands: number, due: number) => `Entry ${stands} stands where ${due} is due.`,
  otherVisit: () => 'This entry belongs to another visit.',
  unknownKind: (kind: string) => `"${kind}" is no kind of entry that is known here.`,
  withdrawn: () => 'This unit was withdrawn from its order and takes no more entries.',
  sealed: () => 'This visit is sealed and takes no more entries. Open a new visit instead.',
  held: (words: string) => `Held: ${words} A lead releases it first.`,
  otherStand: (station: string, name: string) =>
    `This unit is on ${station} with ${name}. Look as you like; to work on it, take it over.`,
  notSafe: () => 'The unit came back to a stand: its cautions are acknowledged first.',
  wrongStep: (step: string) => `This unit is at ${step} now.`,
  notUndoable: () => 'Only the newest act of this unit can be taken back.',
  photosMissing: (subjects: string) => `House rules ask for a photograph of the ${subjects} first.`,
  checksLeft: (titles: string) => `Still to be checked: ${titles}.`,
  noSuchCheck: () => 'This unit has no such check.',
  sayWhatIsWrong: () => 'Say in a few words what is not good.',
  numberMissing: () => 'Scan the number, or type it as it stands there.',
  figureMissing: (unit: string) => `Type what was read, ${unit}.`,
  absurdFigure: (figure: number, unit: string, range: string) =>
    `${figure} ${unit} is far beyond ${range}: look at the figure again.`,
  toolMissing: () => 'Type the number of the tool it was done with.',
  photographedAlready: () => 'This photograph is in the record already.',
  safeAlready: () => 'The cautions of this unit are acknowledged already.',
  cautionsLeft: (cautions: string) => `Still to be acknowledged: ${cautions}`,
  movedOn: (station: string, name: string) => `It is on ${station} with ${name} now.`,
  onThisStand: () => 'It is on this stand already.',
  unknownCode: (label: string) => `${label} is not on this display's map.`,
  notToRead: (label: string) => `${label} is not waiting to be read.`,
  notToKey: (label: string) => `${label} is not waiting to be keyed.`,
  leaveAsFound: (label: string) => `${label} stays as found.`,
  notTarget: (label: string, target: number, raw: number) => `${label} is to be ${target}, not ${raw}.`,
  leftToRead: (labels: string) => `Still to be read: ${labels}.`,
  leftToKey: (labels: string) => `Still to be keyed: ${labels}.`,
  notBackYet: (label: string) => `${label} is not back yet.`,
  asFoundAlready: () => 'It shows what it was found at already.',
  notUnplugged: () =>
    'House rules ask to unplug the display and plug it in again: some of its values live only while it is attached.',
  sameReader: () => 'House rules ask for another pair of eyes: whoever keyed this unit does not read it back.',
  notHeld: () => 'This unit is not held.',
  needsLead: () => 'A lead releases a held unit.',
  packStops: (words: string) =>
    `${words} Whoever signs, that pack is not powered. Measure it again, record another under Part replaced, or withdraw the unit.`,
  notAgainst: (label: string) => `${label} is not against its target: there is nothing to accept.`,
  nothingAccepted: () => 'Say which codes are accepted as they show.',
  notBack: (step: string) => `It cannot be sent back to ${step}.`,
  notCheckedIn: () => 'Check the unit in first; what it came with is recorded there.',
  spareIsDisplay: () => 'A spare that was keyed is a display: say that the display was replaced.',
  packNotLookedAt: () => 'Look at the new pack as at the first: swollen, wet, hot or damaged, or sound?',
  packNotMeasured: () => 'Measure the new pack and type its volts.',
  wheelTooEarly: () => 'The wheel is measured between check in and calibrate.',
  fittedAlready: () => 'Wheel and cap were chosen by runs already, which tell more than a tape.',
  badRange: () => 'The range does not hold the value.',
  noSpeedToSet: () => 'Nothing on this display follows from how far its wheel rolls.',
  noReading: () => 'There is no such reading of this wheel.',
  noReadings: () => 'There is no reading yet. Read a speed, or leave the step out in words.',
  noCheckRun: (readings: number) =>
    `The wheel code was changed: ${readings} readings with the new one confirm it first.`,
  notLearnt: () => 'This unit is to be run: its family does not tell enough of it.',
  sayWhyLeftOut: () => 'Say why it is left out: braking, a bump, a bad fix.',
  neverLeftOut: (tries: string) =>
    `No unit of this class leaves without it: ${tries} Try it on the stand, and say what came out.`,
  provedOrDecided: (tries: string) =>
    `This class wants it shown: ${tries} Say what came out, or a lead leaves it out in writing.`,
  sayWhyNotProved: () => 'Say why it is left out: every paper repeats it.',
  sayHowDone: () => 'Say how it was done and what came out.',
  noSuchProof: () => 'This unit has no such test.',
  proofAlready: (title: string) => `${title}: shown already. Begin it anew to try it again.`,
  otherObservation: () => 'That is not what this test watches for.',
  beyondReach: (figure: string, most: string) =>
    `${figure} is more than this vehicle can reach (${most}): look at the figure and its unit again.`,
  milesMeant: (figure: string, expected: string) =>
    `${figure}, where ${expected} is expected: were these miles an hour? Choose the unit, or say that it is as typed.`,
  notCharged: () => 'This is tried on a full pack alone: charge it to the end, let it rest, and read the meter.',
  sayWhatWasMended: () => 'Say in a few words what was put right.',
  leftToProve: (titles: string) => `Still to be shown: ${titles}.`,
  sameProver: () => 'House rules ask for another pair of hands: whoever keyed this unit does not prove it.',
  neverUnproved: () => 'House rules let no unit leave with a test left out.',
  leadLeavesOut: () => 'A lead leaves a test out, in writing.',
  noWait: () => 'It does not stand aside.',
  cannotGoBack: (step: string) => `It cannot go back to ${step} for that.`,
  provisionalCap: (words: string) => `The cap is provisional: ${words}. It is run again, or where drive ends is shown.`,
  secondMissing: () => 'House rules ask for a second person to sign beside you.',
  oddInFamily: (says: string) => `${says} A lead looks at it and signs off.`,
  stop: (says: string) => `Cannot be signed off: ${says}`,
  undecided: (says: string) => `A lead has to choose first, on the page of the order: ${says}`,
} as const satisfies Record<string, (...parts: never[]) => string>;

export type RefusalCode = keyof typeof WORDS;

/** A refusal in words. */
export const refusal = <C extends RefusalCode>(code: C, ...parts: Parameters<(typeof WORDS)[C]>): Refusal => ({
  code,
  message: (WORDS[code] as (...all: readonly unknown[]) => string)(...parts),
});
