import type { Drift, DriftGrade } from '@decurio/core';
import classes from './back-page.module.css';

const GRADES: Readonly<Record<DriftGrade, string>> = {
  dangerous: 'dangerous',
  outOfClass: 'out of class',
  harmless: 'harmless',
  expected: 'as expected',
};

/** What moved, worst first: as it left, as it is, and what that does on the road. */
export function DriftTable({ drifts }: { readonly drifts: readonly Drift[] }) {
  if (drifts.length === 0) return <p>Nothing moved.</p>;
  return (
    <table className={classes['table']} aria-label="What moved">
      <thead>
        <tr className="cap">
          <th scope="col">Code</th>
          <th scope="col">Left</th>
          <th scope="col">Back</th>
          <th scope="col">On the road</th>
        </tr>
      </thead>
      <tbody>
        {drifts.map(({ label, title, left, now, grade, says }) => (
          <tr key={label} data-grade={grade}>
            <th scope="row">{label}</th>
            <td className="num">{left}</td>
            <td className="num">
              <b>{now}</b>
            </td>
            <td>
              {title}: {GRADES[grade]}
              <small>{says}</small>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
