import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { gpxOf, rideInYard } from '../../testing/ride.js';
import { seeded } from '../../statistics/seeded.js';
import { readTrack } from './read-track.js';
import { readShownTimes, shownOnStretches } from './shown-on-track.js';
import { smoothTrack } from './smooth-track.js';
import { steadyStretches, stretchBetween } from './steady-stretches.js';
import type { TrackPoint } from './track.js';
import { distanceM } from './wgs84.js';

const ride = rideInYard([
  { kmh: 10, seconds: 60 },
  { kmh: 18, seconds: 50 },
  { kmh: 24, seconds: 60 },
  { kmh: 0, seconds: 30 },
]);
const codeOf = (text: string): string => {
  const outcome = readTrack(text, 'UTC');
  return outcome.ok ? 'taken' : outcome.problem.code;
};

describe('a track file', () => {
  it('of GPX 1.1 gives its points and its name', () => {
    const shares: number[] = [];
    const outcome = readTrack(
      gpxOf(ride, 'Yard & <perimeter>'.replace('&', '&amp;').replace('<', '&lt;').replace('>', '&gt;')),
      'UTC',
      (share) => shares.push(share),
    );
    if (!outcome.ok) throw new Error(outcome.problem.message);
    expect(outcome.value).toHaveLength(1);
    expect(outcome.value[0]).toMatchObject({ name: 'Yard & <perimeter>', notes: [] });
    expect(outcome.value[0]?.points).toHaveLength(200);
    expect(outcome.value[0]?.points[7]).toEqual({
      ms: ride[7]?.ms,
      lat: expect.closeTo(ride[7]?.lat ?? 0, 6),
      lon: expect.closeTo(ride[7]?.lon ?? 0, 6),
    });
    expect(shares.at(-1)).toBe(1);
  });

  it('may write its tags with a prefix, and hold two tracks, of which the caller asks', () => {
    const text = gpxOf(ride)
      .replaceAll(/<(\/?)(gpx|trk|trkseg|trkpt|time|name)\b/g, '<$1g:$2')
      .replace('xmlns=', 'xmlns:g=');
    expect(codeOf(text)).toBe('taken');
    const two = gpxOf(ride).replace(
      '</gpx>',
      '<trk><name>Back</name><trkseg><trkpt lat="1" lon="2"><time>2026-11-25T12:00:00Z</time></trkpt></trkseg></trk></gpx>',
    );
    const outcome = readTrack(two, 'UTC');
    expect(outcome.ok && outcome.value.map(({ name, points }) => [name, points.length])).toEqual([
      ['Yard', 200],
      ['Back', 1],
    ]);
  });

  it.each([
    ['without times', gpxOf(ride).replaceAll(/<time>.*?<\/time>/g, ''), 'noTimes'],
    ['with times going back', gpxOf([...ride.slice(100), ...ride.slice(0, 100)]), 'timesGoBack'],
    [
      'with a document type',
      `<!DOCTYPE gpx [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;">]><gpx><trk><name>&b;</name></trk></gpx>`,
      'entities',
    ],
    [
      'with an external entity',
      '<?xml version="1.0"?><!DOCTYPE gpx SYSTEM "file:///etc/hostname"><gpx></gpx>',
      'entities',
    ],
    ['with an entity nobody declared', '<gpx><trk><name>&secret;</name></trk></gpx>', 'entities'],
    ['of another XML', '<kml><Placemark/></kml>', 'noGpx'],
    ['that breaks off', gpxOf(ride).slice(0, 2000), 'noXml'],
    ['that is no XML', 'time,shown\n1,2', 'noXml'],
    ['that is empty', '', 'noXml'],
    ['with waypoints alone', '<gpx><wpt lat="1" lon="2"/></gpx>', 'noTrack'],
    [
      'of too many points',
      gpxOf(Array.from({ length: 100_001 }, (_, i) => ({ ms: i * 1000, lat: 1, lon: 2 }))),
      'tooMany',
    ],
  ])('%s is refused in words', (_what, text, code) => {
    expect(codeOf(text)).toBe(code);
  });

  it('with points of one moment twice, or without a time here and there, says so and goes on', () => {
    const text = gpxOf([...ride.slice(0, 50), ride[49] as TrackPoint, ...ride.slice(50)]).replace(
      /<time>[^<]*<\/time>/,
      '',
    );
    const outcome = readTrack(text, 'UTC');
    expect(outcome.ok && outcome.value[0]?.notes).toEqual([
      '1 points without a time were left out.',
      '1 points of a moment that was there already were left out.',
    ]);
  });
});

