import { useEffect, useState } from 'react';
import {
  exerciseSlips,
  formatRaw,
  codeTitle,
  glassLabel,
  meaningBeside,
  type DisplayMap,
  type Exercise,
} from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { Stage } from './stage.js';
import { ScoreCard } from './score-card.js';
import { scoreOf, useBest, useLearntPace, type Score } from './use-score.js';
import { useHandlebar } from '../ui/handlebar/use-handlebar.js';
import classes from './practice-page.module.css';

interface SetExerciseProps {
  readonly map: DisplayMap;
  readonly exercise: Exercise;
  readonly onAgain: () => void;
}

/** Some codes are to be set; through once all are stored and the menu is left. */
export function SetExercise({ map, exercise, onAgain }: SetExerciseProps) {
  const bar = useHandlebar(map, exercise.values);
  const best = useBest(map, exercise);
  const [score, setScore] = useState<Score | null>(null);
  const { stored, screen } = bar.state;
  const slips = exerciseSlips(map, exercise, stored);
  const isThrough = slips.wrong.length === 0 && screen.kind === 'riding' && bar.taken.length > 0;
  const last = bar.taken.at(-1)?.atMs ?? 0;
  useEffect(() => {
    if (isThrough && best && score === null) setScore(scoreOf(bar.taken, best, last)); // eslint-disable-line react-hooks/set-state-in-effect -- the score is of the moment in which it is through
  }, [isThrough, best, score, bar.taken, last]);
  useLearntPace(bar.taken, score !== null);
  return (
    <Stage map={map} bar={bar}>
      {score ? (
        <ScoreCard
          score={score}
          slips={
            slips.touched.length > 0
              ? [`Changed without being asked for: ${slips.touched.join(', ')}. At a bench that is a finding.`]
              : []
          }
          onAgain={onAgain}
        />
      ) : (
        <section className={classes['task']} aria-label="Task">
          <h2>Set these, then leave the menu</h2>
          <table aria-label="Targets">
            <tbody>
              {map.codes.map((code) => {
                const { label } = code;
                const raw = exercise.targets[label];
                return (
                  raw !== undefined && (
                    <tr key={label} data-done={stored[label] === raw}>
                      <th scope="row">
                        {glassLabel(code)}
                        {code.shownAs !== undefined && <small>{label.replace(code.shownAs, '').trim()}</small>}
                      </th>
                      <td>
                        {codeTitle(code)}
                        <small>now {formatRaw(code, stored[label] ?? 0)}</small>
                      </td>
                      <td className="num">
                        <b>{formatRaw(code, raw)}</b>
                        <small>{meaningBeside(code, raw)}</small>
                      </td>
                    </tr>
                  )
                );
              })}
            </tbody>
          </table>
          <p className="soft">
            {bar.taken.length} {bar.taken.length === 1 ? 'press' : 'presses'} so far
          </p>
          <ActButton onAct={onAgain}>Another one</ActButton>
        </section>
      )}
    </Stage>
  );
}
