import classes from './private-land.module.css';

export interface PrivateLandStripProps {
  readonly label: string;
  readonly endsOn: string;
  /** What else is to be said, such as who gave the authority. */
  readonly says?: string;
}

/** Loud wherever a vehicle that must never go on a public road is shown. */
export const PrivateLandStrip = ({ label, endsOn, says }: PrivateLandStripProps) => (
  <div className={classes['land']} role="note" aria-label="Private land only">
    <strong>{label}</strong>
    <span>
      Until {endsOn}. {says === undefined ? '' : `${says} `}Never on a public road, tests included.
    </span>
  </div>
);
