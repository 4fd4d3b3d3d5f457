import { ActButton } from '../ui/act-button.js';
import type { Score } from './use-score.js';
import classes from './practice-page.module.css';

/** How one did, against the best there is. */
export function ScoreCard({
  score,
  slips,
  onAgain,
}: {
  readonly score: Score;
  readonly slips: readonly string[];
  readonly onAgain: () => void;
}) {
  const { presses, seconds, bestPresses, bestSeconds } = score;
  return (
    <section className={classes['score']} aria-label="Score" role="status">
      <h2>
        {slips.length > 0 ? 'Not right yet' : presses <= bestPresses ? 'No press too many' : 'All of it is right'}
      </h2>
      {slips.map((slip) => (
        <p key={slip}>{slip}</p>
      ))}
      <table>
        <thead>
          <tr className="cap">
            <td />
            <th scope="col">You</th>
            <th scope="col">Best plan</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">Presses</th>
            <td className="num">{presses}</td>
            <td className="num">{bestPresses}</td>
          </tr>
          <tr>
            <th scope="row">Seconds</th>
            <td className="num">{seconds.toFixed(1)}</td>
            <td className="num">{bestSeconds.toFixed(1)}</td>
          </tr>
        </tbody>
      </table>
      <ActButton look="main" onAct={onAgain}>
        Another one
      </ActButton>
    </section>
  );
}