describe('steady stretches', () => {
  it('of a ride round the yard are its three speeds, each within three of its standard errors', () => {
    const { runs, cuts } = smoothTrack(ride);
    const stretches = steadyStretches(runs);
    expect(cuts).toEqual([]);
    expect(stretches).toHaveLength(3);
    for (const [i, kmh] of [10, 18, 24].entries()) {
      const stretch = stretches[i]!;
      expect(Math.abs(stretch.kmh - kmh)).toBeLessThan(3 * stretch.uKmh);
      expect(stretch.uKmh).toBeCloseTo((3.6 * Math.SQRT2 * 1.5) / ((stretch.toMs - stretch.fromMs) / 1000), 9);
    }
  });

  it('are not biased high by jittered positions: over 60 rides the mean is off by less than a hundredth', () => {
    const kmh = Array.from(
      { length: 60 },
      (_, seed) =>
        steadyStretches(smoothTrack(rideInYard([{ kmh: 20, seconds: 60 }], { seed: seed + 1 })).runs).reduce(
          (best, each) => (each.toMs - each.fromMs > best.toMs - best.fromMs ? each : best),
        ).kmh,
    );
    expect(Math.abs(kmh.reduce((sum, each) => sum + each, 0) / kmh.length / 20 - 1)).toBeLessThan(0.01);
  });

  it('end at a gap, at a leap, and where a tunnel freezes the position', () => {
    const gap = [...ride.slice(0, 30), ...ride.slice(55)];
    const leap = ride.map((point, i) => (i === 90 ? { ...point, lat: point.lat + 0.01 } : point));
    const frozen = ride.map((point, i) =>
      i > 130 && i < 150 ? { ...point, lat: ride[130]!.lat, lon: ride[130]!.lon } : point,
    );
    expect(smoothTrack(gap).cuts.map(({ kind }) => kind)).toEqual(['gap']);
    expect(smoothTrack(leap).cuts.map(({ kind }) => kind)).toContain('leap');
    expect(smoothTrack(frozen).cuts.map(({ kind }) => kind)).toContain('frozen');
    for (const stretch of steadyStretches(smoothTrack(frozen).runs))
      expect(stretch.toMs <= ride[130]!.ms || stretch.fromMs >= ride[149]!.ms).toBe(true);
  });

  it('may be drawn by a person, but not across a gap', () => {
    const { runs } = smoothTrack([...ride.slice(0, 60), ...ride.slice(80)]);
    expect(stretchBetween(runs, ride[10]!.ms, ride[40]!.ms)?.kmh).toBeCloseTo(10, 0);
    expect(stretchBetween(runs, ride[40]!.ms, ride[100]!.ms)).toBeUndefined();
    expect(stretchBetween(runs, ride[40]!.ms, ride[40]!.ms)).toBeUndefined();
  });

  it('are the same across the date line', () => {
    const moved = ride.map((point) => ({ ...point, lon: ((point.lon + 12 + 180 + 540) % 360) - 180 }));
    const [here, there] = [steadyStretches(smoothTrack(ride).runs), steadyStretches(smoothTrack(moved).runs)];
    expect(there.map(({ kmh }) => kmh)).toEqual(here.map(({ kmh }) => expect.closeTo(kmh, 3)));
  });

  it('count distance on the ellipsoid: a degree of latitude at the equator is 110.574 km', () => {
    expect(distanceM({ lat: 0, lon: 0 }, { lat: 1, lon: 0 })).toBeCloseTo(110_574.39, 1);
    expect(distanceM({ lat: 0, lon: 0 }, { lat: 0, lon: 1 })).toBeCloseTo(111_319.49, 1);
  });
});

describe('shown speeds on a track', () => {
  const stretches = steadyStretches(smoothTrack(ride).runs);

  it('belong to the stretch they were noted on, and none within 3 s of its ends', () => {
    const [first, second] = stretches;
    const marks = [
      { ms: first!.fromMs + 2_000, shown: 7 },
      { ms: first!.fromMs + 10_000, shown: 9 },
      { ms: first!.fromMs + 12_000, shown: 10 },
      { ms: second!.toMs - 4_000, shown: 17 },
    ];
    const { on, leftOver } = shownOnStretches(stretches, marks);
    expect(on.map(({ stretch, shown, count }) => [stretch.fromMs, shown, count])).toEqual([
      [first!.fromMs, 9.5, 2],
      [second!.fromMs, 17, 1],
    ]);
    expect(leftOver).toEqual([marks[0]]);
  });

  it('are read from lines of time and figure, in three ways of writing a time', () => {
    const start = Date.UTC(2026, 10, 25, 10);
    const read = readShownTimes(
      [
        ['time', 'shown'],
        ['75', '9'],
        ['1:20', '9,5'],
        ['2026-11-25T10:02:00Z', '17'],
        ['', ''],
      ],
      start,
      'UTC',
    );
    expect(read.ok && read.value).toEqual([
      { ms: start + 75_000, shown: 9 },
      { ms: start + 80_000, shown: 9.5 },
      { ms: start + 120_000, shown: 17 },
    ]);
  });

  it.each([
    [[['noon', '9']], 'Line 1: "noon" is no time'],
    [[['75', '-9']], 'Line 1: "-9" is no speed above zero'],
    [[['75', '0x10']], 'Line 1: "0x10" is no speed above zero'],
    [[['75', '1e3']], 'is no speed above zero'],
    [[['75', 'Infinity']], 'is no speed above zero'],
    [[['75', '']], 'is no speed above zero'],
    [[['2026-13-25T10:02:00Z', '9']], 'is no time'],
    [[['time', 'shown']], 'There are no lines'],
  ])('%j is refused by its line', (rows, words) => {
    const read = readShownTimes(rows, 0, 'UTC');
    expect(read.ok ? '' : read.problem.message).toContain(words);
  });
});

