import type { Finding } from '@decurio/core';
import type { OrderActed } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ReasonAct } from '../../ui/reason-act.js';

export interface DecideProps {
  readonly finding: Finding;
  readonly orderId: string;
  readonly typeId: string;
  readonly onDone: (acted: OrderActed) => void;
}

/** A lead's choice on a finding, in writing, for one type of the order. */
export function Decide({ finding, orderId, typeId, onDone }: DecideProps) {
  const [decide, deciding] = api.useDecideMutation();
  const { id } = finding;
  if (id === undefined) return null;
  const submit = async (words: string) => {
    const answer = await decide({ id: orderId, body: { id: crypto.randomUUID(), finding: id, typeId, words } });
    if (answer.data) onDone(answer.data);
    return answer.data !== undefined;
  };
  return (
    <ReasonAct
      place={`choose.${orderId}.${typeId}.${id}`}
      label={finding.decided ? 'Choose otherwise' : 'What you choose, and why'}
      act="Decide"
      busy={deciding.isLoading}
      error={asProblem(deciding.error)?.message}
      onAct={submit}
    />
  );
}
