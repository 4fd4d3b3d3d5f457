import classes from './mark.module.css';

/** The ten-rung mark and the name. */
export const Mark = () => (
  <span className={classes['mark']}>
    <svg width="37" height="22" viewBox="0 0 37 22" aria-hidden="true">
      {Array.from({ length: 10 }, (_, i) => (
        <rect
          key={i}
          x={(i % 5) * 8}
          y={Math.floor(i / 5) * 12}
          width="5"
          height="10"
          fill={i === 0 ? '#E0AE4A' : '#7FB7A6'}
        />
      ))}
    </svg>
    DECURIO
  </span>
);
