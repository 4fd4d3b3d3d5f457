import type { HandoverState } from './handover.js';

/** Why a unit may not go out as it is. */
export type GoOutReason = 'notSealed' | 'held' | 'withdrawn' | 'cameBackWrong' | 'inStorage';

export interface GoOut {
  readonly may: boolean;
  /** Null where it may. */
  readonly reason: GoOutReason | null;
  /** In a sentence, with what is to be done. */
  readonly says: string;
}

const no = (reason: GoOutReason, says: string): GoOut => ({ may: false, reason, says });

/**
 * Why what was sealed stays in the house as it stands; null where nothing keeps it.
 * What came back otherwise than it left, and a pack put away, are set right first.
 */
export function keptIn({ back, storage }: Pick<HandoverState, 'back' | 'storage'>): GoOut | null {
  if (back?.mayGoOut === false)
    return no(
      'cameBackWrong',
      ['It came back and may not go out as it is.', back.says, 'Set it right first.'].filter(Boolean).join(' '),
    );
  if (storage !== null) return no('inStorage', 'It stands in storage: measure its pack and take it out first.');
  return null;
}

/**
 * Whether a unit may go out, by its newest visit: sealed, and nothing known since that keeps it in.
 * @param status of the unit in its newest order: a recall takes it into one, and it is open again
 * @param handover what came of it after the seal; null where it is not sealed
 */
export function goOut(
  status: 'waiting' | 'open' | 'held' | 'sealed' | 'withdrawn',
  handover: Pick<HandoverState, 'back' | 'storage' | 'out'> | null,
): GoOut {
  switch (status) {
    case 'waiting':
    case 'open':
      return no('notSealed', 'It is not sealed: it is still to be prepared, or was called back to be prepared anew.');
    case 'held':
      return no('held', 'It is held: a lead decides about it first.');
    case 'withdrawn':
      return no('withdrawn', 'It was withdrawn from its order and is not prepared.');
    case 'sealed':
      if (handover === null) return no('notSealed', 'Nothing is known of it since it was sealed.');
      return (
        keptIn(handover) ?? {
          may: true,
          reason: null,
          says: handover.out === null ? 'It is sealed and in the house.' : 'It is sealed and was handed over.',
        }
      );
  }
}
