import { evidenceTitle } from '../ui/evidence-words.js';
import { ActButton } from '../ui/act-button.js';
import { Notice } from '../ui/notice.js';
import type { Visit } from './use-visit.js';
import classes from './panel.module.css';

/** What could not follow, and what the server refused: nothing of it vanishes unseen. */
export function NotTaken({ visit }: { readonly visit: Visit }) {
  const { problem, refused } = visit;
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
  return problem && <Notice kind="stop" says={problem.message} act={{ label: 'Understood', onAct: visit.dismiss }} />;
}
