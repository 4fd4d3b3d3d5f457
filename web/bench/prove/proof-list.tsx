import { IconAlertTriangle, IconCheck, IconCircleDotted, IconMinus, IconRotate } from '@tabler/icons-react';
import { useEffect, useMemo, useRef } from 'react';
import { proofsOf, setUpTitle, type ProofOf, type VisitState } from '@decurio/core';
import { dueOf, MARK_WORDS, markOf, type ProofMark } from './proof-marks.js';
import { usePicked } from './use-picked.js';
import classes from './prove.module.css';

const ICONS: Readonly<Record<ProofMark, typeof IconCheck | null>> = {
  shown: IconCheck,
  left: IconMinus,
  not: IconAlertTriangle,
  begun: IconCircleDotted,
  again: IconRotate,
  due: null,
};

/** Every test of this unit by set-up, with what it answers for; a click goes to one. */
export function ProofList({ state }: { readonly state: VisitState }) {
  const proofs = useMemo(() => proofsOf(state), [state]);
  const { test: picked, later, pick } = usePicked(state.visitId);
  const due = dueOf(proofs, picked, later);
  const groups = groupsOf(proofs);
  const now = useRef<HTMLLIElement>(null);
  useEffect(() => {
    now.current?.scrollIntoView({ block: 'nearest' });
  }, [due?.test.id]);
  return (
    <div className={classes['list']}>
      {groups.map(([title, own]) => (
        <section key={title}>
          <h2 className="cap">{title}</h2>
          <ul>
            {own.map((proof) => {
              const mark = markOf(proof);
              const Icon = ICONS[mark];
              const { id, title: what, proves } = proof.test;
              return (
                <li
                  key={id}
                  ref={due?.test.id === id ? now : null}
                  data-mark={mark}
                  data-now={due?.test.id === id || undefined}
                >
                  <button
                    type="button"
                    aria-current={due?.test.id === id ? 'true' : undefined}
                    onClick={() => pick(id)}
                  >
                    <span aria-hidden="true">{Icon && <Icon size={16} stroke={2.2} />}</span>
                    <span>
                      {what}
                      {(proves.labels.length > 0 || proves.clauses.length > 0) && (
                        <small>{[...proves.labels, ...proves.clauses].join(' · ')}</small>
                      )}
                    </span>
                    <b>{MARK_WORDS[mark]}</b>
                  </button>
                </li>
              );
            })}
          </ul>
        </section>
      ))}
      {(state.opened.setup.notProved ?? []).length > 0 && (
        <details className={classes['notProved']}>
          <summary>Read back, not proved: {state.opened.setup.notProved?.length}</summary>
          <ul>
            {state.opened.setup.notProved?.map(({ label, because }) => (
              <li key={label}>
                <b>{label}</b> {because}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}

function groupsOf(proofs: readonly ProofOf[]): readonly (readonly [string, readonly ProofOf[]])[] {
  const groups = new Map<string, ProofOf[]>();
  for (const proof of proofs) {
    const title = setUpTitle(proof.test);
    groups.set(title, [...(groups.get(title) ?? []), proof]);
  }
  return [...groups];
}
