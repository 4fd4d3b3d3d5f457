import { SegmentedControl, TextInput } from '@mantine/core';
import { useState, type FormEvent } from 'react';
import {
  parseTyreMarking,
  rolledOut,
  rollOutGuess,
  WHEEL_MEASURES,
  type EvidenceData,
  type Result,
  type RollOutGuess,
  type WheelMeasure,
} from '@decurio/core';
import { ActButton } from '../../../ui/act-button.js';
import { Notice } from '../../../ui/notice.js';
import { FigureInput } from '../../../measuring/reading-fields.js';
import measuring from '../../../measuring/measuring.module.css';
import classes from '../calibrate.module.css';

const HOW: readonly WheelMeasure[] = ['rollOut', 'tape', 'marking'];

export interface WheelMeasureProps {
  /** The type's, where it is known. */
  readonly marking: string;
  readonly known: EvidenceData['wheelMeasured'] | null;
  /** Null where it may be kept; else why not. */
  readonly blocked: string | null;
  readonly onKeep: (data: EvidenceData['wheelMeasured']) => void;
}

/** How far the wheel rolls, before anything is ridden: it decides the wheel code until runs do. */
export function WheelMeasureForm({ marking: typeMarking, known, blocked, onKeep }: WheelMeasureProps) {
  const [how, setHow] = useState<WheelMeasure>('rollOut');
  const [marking, setMarking] = useState(typeMarking);
  const [distance, setDistance] = useState<number | ''>('');
  const [turns, setTurns] = useState<number | ''>(5);
  const guess = guessOf(how, marking, distance, how === 'tape' ? 1 : turns);
  const keep = (event: FormEvent) => {
    event.preventDefault();
    if (!guess?.ok || blocked !== null) return;
    onKeep({
      how,
      ...guess.value,
      words: how === 'marking' ? marking : `${distance} mm over ${how === 'tape' ? 1 : turns}`,
    });
  };
  return (
    <form className={measuring['entry']} onSubmit={keep}>
      <SegmentedControl
        aria-label="How it was measured"
        value={how}
        onChange={(next) => setHow(next as WheelMeasure)}
        data={HOW.map((value) => ({ value, label: WHEEL_MEASURES[value] }))}
        className={classes['wide']}
      />
      {how === 'marking' ? (
        <TextInput
          label="Marking on the tyre"
          description="As 47-559. A scooter's 10 x 2.5 tells no circumference."
          value={marking}
          onChange={(e) => setMarking(e.target.value)}
          maxLength={20}
          data-scan-guard="words"
          className={measuring['words']}
        />
      ) : (
        <>
          <FigureInput
            label={how === 'tape' ? 'One turn, mm' : 'From first mark to last, mm'}
            value={distance}
            onChange={setDistance}
            whole
            autoFocus
          />
          {how === 'rollOut' && <FigureInput label="Whole turns" value={turns} onChange={setTurns} whole />}
        </>
      )}
      <p className={classes['says']} role="status">
        {guess === null
          ? how === 'rollOut'
            ? 'Chalk tyre and floor, ride straight on with the rider on it, chalk again after whole turns.'
            : 'Chalk tyre and floor, roll one turn, and measure between the marks.'
          : guess.ok
            ? `${Math.round(guess.value.mm)} mm a turn, surely ${Math.round(guess.value.fromMm)} to ${Math.round(guess.value.toMm)}`
            : guess.problem.message}
      </p>
      {known && (
        <p className="soft">
          Kept before: {WHEEL_MEASURES[known.how].toLowerCase()}, {Math.round(known.mm)} mm.
        </p>
      )}
      {blocked !== null && <Notice kind="note" says={blocked} />}
      <div className={measuring['entryActs']}>
        <ActButton type="submit" hotkey="Enter" disabled={!guess?.ok || blocked !== null} onAct={() => undefined}>
          Keep it: the wheel code follows
        </ActButton>
      </div>
    </form>
  );
}

function guessOf(
  how: WheelMeasure,
  marking: string,
  distance: number | '',
  turns: number | '',
): Result<RollOutGuess> | null {
  if (how !== 'marking')
    return distance === ''
      ? null
      : rolledOut({
          distanceMm: distance,
          turns: turns === '' ? 0 : turns,
          loaded: how === 'rollOut',
          widthMm: parseTyreMarking(marking)?.widthMm ?? null,
        });
  const tyre = parseTyreMarking(marking);
  return tyre
    ? { ok: true, value: rollOutGuess(tyre) }
    : {
        ok: false,
        problem: { code: 'noMarking', message: 'No such marking: width, dash, bead seat in millimetres, as 47-559.' },
      };
}
