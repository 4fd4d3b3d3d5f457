import type { VisitState } from '../visit-state.js';
import type { ActOf } from './act.js';

/** As the hold says it. */
export const noticeWords = ({ name, says }: Pick<VisitState['notices'][number], 'name' | 'says'>): string =>
  `${name}: ${says}`;

/** A lead has decided on the notice that held it: the oldest that was open. */
export function noticeDecided({ notices, held }: VisitState): VisitState['notices'] {
  if (held?.reason !== 'notice') return notices;
  const first = notices.findIndex(({ isDecided }) => !isDecided);
  return notices.map((each, i) => (i === first ? { ...each, isDecided: true } : each));
}

/** A notice names this unit: it goes nowhere until a lead has decided. */
export const noticed: ActOf<'noticed'> = {
  then: (state, { data: { notice, says }, at, by }) => ({
    ...state,
    notices: [...state.notices, { ...notice, says, isDecided: false }],
    held: state.held ?? { reason: 'notice', words: noticeWords({ ...notice, says }), at, by },
  }),
};
