import { IconCheck, IconLock, IconMinus, IconX } from '@tabler/icons-react';
import {
  findCode,
  codeTitle,
  formatRaw,
  meaningOf,
  type CodeVerdict,
  type DisplayMap,
  type Verdict,
} from '@decurio/core';
import classes from './verdict-table.module.css';

const WORDS: Readonly<Record<Verdict, string>> = {
  agrees: 'agrees',
  differs: 'differs',
  locked: 'locked',
  notShown: 'not shown',
  notRead: 'not read',
  accepted: 'accepted by a lead',
  asFound: 'recorded',
};
const ICONS = {
  agrees: IconCheck,
  differs: IconX,
  locked: IconLock,
  notShown: IconX,
  notRead: IconMinus,
  accepted: IconCheck,
  asFound: IconMinus,
} as const;

/** Rows that stand under one another without scrolling; longer menus stand in tables side by side. */
const ROWS = 13;
const MOST_BESIDE = 3;

export interface VerdictTableProps {
  readonly verdicts: readonly CodeVerdict[];
  readonly map: DisplayMap;
}

/** One line a code: what it shows, what it must show, what that means, and the verdict in a word and a sign. */
export function VerdictTable({ verdicts, map }: VerdictTableProps) {
  const count = Math.min(MOST_BESIDE, Math.ceil(verdicts.length / ROWS));
  const rows = Math.ceil(verdicts.length / count);
  const parts = Array.from({ length: count }, (_, i) => verdicts.slice(i * rows, (i + 1) * rows));
  return (
    <div
      className={classes['scroll']}
      data-parts={parts.length}
      tabIndex={0}
      role="region"
      aria-label="Verdict per code"
    >
      {parts.map((part, i) => (
        <Part key={i} verdicts={part} map={map} beside={parts.length} />
      ))}
    </div>
  );
}

function Part({ verdicts, map, beside }: VerdictTableProps & { readonly beside: number }) {
  const isAlone = beside === 1;
  return (
    <table className={classes['table']}>
      <thead>
        <tr className="cap">
          <th scope="col">Code</th>
          <th scope="col">Sets</th>
          <th scope="col">Read</th>
          <th scope="col">Must show</th>
          {isAlone && <th scope="col">Which means</th>}
          <th scope="col">Verdict</th>
        </tr>
      </thead>
      <tbody>
        {verdicts.map(({ label, readings, target, verdict }) => {
          const code = findCode(map, label);
          const show = (raw: number | null | undefined) =>
            raw === null || raw === undefined ? '–' : code ? formatRaw(code, raw) : String(raw);
          const last = readings.at(-1);
          const Icon = ICONS[verdict];
          return (
            <tr key={label} data-verdict={verdict}>
              <th scope="row">{label}</th>
              <td>{code && codeTitle(code)}</td>
              <td className="num">{readings.map(show).join(', ') || '–'}</td>
              <td className="num">{target === null ? 'as found' : show(target)}</td>
              {isAlone && <td>{code && last !== null && last !== undefined && meaningOf(code, last)}</td>}
              <td>
                <Icon size={16} aria-hidden="true" />{' '}
                <span className={verdict === 'agrees' && beside === MOST_BESIDE ? 'hidden-words' : undefined}>
                  {WORDS[verdict]}
                </span>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
