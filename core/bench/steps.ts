/** The ten steps of a visit, in the order they are worked. */
export const STEPS = [
  { id: 'checkIn', title: 'Check in' },
  { id: 'makeSafe', title: 'Make safe' },
  { id: 'asFound', title: 'As found' },
  { id: 'keyIn', title: 'Key in' },
  { id: 'restart', title: 'Restart' },
  { id: 'readBack', title: 'Read back' },
  { id: 'calibrate', title: 'Calibrate' },
  { id: 'prove', title: 'Prove' },
  { id: 'signOff', title: 'Sign off' },
  { id: 'handOver', title: 'Hand over' },
] as const;

export type StepId = (typeof STEPS)[number]['id'];

/**
 * Steps a visit opened today goes through. The others stand in the ladder and are not offered; each visit
 * keeps the list it was opened with, so a later, longer list leaves old records as they were.
 */
export const STEPS_OFFERED: readonly StepId[] = [
  'checkIn',
  'makeSafe',
  'asFound',
  'keyIn',
  'restart',
  'readBack',
  'calibrate',
  'prove',
  'signOff',
];

/** Steps of a spare display, which is on no vehicle: keyed and read back on a stand's supply, and kept ready. */
export const SPARE_STEPS: readonly StepId[] = ['makeSafe', 'asFound', 'keyIn', 'restart', 'readBack', 'signOff'];

/** Whether `id` lies after `other` in the order of the ten. */
export const isAfter = (id: StepId, other: StepId): boolean => indexOf(id) > indexOf(other);

const indexOf = (id: StepId): number => STEPS.findIndex((step) => step.id === id);

export const stepTitle = (id: StepId): string => STEPS.find((step) => step.id === id)?.title ?? id;
