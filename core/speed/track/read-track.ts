import { SaxesParser } from 'saxes';
import { momentIn } from '../../house-time.js';
import { decimalIn } from '../../numerals.js';
import { ok, refuse, type Result } from '../../result.js';
import type { Track, TrackPoint } from './track.js';

/** A track may have so many points. */
export const MOST_POINTS = 100_000;
const CHUNK = 1 << 16;

/**
 * Reads GPX 1.1 (or 1.0) into its tracks; the caller asks which is meant where there are several. Document types and
 * entities are refused, whatever they would stand for. `onProgress` hears the share read, 0 to 1.
 * @param zone  in which times stand that name none, such as `Europe/Berlin`
 * Refuses: noXml, noGpx, entities, noTrack, noTimes, timesGoBack, tooMany.
 */
export function readTrack(
  text: string,
  zone: string,
  onProgress: (share: number) => void = () => undefined,
): Result<readonly Track[]> {
  const read: Read = { tracks: [], problem: null };
  const parser = parserInto(read, zone);
  for (let at = 0; at < text.length && read.problem === null; at += CHUNK) {
    parser.write(text.slice(at, at + CHUNK));
    onProgress(Math.min(1, (at + CHUNK) / text.length));
  }
  if (read.problem === null) parser.close();
  if (read.problem) return read.problem;
  const tracks = read.tracks.filter(({ points }) => points.length > 0);
  const untimed = read.tracks.some(({ untimed: count }) => count > 0);
  if (tracks.length === 0)
    return untimed
      ? refuse('noTimes', 'The points of this track have no times, so it tells no speeds. Export it again with times.')
      : refuse('noTrack', 'There is no track in this file; routes and single points tell no speed.');
  return inOrder(
    tracks.map(({ name, points, untimed: count }, i) => ({
      name: name || `Track ${i + 1}`,
      points,
      notes: count > 0 ? [`${count} points without a time were left out.`] : [],
    })),
  );
}

interface OpenTrack {
  name: string;
  untimed: number;
  readonly points: TrackPoint[];
}

type Refusal = Extract<Result<never>, { readonly ok: false }>;

interface Read {
  readonly tracks: OpenTrack[];
  problem: Refusal | null;
}

/** A parser that puts what it meets into `read`, up to the first thing that defeats it. */
function parserInto(read: Read, zone: string): SaxesParser {
  const parser = new SaxesParser();
  const path: string[] = [];
  let [text, count, ms] = ['', 0, NaN];
  let height: number | null = null;
  let position: { readonly lat: number; readonly lon: number } | null = null;
  const stop = (code: string, message: string): void => void (read.problem ??= refuse(code, message));
  parser.on('doctype', () =>
    stop('entities', 'This file declares a document type. Tracks have none, and such files are not opened.'),
  );
  parser.on('error', ({ message }) => stop(...unreadable(message)));
  parser.on('text', (more) => (text += more));
  parser.on('cdata', (more) => (text += more));
  parser.on('opentag', ({ name, attributes }) => {
    const tag = plainName(name);
    if (path.length === 0 && tag !== 'gpx') stop('noGpx', `This is XML, but not a GPX track: it begins with <${tag}>.`);
    path.push(tag);
    text = '';
    if (tag === 'trk') read.tracks.push({ name: '', untimed: 0, points: [] });
    if (tag === 'trkpt') [position, ms, height] = [positionOf(attributes), NaN, null];
  });
  parser.on('closetag', ({ name }) => {
    const tag = plainName(name);
    path.pop();
    const track = read.tracks.at(-1);
    if (tag === 'name' && path.at(-1) === 'trk' && track) track.name = text.trim();
    if (tag === 'time' && path.at(-1) === 'trkpt') ms = momentIn(zone, text.trim()) ?? NaN;
    if (tag === 'ele' && path.at(-1) === 'trkpt') height = decimalIn(text);
    if (tag === 'trkpt' && track && position) {
      if (++count > MOST_POINTS)
        stop(
          'tooMany',
          `This file has more than ${MOST_POINTS.toLocaleString('en')} points. Cut the ride out of it, or record fewer points a second.`,
        );
      if (Number.isNaN(ms)) track.untimed++;
      else track.points.push({ ms, ...position, ...(height === null ? {} : { heightM: height }) });
    }
    text = '';
  });
  return parser;
}

const plainName = (name: string): string => name.slice(name.indexOf(':') + 1);

function positionOf({ lat = '', lon = '' }: Record<string, string>): { lat: number; lon: number } | null {
  const position = { lat: decimalIn(lat) ?? NaN, lon: decimalIn(lon) ?? NaN };
  return Math.abs(position.lat) <= 90 && Math.abs(position.lon) <= 180 ? position : null;
}

function unreadable(message: string): [string, string] {
  if (/entity/i.test(message))
    return ['entities', 'This file uses entities of its own. Tracks need none, and such files are not opened.'];
  const [, line] = /^(\d+):\d+:/.exec(message) ?? [];
  return ['noXml', `This is no readable GPX file${line ? `: it breaks off or goes wrong in line ${line}` : ''}.`];
}

/** Points of the same moment count once; a clock that goes back tells no speed. */
function inOrder(tracks: readonly Track[]): Result<readonly Track[]> {
  const ordered: Track[] = [];
  for (const track of tracks) {
    const points: TrackPoint[] = [];
    for (const point of track.points) {
      const before = points.at(-1);
      if (before && point.ms < before.ms)
        return refuse(
          'timesGoBack',
          `The times go back, from ${new Date(before.ms).toISOString()} to ${new Date(point.ms).toISOString()}: two rides were joined, or a clock was set. Cut the file there.`,
        );
      if (!before || point.ms > before.ms) points.push(point);
    }
    const doubled = track.points.length - points.length;
    ordered.push({
      ...track,
      points,
      notes:
        doubled > 0
          ? [...track.notes, `${doubled} points of a moment that was there already were left out.`]
          : track.notes,
    });
  }
  return ok(ordered);
}
