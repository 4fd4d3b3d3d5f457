import { useState } from 'react';
import { checkedLine, checkStanding, type VehicleClass } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { today } from '../../ui/house-zone.js';
import { DocumentActs } from '../document-acts.js';
import { Facts } from '../facts.js';
import { classRows } from './class-words.js';
import { ConfirmClass } from './confirm-class.js';
import classes from '../library-form.module.css';

/** A rule pack with its classes, and who checked each. */
export function RulePackSheet({ entry }: { readonly entry: LibraryEntry<'rulePack'> }) {
  const { who } = useSession();
  const pack = entry.document;
  return (
    <>
      <p className="cap">Rule pack · version {entry.version}</p>
      <h1>
        {pack.name}, for {pack.place}
      </h1>
      <p className="soft">
        Legal values are starting points. The shop answers for them and checks each class with its own authority;
        nothing is signed off under a class nobody here has checked.
      </p>
      {pack.classes.map((each) => (
        <ClassCard key={each.id} each={each} entry={entry} mayConfirm={who !== null && who.role !== 'technician'} />
      ))}
      <DocumentActs entry={entry} />
    </>
  );
}

const KINDS = { checked: 'done', expired: 'stop', notChecked: 'care' } as const;

function ClassCard({
  each,
  entry,
  mayConfirm,
}: {
  readonly each: VehicleClass;
  readonly entry: LibraryEntry<'rulePack'>;
  readonly mayConfirm: boolean;
}) {
  const [isOpen, setOpen] = useState(false);
  const { checked } = each;
  const standing = checkStanding(checked, today());
  const says = checked
    ? `${checked.authority}; ${checked.source}. Holds until ${checked.expiresOn}.`
    : 'Nobody of this house has asked the authority of the place yet.';
  return (
    <section className={classes['class']} aria-label={each.title}>
      <div className={classes['classHead']}>
        <h2>{each.title}</h2>
        {mayConfirm && !isOpen && (
          <ActButton onAct={() => setOpen(true)}>{checked ? 'Check again' : 'Confirm this class'}</ActButton>
        )}
      </div>
      <Notice kind={KINDS[standing]} title={`Legal values ${checkedLine(checked, today())}`} says={says} />
      {isOpen && <ConfirmClass each={each} entry={entry} onDone={() => setOpen(false)} />}
      <Facts rows={classRows(each)} />
    </section>
  );
}
