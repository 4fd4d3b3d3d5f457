import { useState } from 'react';
import { Link } from 'react-router';
import { ERASED_NAME, withPoint, type HandoverState } from '@decurio/core';
import type { EraseHandoverRequest } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { SignatureShown } from '../hand-over/signature.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { ReasonAct } from '../ui/reason-act.js';
import { whenFull } from '../ui/when.js';
import classes from './record-page.module.css';

const PINS = { menu: 'Menu PIN', start: 'Start PIN' } as const;

/** Where a sealed unit is: still in the house, or with whom, since when, and what went along. */
export function WhereItIs({ visitId, unitId }: { readonly visitId: string; readonly unitId: string }) {
  const { data } = api.useHandoverQuery(visitId);
  if (!data) return null;
  const { out, back, label, things, pins, shown, papers } = data.state;
  if (!out)
    return (
      <section className={classes['where']} aria-label="Where it is">
        <p>
          <b>In the house.</b>{' '}
          {back && (
            <>
              Back since {whenFull(back.at)}: {back.says} <Link to={`/ledger/${visitId}/back`}>What moved</Link>{' '}
            </>
          )}
          <Link to={`/bench/${unitId}`}>Papers and handing over</Link>
        </p>
        {back && back.from !== '' && (
          <EraseReceiver visitId={visitId} out={{ to: back.from, isVehicle: false, strokes: null }} />
        )}
      </section>
    );
  const said = [
    label && `Label: ${label.where}.`,
    things.length > 0 && `With it: ${things.join(', ')}.`,
    ...pins.map(({ opens, to }) => withPoint(`${PINS[opens]} told to ${to}`)),
    shown.length > 0 && `${shown.length} things were shown to the rider.`,
    papers.length > 0 && `${new Set(papers.map(({ paper }) => paper)).size} kinds of paper made.`,
  ].filter((part) => part !== null && part !== false);
  return (
    <section className={classes['where']} aria-label="Where it is">
      <p>
        <b>{out.isVehicle ? `On ${out.to}` : `Out with ${out.to}`}</b> since {whenFull(out.at)},{' '}
        {out.isVehicle ? 'fitted' : 'handed over'} by {out.by}
        {out.words !== '' && ` Not signed: ${out.words}`}
      </p>
      {!out.isVehicle && (
        <Link className={classes['back'] ?? ''} to={`/ledger/${visitId}/back`}>
          It is back: read it
        </Link>
      )}
      <p className="soft">{said.join(' ')} What was handed over is a chain of its own, from the seal on.</p>
      {out.strokes && out.strokes.length > 0 && <SignatureShown strokes={out.strokes} />}
      {out.strokes?.length === 0 && <p className="soft">The signature was erased.</p>}
      <EraseReceiver visitId={visitId} out={out} />
    </section>
  );
}

/** An owner erases what is kept of whoever received it, when law or they ask. */
function EraseReceiver({
  visitId,
  out,
}: {
  readonly visitId: string;
  readonly out: Pick<NonNullable<HandoverState['out']>, 'to' | 'isVehicle' | 'strokes'>;
}) {
  const { who } = useSession();
  const [erase, erasing] = api.useEraseReceiverMutation();
  const [what, setWhat] = useState<EraseHandoverRequest['what'] | null>(null);
  if (who?.role !== 'owner' || out.isVehicle) return null;
  const hasSignature = out.strokes !== null && out.strokes.length > 0;
  const hasName = out.to !== ERASED_NAME;
  const title = what === 'signature' ? 'Erase the signature' : 'Erase name and signature';
  return (
    <div className={classes['erase']}>
      {hasSignature && (
        <ActButton look="quiet" onAct={() => setWhat('signature')}>
          Erase the signature
        </ActButton>
      )}
      {hasName && (
        <ActButton look="quiet" onAct={() => setWhat('all')}>
          {hasSignature ? 'Erase name and signature' : 'Erase the name'}
        </ActButton>
      )}
      {what && (
        <Dialog title={title} onClose={() => setWhat(null)}>
          <p>
            It is gone for good, here and on papers made from now on. The chain holds its hash alone: the seal holds as
            before, and that it was erased, when and why stays.
          </p>
          <ReasonAct
            place={`erase-receiver/${visitId}`}
            label="Why"
            act="Erase it"
            look="care"
            busy={erasing.isLoading}
            error={asProblem(erasing.error)?.message}
            onAct={async (why) => {
              const done = await erase({ visitId, body: { what, why } });
              if (!('error' in done)) setWhat(null);
              return !('error' in done);
            }}
          />
        </Dialog>
      )}
    </div>
  );
}
