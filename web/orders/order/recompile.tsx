import type { OrderActed } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { ReasonAct } from '../../ui/reason-act.js';
import classes from './order-page.module.css';

export interface RecompileProps {
  readonly orderId: string;
  readonly onDone: (acted: OrderActed) => void;
  readonly onLeave: () => void;
}

/** Works every setup of the order out anew from the newest maps, types and rules. */
export function Recompile({ orderId, onDone, onLeave }: RecompileProps) {
  const [recompile, working] = api.useRecompileMutation();
  const submit = async (reason: string) => {
    const answer = await recompile({ id: orderId, body: { id: crypto.randomUUID(), reason } });
    if (answer.data) onDone(answer.data);
    return answer.data !== undefined;
  };
  return (
    <section className={classes['card']} aria-label="Work out anew">
      <h2>Work out anew</h2>
      <p>
        After a class, type or house rule was changed. Units under way go on with the new targets; those that are done
        are held against them, and come back to the line where they differ.
      </p>
      <ReasonAct
        place={`recompile.${orderId}`}
        label="What has changed"
        act="Work out anew"
        look="main"
        busy={working.isLoading}
        error={asProblem(working.error)?.message}
        onAct={submit}
      />
      <div className={classes['acts']}>
        <ActButton onAct={onLeave}>Leave it</ActButton>
      </div>
    </section>
  );
}
