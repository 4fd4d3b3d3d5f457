import { TextInput } from '@mantine/core';
import { useState } from 'react';
import {
  exerciseSlips,
  findCode,
  codeTitle,
  glassLabel,
  meaningOf,
  parseTyped,
  type DisplayMap,
  type Exercise,
} from '@decurio/core';
import { ActButton } from '../ui/act-button.js';
import { useHandlebar } from '../ui/handlebar/use-handlebar.js';
import { ScoreCard } from './score-card.js';
import { Stage } from './stage.js';
import { scoreOf, useBest, useLearntPace, type Score } from './use-score.js';
import classes from './practice-page.module.css';

interface ReadExerciseProps {
  readonly map: DisplayMap;
  readonly exercise: Exercise;
  readonly onAgain: () => void;
}

/** Every code is to be read from the glass and typed as it stands there, and nothing is to be changed. */
export function ReadExercise({ map, exercise, onAgain }: ReadExerciseProps) {
  const bar = useHandlebar(map, exercise.values);
  const best = useBest(map, exercise);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const [outcome, setOutcome] = useState<{ readonly score: Score; readonly slips: readonly string[] } | null>(null);
  const labels = map.codes.map((code) => code.label).filter((label) => label in exercise.targets);
  useLearntPace(bar.taken, outcome !== null);
  const finish = () => {
    if (!best) return;
    const wrong = labels.filter((label) => {
      const code = findCode(map, label);
      const parsed = code ? parseTyped(code, typed[label] ?? '') : null;
      return !parsed?.ok || parsed.value !== exercise.targets[label];
    });
    const { touched } = exerciseSlips(map, exercise, bar.state.stored);
    const slips = [
      ...(wrong.length > 0 ? [`Read otherwise than shown: ${wrong.join(', ')}.`] : []),
      ...(touched.length > 0 ? [`Changed while reading: ${touched.join(', ')}. A read-out changes nothing.`] : []),
    ];
    setOutcome({ score: scoreOf(bar.taken, best, bar.taken.at(-1)?.atMs ?? 0), slips });
  };
  return (
    <Stage map={map} bar={bar}>
      {outcome ? (
        <ScoreCard score={outcome.score} slips={outcome.slips} onAgain={onAgain} />
      ) : (
        <form
          className={classes['task']}
          aria-label="Task"
          onSubmit={(event) => {
            event.preventDefault();
            finish();
          }}
        >
          <h2>Read every code and type what it shows</h2>
          <div className={classes['fields']}>
            {labels.map((label) => {
              const code = findCode(map, label);
              if (!code) return null;
              const parsed = parseTyped(code, typed[label] ?? '');
              return (
                <TextInput
                  key={label}
                  label={code.shownAs === undefined ? glassLabel(code) : label}
                  description={typed[label] && parsed.ok ? meaningOf(code, parsed.value) : codeTitle(code)}
                  value={typed[label] ?? ''}
                  onChange={(e) => setTyped((before) => ({ ...before, [label]: e.target.value }))}
                  inputMode="decimal"
                  autoComplete="off"
                  data-scan-guard
                />
              );
            })}
          </div>
          <ActButton type="submit" look="main" disabled={!best} onAct={() => undefined}>
            All is read
          </ActButton>
        </form>
      )}
    </Stage>
  );
}
