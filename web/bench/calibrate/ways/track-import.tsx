import { Progress, Select } from '@mantine/core';
import { IconRoute } from '@tabler/icons-react';
import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import type { TrackReader, TrackView } from '../../../workers/track-worker.js';
import { houseZone } from '../../../ui/house-zone.js';
import { KeyButton } from '../../../ui/keys/key-button.js';
import { Notice } from '../../../ui/notice.js';
import type { Readings } from '../../../measuring/readings.js';
import { TrackStretches } from './track-stretches.js';
import classes from './track.module.css';

/** Larger files hold more points than are read. */
const MOST_BYTES = 60 * 1024 * 1024;

/** A recorded ride as a GPX file: its steady stretches are the true speeds, and what was shown on them is typed or read from lines. */
export function TrackImport({ readings, onDone }: { readonly readings: Readings; readonly onDone: () => void }) {
  const { reader, stop } = useReader();
  const [share, setShare] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [tracks, setTracks] = useState<readonly TrackView[]>([]);
  const [at, setAt] = useState<number | null>(null);
  const take = async (file: File) => {
    setProblem(null);
    setTracks([]);
    setAt(null);
    if (file.size > MOST_BYTES)
      return setProblem(
        `${file.name} has ${Math.round(file.size / 1024 / 1024)} MB: cut the ride out of it, or record fewer points a second.`,
      );
    setShare(0);
    const outcome = await reader().read(
      await file.text(),
      houseZone(),
      proxy((done: number) => setShare(done)),
    );
    setShare(null);
    if ('problem' in outcome) return setProblem(`${file.name}: ${outcome.problem.message}`);
    setTracks(outcome.tracks);
    if (outcome.tracks.length === 1) setAt(0);
  };
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    multiple: false,
    noClick: true,
    noKeyboard: true,
    onDropAccepted: ([file]) => file && void take(file),
  });
  const track = at === null ? undefined : tracks[at];
  return (
    <div className={classes['track']}>
      <div
        {...getRootProps({ className: classes['zone'] })}
        data-accept={isDragActive || undefined}
        data-slim={track !== undefined || undefined}
      >
        <input {...getInputProps({ 'aria-label': 'Track file' })} />
        <IconRoute size={28} stroke={1.4} aria-hidden="true" />
        <p>
          <strong>{track ? track.name : 'Drop a recorded ride here'}</strong>{' '}
          {track
            ? `${track.points.toLocaleString('en')} points, ${Math.round((track.endMs - track.startMs) / 1000)} s`
            : 'GPX with times, up to 100,000 points. It stays on this device: only the readings are kept.'}
        </p>
        <KeyButton hotkey="F" onAct={open}>
          {track ? 'Another file' : 'Choose a file'}
        </KeyButton>
      </div>
      {share !== null && (
        <div className={classes['progress']}>
          <Progress value={share * 100} aria-label="Reading the track" color="verdigris" />
          <KeyButton
            hotkey="X"
            look="care"
            onAct={() => {
              stop();
              setShare(null);
            }}
          >
            Stop
          </KeyButton>
        </div>
      )}
      {problem && <Notice kind="stop" title="This file cannot be used" says={problem} />}
      {tracks.length > 1 && (
        <Select
          label={`The file holds ${tracks.length} tracks. Which one is this unit's?`}
          data={tracks.map(({ name, points }, i) => ({ value: String(i), label: `${name}, ${points} points` }))}
          value={at === null ? null : String(at)}
          onChange={(next) => setAt(next === null ? null : Number(next))}
        />
      )}
      {track && at !== null && (
        <TrackStretches
          key={at}
          track={track}
          measure={(fromMs, toMs) => reader().between(at, fromMs, toMs)}
          readings={readings}
          onDone={onDone}
        />
      )}
    </div>
  );
}

/** The worker that reads tracks, started when first asked and stopped with the page. */
function useReader(): { readonly reader: () => Remote<TrackReader>; readonly stop: () => void } {
  const worker = useRef<{ readonly own: Worker; readonly remote: Remote<TrackReader> } | null>(null);
  const stop = () => {
    worker.current?.own.terminate();
    worker.current = null;
  };
  useEffect(() => stop, []);
  const reader = () => {
    if (!worker.current) {
      const own = new Worker(new URL('../../../workers/track-worker.ts', import.meta.url), { type: 'module' });
      worker.current = { own, remote: wrap<TrackReader>(own) };
    }
    return worker.current.remote;
  };
  return { reader, stop };
}
