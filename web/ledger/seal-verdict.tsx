import type { SealCheck } from '@decurio/contract';
import { Notice } from '../ui/notice.js';
import classes from './record-page.module.css';

/** Whether a seal holds, with everything that is not as it was sealed. */
export function SealVerdict({
  verdict: { holds, says, findings },
  broken,
}: {
  readonly verdict: Pick<SealCheck, 'holds' | 'says' | 'findings'>;
  readonly broken: string;
}) {
  const others = findings.slice(1);
  return (
    <>
      <Notice kind={holds ? 'done' : 'stop'} title={holds ? 'The seal holds' : broken} says={says} />
      {others.length > 0 && (
        <ul className={classes['findings']} aria-label="What else is not as it was sealed">
          {others.map((finding) => (
            <li key={finding}>{finding}</li>
          ))}
        </ul>
      )}
    </>
  );
}
