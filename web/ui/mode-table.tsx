import { Fragment, type ReactNode } from 'react';
import type { Code, CodeTarget, ModeMatrix } from '@decurio/core';
import classes from './mode-table.module.css';

export interface ModeTableProps {
  readonly matrix: ModeMatrix;
  readonly targets: readonly CodeTarget[];
  /** What stands where an entry and a mode meet. */
  readonly cell: (target: CodeTarget, code: Code) => ReactNode;
  /** Beside the work: what an entry sets stands over its values. */
  readonly isNarrow?: boolean;
  /** What stands under an entry, over its whole breadth. */
  readonly under?: (targets: readonly CodeTarget[]) => ReactNode;
}

/** Codes that every ride mode has for itself: entries down, modes across, the reason once. */
export function ModeTable({ matrix: { modes, entries }, targets, cell, isNarrow = false, under }: ModeTableProps) {
  const byLabel = new Map(targets.map((target) => [target.label, target]));
  const rows = entries.flatMap((entry) => {
    const own = entry.codes.map((code) => (code ? byLabel.get(code.label) : undefined));
    return own.some(Boolean) ? [{ ...entry, own }] : [];
  });
  return (
    <table className={classes['table']} data-narrow={isNarrow || undefined} aria-label="Codes of each ride mode">
      <thead>
        <tr className="cap">
          <th scope="col">Code</th>
          {!isNarrow && <th scope="col">Sets</th>}
          {modes.map(({ id, title }) => (
            <th key={id} scope="col">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ shownAs, title, codes, own }) => {
          const sets = (
            <>
              {title}
              <Reasons
                said={own.flatMap((target, i) =>
                  target ? [{ mode: modes[i]?.title ?? '', because: target.because }] : [],
                )}
                modes={modes.length}
              />
            </>
          );
          const cells = codes.map((code, i) => {
            const target = own[i];
            return (
              <td key={modes[i]?.id} className="num">
                {code && target ? cell(target, code) : '–'}
              </td>
            );
          });
          return (
            <Fragment key={`${shownAs} ${title}`}>
              <tr data-over={isNarrow || undefined}>
                <th scope="row" rowSpan={isNarrow ? 2 : 1}>
                  {shownAs}
                </th>
                <td colSpan={isNarrow ? modes.length : 1}>{sets}</td>
                {!isNarrow && cells}
              </tr>
              {isNarrow && <tr>{cells}</tr>}
              {under?.(own.filter((target) => target !== undefined))}
            </Fragment>
          );
        })}
      </tbody>
    </table>
  );
}

/** Each reason once; where modes have reasons of their own, with the modes it is about. */
function Reasons({
  said,
  modes,
}: {
  readonly said: readonly { readonly mode: string; readonly because: string }[];
  readonly modes: number;
}) {
  const reasons = [...new Set(said.map(({ because }) => because))];
  return reasons.map((reason) => {
    const about = said.filter(({ because }) => because === reason).map(({ mode }) => mode);
    return (
      <small key={reason}>
        {about.length < modes && <b>{about.join(', ')}: </b>}
        {reason}
      </small>
    );
  });
}