describe('a time without a zone', () => {
  it('stands in the zone that is given, whatever machine reads it', () => {
    const local = gpxOf(ride).replaceAll('Z</time>', '</time>');
    const first = (zone: string) => {
      const outcome = readTrack(local, zone);
      return outcome.ok ? (outcome.value[0]?.points[0]?.ms ?? 0) - ride[0]!.ms : NaN;
    };
    expect([first('UTC'), first('Asia/Kathmandu'), first('America/St_Johns')].map((ms) => ms / 60_000)).toEqual([
      0, -345, 210,
    ]);
    const shown = readShownTimes([['2026-11-25 10:02:00', '17']], 0, 'Asia/Kathmandu');
    expect(shown.ok && shown.value[0]?.ms).toBe(Date.UTC(2026, 10, 25, 4, 17));
  });
});

describe('a position', () => {
  it.each([
    ['lat=""', 'lon="2"'],
    ['lat="0x10"', 'lon="2"'],
    ['lat="1e1"', 'lon="2"'],
    ['lat="91"', 'lon="2"'],
    ['', 'lon="2"'],
  ])('%s %s is none, and not the Gulf of Guinea', (lat, lon) => {
    const text = gpxOf(ride).replace(/lat="[^"]*" lon="[^"]*"/, `${lat} ${lon}`);
    const outcome = readTrack(text, 'UTC');
    expect(outcome.ok && outcome.value[0]?.points).toHaveLength(199);
  });
});

describe('a log that is faster than its fixes', () => {
  it('finds the stretches that the fixes alone give', () => {
    const fast = ride.flatMap((point) => Array.from({ length: 10 }, (_, i) => ({ ...point, ms: point.ms + 100 * i })));
    const speeds = (points: readonly TrackPoint[]) =>
      steadyStretches(smoothTrack(points).runs).map(({ kmh }) => kmh.toFixed(2));
    expect(speeds(fast)).toEqual(speeds(ride));
    expect(speeds(fast).length).toBeGreaterThan(2);
  });
});

describe('a slope', () => {
  const level = rideInYard([{ kmh: 20, seconds: 120 }]);
  const onSlope = (rise: number, scatterM = 0): readonly TrackPoint[] => {
    const { normal } = seeded(5);
    let rolled = 0;
    return level.map((point, i) => {
      const before = level[i - 1];
      if (before) rolled += (before.trueKmh / 3.6) * ((point.ms - before.ms) / 1000);
      return { ...point, heightM: 40 + rise * rolled + scatterM * normal() };
    });
  };
  const kmh = (points: readonly TrackPoint[]) =>
    stretchBetween(smoothTrack(points).runs, level[30]!.ms, level[110]!.ms)?.kmh ?? 0;

  it('of 10 % is ridden half a per cent faster than a level map shows', () => {
    expect(kmh(onSlope(0.1)) / kmh(level)).toBeCloseTo(Math.sqrt(1 + 0.1 ** 2), 3);
    expect(kmh(onSlope(-0.1)) / kmh(level)).toBeCloseTo(Math.sqrt(1 + 0.1 ** 2), 3);
  });

  it('is not made of heights that scatter on the level, or that nobody could ride', () => {
    expect(kmh(onSlope(0, 2)) / kmh(level)).toBeCloseTo(1, 3);
    expect(kmh(onSlope(0.6)) / kmh(level)).toBe(1);
    const some = onSlope(0.1).map((point, i) => (i === 50 ? level[50]! : point));
    expect(kmh(some)).toBe(kmh(level));
  });
});

describe('the demo ride', () => {
  it('reads as three speeds, with what was shown on each', () => {
    const text = (name: string): string =>
      readFileSync(new URL(`../../../demo/rides/${name}`, import.meta.url), 'utf8');
    const read = readTrack(text('yard-0424.gpx'), 'UTC');
    if (!read.ok) throw new Error(read.problem.message);
    const [track] = read.value;
    const shown = readShownTimes(
      text('yard-0424-shown.csv')
        .trim()
        .split('\n')
        .map((row) => row.split(',')),
      track?.points[0]?.ms ?? 0,
      'UTC',
    );
    const { on, leftOver } = shownOnStretches(
      steadyStretches(smoothTrack(track?.points ?? []).runs),
      shown.ok ? shown.value : [],
    );
    expect(on.map(({ stretch, shown: figure }) => [Math.round(stretch.kmh), figure])).toEqual([
      [10, 9.7],
      [17, 16.4],
      [24, 23.1],
    ]);
    expect(leftOver).toEqual([]);
  });
});
