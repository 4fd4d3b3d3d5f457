import { useState } from 'react';
import { Link } from 'react-router';
import { withPoint, type HandoverState } from '@decurio/core';
import type { LineUnit } from '@decurio/contract';
import { KeyButton } from '../ui/keys/key-button.js';
import { Notice } from '../ui/notice.js';
import { whenFull } from '../ui/when.js';
import { fetchPdf, openPdf } from './open-pdf.js';
import classes from './hand-over.module.css';

/** A spare display that is keyed and read back: it waits for a vehicle, and says which one it went on. */
export function SpareReady({
  unit,
  visitId,
  state: { out },
}: {
  readonly unit: LineUnit;
  readonly visitId: string;
  readonly state: HandoverState;
}) {
  const [says, setSays] = useState<string | null>(null);
  const print = async () => {
    const answer = await fetchPdf(`/visits/${visitId}/tag.pdf`);
    if (!answer.ok) return setSays(answer.says);
    openPdf(answer.pdf.bytes, `${unit.serial}-tag.pdf`);
  };
  return (
    <section className={classes['papers']} aria-label="Spare display">
      <p className="cap">Spare display for {unit.typeName}</p>
      <h2>{out ? `${unit.serial} went on ${out.to}` : `${unit.serial} is keyed and ready`}</h2>
      {out ? (
        <p>{withPoint(`On ${whenFull(out.at)}, by ${out.by}`)}</p>
      ) : (
        <>
          <p>
            Its codes were read back and stand under its seal. On the bench of the vehicle that gets it, choose
            &quot;Part replaced&quot;, Display, and this spare: what it shows is then presumed and read once more, and
            the kilometres of the old one are carried forward in a letter of their own.
          </p>
          <Notice
            kind="note"
            says="It was keyed for what this order was promised. On a vehicle of another order, or one that measured its own wheel, the bench works out anew what still has to be keyed."
          />
        </>
      )}
      {says !== null && <Notice kind="stop" says={says} />}
      <div className={classes['acts']}>
        <KeyButton hotkey="Space" look="main" onAct={() => void print()}>
          Print its tag
        </KeyButton>
        <Link to={`/ledger/${visitId}`}>Its record in the ledger</Link>
      </div>
    </section>
  );
}
