import { evidenceTitle } from '../ui/evidence-words.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** What could not follow, and what the server refused: nothing of it vanishes unseen. */
export function NotTaken({ visit }: { readonly visit: Visit }) {
  const { problem, refused, waitsFor } = visit;
  const [first] = refused;
  if (first) {
    const names = refused.map(({ entry }) => evidenceTitle(entry.kind).toLowerCase());
    return (
      <div className={classes['stack']} role="alert">
        <Notice
          kind="stop"
          title={`${refused.length} ${refused.length === 1 ? 'entry was' : 'entries were'} not taken`}
          says={`${first.problem?.message ?? ''} Kept here: ${names.slice(0, 6).join(', ')}${names.length > 6 ? ` and ${names.length - 6} more` : ''}. The state below is the newer one.`}
        />
        <div className={classes['acts']}>
          <ActButton onAct={visit.sendAgain}>Send them after all</ActButton>
          <ActButton look="care" onAct={visit.drop}>
            They are not true any more, drop them
          </ActButton>
        </div>
      </div>
    );
  }
  if (waitsFor !== null)
    return (
      <Notice
        kind="care"
        title="The server is asked next"
        says={`${evidenceTitle(waitsFor)}: what follows from it is worked out there, and the server does not answer. It is kept here and sent as soon as it does; this unit goes on then. Others can go on now.`}
      />
    );
  return problem && <Notice kind="stop" says={problem.message} act={{ label: 'Understood', onAct: visit.dismiss }} />;
}
