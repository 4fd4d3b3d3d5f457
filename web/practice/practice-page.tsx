import { Select, SegmentedControl } from '@mantine/core';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { isKeyed, makeExercise, mapTitle, type DisplayMap, type Exercise } from '@decurio/core';
import { api, asProblem } from '../state/api.js';
import { Busy, Notice } from '../ui/notice.js';
import { FreePlay } from './free-play.js';
import { ReadExercise } from './read-exercise.js';
import { SetExercise } from './set-exercise.js';
import classes from './practice-page.module.css';

type Kind = 'free' | Exercise['kind'];

/** A display that costs nothing: its menu, its time-out, and how fast one is on it. */
export function PracticePage() {
  const { mapId } = useParams();
  const navigate = useNavigate();
  const library = api.useLibraryQuery('displayMap');
  const [kind, setKind] = useState<Kind>('set');
  const problem = asProblem(library.error);
  const maps = (library.data ?? []).map((entry) => entry.document as DisplayMap).filter(isKeyed);
  const map = maps.find((m) => m.id === mapId) ?? maps[0];
  if (problem && !library.data)
    return (
      <Notice
        kind="stop"
        title="The displays cannot be read"
        says={problem.message}
        act={{ label: 'Try again', onAct: () => void library.refetch() }}
        page
      />
    );
  if (!library.data) return <Busy />;
  if (!map)
    return (
      <Notice
        kind="note"
        title="No display to practise on yet"
        says="A lead adds display maps in Library; each can be practised here."
        page
      />
    );
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <h1>
          Practice<span className="hidden-words"> {mapTitle(map)}</span>
        </h1>
        <Select
          label="Display"
          allowDeselect={false}
          searchable
          value={map.id}
          onChange={(id) => void navigate(`/practice/${id ?? ''}`)}
          data={maps.map((m) => ({ value: m.id, label: mapTitle(m) }))}
        />
        <div role="group" aria-label="What to do">
          <SegmentedControl
            value={kind}
            onChange={(value) => setKind(value as Kind)}
            data={[
              { value: 'set', label: 'Set five codes' },
              { value: 'read', label: 'Read out' },
              { value: 'free', label: 'Free play' },
            ]}
          />
        </div>
        <OwnPace />
      </header>
      <Work key={`${map.id} ${kind}`} map={map} kind={kind} />
    </div>
  );
}

function Work({ map, kind }: { readonly map: DisplayMap; readonly kind: Kind }) {
  const [round, setRound] = useState(1);
  const exercise = useMemo(() => (kind === 'free' ? null : makeExercise(map, kind, Math.random)), [map, kind, round]); // eslint-disable-line react-hooks/exhaustive-deps -- a new round is a new exercise
  const again = () => setRound((n) => n + 1);
  if (!exercise) return <FreePlay map={map} />;
  return exercise.kind === 'set' ? (
    <SetExercise key={round} map={map} exercise={exercise} onAgain={again} />
  ) : (
    <ReadExercise key={round} map={map} exercise={exercise} onAgain={again} />
  );
}

function OwnPace() {
  const { data } = api.usePaceQuery(null);
  if (!data) return null;
  const seconds = (ms: number) => `${(ms / 1000).toFixed(2)} s`;
  return (
    <p className={classes['pace']} role="status">
      {data.pace
        ? `Your pace: ${seconds(data.pace.tapMs)} a tap, ${seconds(data.pace.lookMs)} a look. Your key plans use it.`
        : 'Your pace is not known yet: finish an exercise.'}
    </p>
  );
}
