import { Bar, BarChart, LabelList, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import classes from './quality-page.module.css';

export interface BarRow {
  readonly name: string;
  readonly value: number;
  /** At the end of its bar. */
  readonly short: string;
  /** The same in words, as the table says it. */
  readonly says: string;
}

export interface BarPanelProps {
  readonly title: string;
  readonly rows: readonly BarRow[];
  /** The end of the scale where it is known, as of a percentage. */
  readonly most?: number;
  readonly empty?: string;
  readonly note?: string;
}

const ROW_PX = 30;

/** Bars one below another, with the table behind them. */
export function BarPanel({ title, rows, most, empty = 'Nothing to show.', note }: BarPanelProps) {
  return (
    <section className={classes['panel']} aria-label={title}>
      <h2>{title}</h2>
      {rows.length === 0 ? (
        <p className="soft">{empty}</p>
      ) : (
        <>
          <div aria-hidden="true" style={{ height: rows.length * ROW_PX + 8 }}>
            <ResponsiveContainer width="100%" height="100%">
              <BarChart
                data={[...rows]}
                layout="vertical"
                accessibilityLayer={false}
                margin={{ top: 4, right: 56, bottom: 4, left: 0 }}
              >
                <XAxis type="number" hide domain={[0, most ?? 'dataMax']} />
                <YAxis
                  type="category"
                  dataKey="name"
                  width={170}
                  axisLine={false}
                  tickLine={false}
                  interval={0}
                  tick={{ fill: 'var(--ink)', fontSize: 14 }}
                />
                <Bar dataKey="value" fill="var(--verdigris)" barSize={16} isAnimationActive={false}>
                  <LabelList dataKey="short" position="right" fill="var(--ink)" fontSize={14} />
                </Bar>
              </BarChart>
            </ResponsiveContainer>
          </div>
          <details className={classes['figures']}>
            <summary>Figures</summary>
            <table className={classes['table']}>
              <tbody>
                {rows.map(({ name, says }) => (
                  <tr key={name}>
                    <th scope="row">{name}</th>
                    <td className="num">{says}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </details>
          {note !== undefined && <p className="soft">{note}</p>}
        </>
      )}
    </section>
  );
}
