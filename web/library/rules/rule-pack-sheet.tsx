import { useState } from 'react';
import { checkedLine, checkStanding, ownFields, type PackedClass, type RulePack } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { api } from '../../state/api.js';
import { useSession } from '../../state/session.js';
import { ActButton } from '../../ui/act-button.js';
import { Notice } from '../../ui/notice.js';
import { today } from '../../ui/house-zone.js';
import { DocumentActs } from '../document-acts.js';
import { Facts } from '../facts.js';
import { classRows, fieldTitle } from './class-words.js';
import { ConfirmClass } from './confirm-class.js';
import { Doubts } from './doubts.js';
import { ParentNotice } from './parent-notice.js';
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
      <ParentNotice entry={entry} mayEdit={who !== null && who.role !== 'technician'} />
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
  readonly each: PackedClass;
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
      {each.doubts.length > 0 && !isOpen && <Doubts each={each} />}
      <Facts rows={classRows(each)} />
      <OwnHere each={each} parent={entry.document.parent} />
    </section>
  );
}

/** In which fields a class differs from the one that it follows. */
function OwnHere({ each, parent }: { readonly each: PackedClass; readonly parent: RulePack['parent'] }) {
  const followed = api.useAtVersionQuery(
    { kind: 'rulePack', id: parent?.id ?? '', version: parent?.version ?? 1 },
    { skip: parent === null || each.follows === null },
  ).data;
  if (each.follows === null || !followed) return null;
  const own = ownFields(each, followed.document as RulePack);
  return (
    <p className={classes['ownHere']}>
      {own.length === 0 ? 'All as in the rules it follows.' : `Its own here: ${own.map(fieldTitle).join(', ')}.`}
    </p>
  );
}
