import classes from './library-page.module.css';

/** Names and what they are, one a line. */
export const Facts = ({ rows }: { readonly rows: readonly (readonly [string, string])[] }) => (
  <dl className={classes['facts']}>
    {rows.map(([name, says]) => (
      <div key={name}>
        <dt>{name}</dt>
        <dd>{says}</dd>
      </div>
    ))}
  </dl>
);
