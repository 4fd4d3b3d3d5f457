import { IconCheck, IconLock, IconMinus, IconX } from '@tabler/icons-react';
import { findCode, formatRaw, functionTitle, type CodeVerdict, type DisplayMap, type Verdict } from '@decurio/core';
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

/** One line a code: what it shows, what it must show, and the verdict in a word and a sign. */
export function VerdictTable({
  verdicts,
  map,
}: {
  readonly verdicts: readonly CodeVerdict[];
  readonly map: DisplayMap;
}) {
  return (
    <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Verdict per code">
      <table className={classes['table']}>
        <thead>
          <tr className="cap">
            <th scope="col">Code</th>
            <th scope="col">Sets</th>
            <th scope="col">Read</th>
            <th scope="col">Must show</th>
            <th scope="col">Verdict</th>
          </tr>
        </thead>
        <tbody>
          {verdicts.map(({ label, readings, target, verdict }) => {
            const code = findCode(map, label);
            const show = (raw: number | null | undefined) =>
              raw === null || raw === undefined ? '–' : code ? formatRaw(code, raw) : String(raw);
            const Icon = ICONS[verdict];
            return (
              <tr key={label} data-verdict={verdict}>
                <th scope="row">{label}</th>
                <td>{code && functionTitle(code.function)}</td>
                <td className="num">{readings.map(show).join(', ') || '–'}</td>
                <td className="num">{target === null ? 'as found' : show(target)}</td>
                <td>
                  <Icon size={16} aria-hidden="true" /> {WORDS[verdict]}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
