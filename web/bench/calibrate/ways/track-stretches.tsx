import { Textarea } from '@mantine/core';
import Papa from 'papaparse';
import { useState } from 'react';
import { readShownTimes, shortened, shownOnStretches, type Stretch } from '@decurio/core';
import type { TrackView } from '../../../workers/track-worker.js';
import { houseZone } from '../../../ui/house-zone.js';
import { ActButton } from '../../../ui/act-button.js';
import { FileInput } from '../../../ui/file-input.js';
import { Notice } from '../../../ui/notice.js';
import type { Readings } from '../../../measuring/readings.js';
import { TrackPlot } from './track-plot.js';
import classes from './track.module.css';

export interface TrackStretchesProps {
  readonly track: TrackView;
  readonly measure: (fromMs: number, toMs: number) => Promise<Stretch | null>;
  readonly readings: Readings;
  readonly onDone: () => void;
}

interface Drawn {
  readonly id: number;
  readonly stretch: Stretch;
  readonly shown: number | '';
}

const CUT_WORDS = { gap: 'no positions', leap: 'a leap', frozen: 'a frozen position, as in a tunnel' } as const;

/** The steady stretches of a track, shaded in its speed: dragged, added and dropped, each with what was shown on it. */
export function TrackStretches({ track, measure, readings, onDone }: TrackStretchesProps) {
  const [drawn, setDrawn] = useState<readonly Drawn[]>(() =>
    track.stretches.map((stretch, id) => ({ id, stretch, shown: '' })),
  );
  const [lines, setLines] = useState('');
  const [says, setSays] = useState<string | null>(null);
  const filled = drawn.filter(({ shown }) => shown !== '' && shown > 0);
  const move = async (id: number | null, fromMs: number, toMs: number) => {
    const stretch = await measure(fromMs, toMs);
    if (!stretch) return setSays('There is no stretch between these moments: the track has a gap there.');
    setSays(null);
    setDrawn((before) =>
      (id === null
        ? [...before, { id: Date.now(), stretch, shown: '' as const }]
        : before.map((each) => (each.id === id ? { ...each, stretch } : each))
      ).toSorted((a, b) => a.stretch.fromMs - b.stretch.fromMs),
    );
  };
  const fill = (id: number, shown: number | '') =>
    setDrawn((before) => before.map((each) => (each.id === id ? { ...each, shown } : each)));
  const takeLines = (text: string) => {
    setLines(text);
    if (text.trim() === '') return setSays(null);
    const read = readShownTimes(Papa.parse<string[]>(text.trim()).data, track.startMs, houseZone());
    if (!read.ok) return setSays(read.problem.message);
    const { on, leftOver } = shownOnStretches(
      drawn.map(({ stretch }) => stretch),
      read.value,
    );
    setDrawn((before) =>
      before.map((each) => ({
        ...each,
        shown: on.find(({ stretch }) => stretch === each.stretch)?.shown ?? each.shown,
      })),
    );
    setSays(
      leftOver.length > 0
        ? `${leftOver.length} of ${read.value.length} figures fall on no stretch, or within 3 s of its ends, and are left over.`
        : null,
    );
  };
  const add = async () => {
    for (const { stretch, shown } of filled) {
      await readings.add('track', {
        speed: { kmh: stretch.kmh, uKmh: stretch.uKmh, uCommon: 0 },
        shown: shown === '' ? 0 : shown,
        instrument: shortened(track.name, 60),
        words: `${clock(stretch.fromMs - track.startMs)} to ${clock(stretch.toMs - track.startMs)}`,
      });
    }
    onDone();
  };
  return (
    <>
      {[
        ...track.notes,
        ...track.cuts.map(({ kind, fromMs }) => `Cut at ${clock(fromMs - track.startMs)}: ${CUT_WORDS[kind]}.`),
      ]
        .slice(0, 4)
        .map((note) => (
          <p key={note} className="soft">
            {note}
          </p>
        ))}
      <TrackPlot track={track} stretches={drawn} onMove={(id, from, to) => void move(id, from, to)} />
      {drawn.length === 0 && (
        <Notice
          kind="note"
          says="No steady stretch of ten seconds was found. Draw one in the plot where the speed was held, or ride again at a steady speed."
        />
      )}
      <div className={classes['list']} tabIndex={0} role="region" aria-label="Stretches">
        <table>
          <thead>
            <tr className="cap">
              <td />
              <th scope="col">From, s</th>
              <th scope="col">To, s</th>
              <th scope="col">True km/h</th>
              <th scope="col">Shown, {readings.unit}</th>
              <td />
            </tr>
          </thead>
          <tbody>
            {drawn.map(({ id, stretch, shown }, i) => (
              <tr key={id}>
                <th scope="row">{i + 1}</th>
                <td>
                  <Edge
                    label={`Stretch ${i + 1} from, s`}
                    ms={stretch.fromMs}
                    startMs={track.startMs}
                    onChange={(fromMs) => void move(id, fromMs, stretch.toMs)}
                  />
                </td>
                <td>
                  <Edge
                    label={`Stretch ${i + 1} to, s`}
                    ms={stretch.toMs}
                    startMs={track.startMs}
                    onChange={(toMs) => void move(id, stretch.fromMs, toMs)}
                  />
                </td>
                <td className="num">
                  {stretch.kmh.toFixed(2)} ± {(2 * stretch.uKmh).toFixed(2)}
                </td>
                <td>
                  <input
                    type="number"
                    aria-label={`Shown on ${i + 1}, ${readings.unit}`}
                    value={shown}
                    min={0}
                    step="any"
                    data-scan-guard
                    onChange={(e) => fill(id, e.target.value === '' ? '' : Number(e.target.value))}
                  />
                </td>
                <td>
                  <button type="button" onClick={() => setDrawn((before) => before.filter((each) => each.id !== id))}>
                    Drop<span className="hidden-words"> stretch {i + 1}</span>
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <details className={classes['lines']} data-lines>
        <summary>Shown speeds from lines of time and figure</summary>
        <Textarea
          label="Time, shown"
          description="One a line: 1:20, 19 or 80, 19 since the start of the track, or a time as in the track. Figures within 3 s of a stretch's ends are left out."
          rows={3}
          value={lines}
          onChange={(e) => takeLines(e.target.value)}
          data-scan-guard="words"
        />
        <FileInput label="File of shown speeds" accept=".csv,text/csv" onText={(_, text) => takeLines(text)} />
      </details>
      {says && <Notice kind="care" says={says} />}
      <ActButton disabled={filled.length === 0} onAct={() => void add()}>
        {filled.length === 0
          ? 'Type what was shown on a stretch'
          : `Add ${filled.length} reading${filled.length === 1 ? '' : 's'}`}
      </ActButton>
    </>
  );
}

function Edge({
  label,
  ms,
  startMs,
  onChange,
}: {
  readonly label: string;
  readonly ms: number;
  readonly startMs: number;
  readonly onChange: (ms: number) => void;
}) {
  return (
    <input
      type="number"
      aria-label={label}
      value={Math.round((ms - startMs) / 1000)}
      step={1}
      min={0}
      data-scan-guard
      onChange={(e) => e.target.value !== '' && onChange(startMs + Number(e.target.value) * 1000)}
    />
  );
}

/** `1:05` since the track began. */
const clock = (ms: number): string =>
  `${Math.floor(ms / 60_000)}:${String(Math.round(ms / 1000) % 60).padStart(2, '0')}`;
