import { Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { REFERENCES, type CalibrationOf, type KeptReading } from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import type { Visit } from '../use-visit.js';
import { signedPercent } from './calibrate-words.js';
import { Dialog } from '../../ui/dialog.js';
import measuring from '../../measuring/measuring.module.css';
import classes from './calibrate.module.css';

const REASONS = ['Braking or speeding up', 'A bump or a bend', 'Bad fix', 'On a slope', 'Misread', 'Another reason'];

export interface ReadingsTableProps {
  readonly found: CalibrationOf;
  readonly kept: readonly KeptReading[];
  readonly visit: Visit;
}

/** Every reading, newest first; one that does not fit is named, and only a person leaves it out. */
export function ReadingsTable({ found, kept, visit }: ReadingsTableProps) {
  const [leaving, setLeaving] = useState<KeptReading | null>(null);
  if (kept.length === 0) return null;
  return (
    <div className={classes['tableBox']} tabIndex={0} role="region" aria-label="Readings">
      <table className={classes['readings']}>
        <thead>
          <tr className="cap">
            <th scope="col">Reading</th>
            <th scope="col">True km/h</th>
            <th scope="col">Shown</th>
            <th scope="col">Off by</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {kept.toReversed().map((reading) => (
            <Row
              key={reading.id}
              reading={reading}
              found={found}
              onLeave={() => setLeaving(reading)}
              onTake={() => void visit.act('speedJudged', { reading: reading.id, isUsed: true, words: '' })}
            />
          ))}
        </tbody>
      </table>
      {leaving && (
        <LeaveOut
          reading={leaving}
          onClose={() => setLeaving(null)}
          onLeave={(words) => {
            void visit.act('speedJudged', { reading: leaving.id, isUsed: false, words });
            setLeaving(null);
          }}
        />
      )}
    </div>
  );
}

interface RowProps {
  readonly reading: KeptReading;
  readonly found: CalibrationOf;
  readonly onLeave: () => void;
  readonly onTake: () => void;
}

function Row({ reading, found, onLeave, onTake }: RowProps) {
  const at = found.kept.findIndex(({ id }) => id === reading.id);
  const used = found.readings[at];
  const doubt = found.doubts.find(({ index }) => index === at);
  const asRead = reading.unit === 'mph' ? reading.shown * 1.609344 : reading.shown;
  return (
    <tr data-out={reading.leftOut !== null || reading.offGround} data-doubt={doubt !== undefined}>
      <th scope="row">
        {reading.words || REFERENCES[reading.reference]}
        {reading.isCheck && <em>check run</em>}
        {reading.offGround && <em>off the ground, not counted</em>}
        {reading.leftOut && (
          <em>
            left out by {reading.leftOut.by}: {reading.leftOut.words}
          </em>
        )}
        {doubt && (
          <em role="alert">
            shows {Math.abs(doubt.offKmh).toFixed(1)} too {doubt.offKmh > 0 ? 'much' : 'little'},{' '}
            {doubt.times > 99 ? 'far' : `${doubt.times.toFixed(0)} times the spread`} off the others
          </em>
        )}
      </th>
      <td>{reading.trueKmh.toFixed(1)}</td>
      <td>
        {reading.shown} {reading.unit === 'mph' && 'mph'}
      </td>
      <td>{signedPercent((used && used.scale !== 1 ? used.shownKmh : asRead) / reading.trueKmh - 1)}</td>
      <td>
        {reading.offGround ? null : reading.leftOut ? (
          <button type="button" onClick={onTake}>
            Take in again
          </button>
        ) : (
          <button type="button" onClick={onLeave}>
            Leave out
          </button>
        )}
      </td>
    </tr>
  );
}

function LeaveOut({
  reading,
  onClose,
  onLeave,
}: {
  readonly reading: KeptReading;
  readonly onClose: () => void;
  readonly onLeave: (words: string) => void;
}) {
  const [reason, setReason] = useState(REASONS[0] ?? '');
  const [words, setWords] = useState('');
  const says = reason === REASONS.at(-1) ? words.trim() : reason;
  return (
    <Dialog onClose={onClose} title={`Leave out ${reading.shown} at ${reading.trueKmh.toFixed(1)} km/h?`}>
      <form
        className={classes['stack']}
        onSubmit={(event) => {
          event.preventDefault();
          if (says !== '') onLeave(says.charAt(0).toLowerCase() + says.slice(1));
        }}
      >
        <p>It stays in the record, with your name and the reason.</p>
        <Select
          label="Why"
          data={REASONS}
          value={reason}
          onChange={(next) => setReason(next ?? REASONS[0] ?? '')}
          allowDeselect={false}
          data-autofocus
        />
        {reason === REASONS.at(-1) && (
          <TextInput label="The reason" value={words} onChange={(e) => setWords(e.target.value)} maxLength={120} />
        )}
        <div className={measuring['entryActs']}>
          <ActButton type="submit" look="care" disabled={says === ''} onAct={() => undefined}>
            Leave it out
          </ActButton>
          <ActButton onAct={onClose}>Keep it</ActButton>
        </div>
      </form>
    </Dialog>
  );
}
