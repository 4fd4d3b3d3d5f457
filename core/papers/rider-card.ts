import { speedWords } from '../speed/speed.js';
import { shownTo, type KeyUse, type RiderFacts } from './rider-facts.js';
import { sentence, type Language, type RiderSentence } from './rider-sentences.js';

/** A rider card as it is read: what it is of, and rows of a few words and what they mean here. */
export interface RiderCard {
  readonly language: Language;
  readonly title: string;
  readonly rows: readonly { readonly name: string; readonly says: string }[];
}

/** The card of one unit in one language. Pure: the same facts give the same card. */
export function riderCard(facts: RiderFacts, language: Language): RiderCard {
  const s = (name: RiderSentence, values: Readonly<Record<string, string | number>> = {}): string =>
    sentence(language, name, values);
  const use = ({ keys, seconds }: KeyUse): string =>
    seconds === 0 ? s('tap', { keys: keys.join(s('and')) }) : s('hold', { keys: keys.join(s('and')), s: seconds });
  const speed = (kmh: number): string => shownTo(kmh, facts.inMiles);
  function switchedOn(): string {
    if (facts.on) return s(facts.keySwitch ? 'onKey' : 'onPack', { use: use(facts.on) });
    return s(facts.keySwitch ? 'onKeyAlone' : 'onPackAlone');
  }
  const rows: (readonly [RiderSentence | string, string] | null)[] = [
    [s('onOff'), `${switchedOn()} ${facts.off ? s('offUse', { use: use(facts.off) }) : s('offAlone')}`],
    facts.levels && [
      s('levels', { from: facts.levels.hasZero ? 0 : 1, to: facts.levels.most }),
      `${s('levelsDo', { up: facts.levels.up.keys.join(s('and')), down: facts.levels.down.keys.join(s('and')) })}${facts.levels.hasZero ? ` ${s('levelZero')}` : ''}`,
    ],
    facts.modes && [
      s('modes'),
      `${facts.modes.list.map(({ title, kmh }) => (kmh === null ? title : s('modeTo', { mode: title, speed: speed(kmh) }))).join(', ')}. ${s('modeChange', { use: use(facts.modes.change) })}`,
    ],
    facts.assistToKmh === null ? null : [s('helpsTo'), s('helpsPedal', { speed: speed(facts.assistToKmh) })],
    [s('throttle'), throttleWords()],
    facts.walk === 'none'
      ? null
      : [
          s('walk'),
          facts.walk === 'off'
            ? s('walkOff')
            : s('walkOn', { use: facts.walk.use ? capital(use(facts.walk.use)) : '–', speed: speed(facts.walk.toKmh) }),
        ],
    facts.cruise === 'on' ? [s('cruise'), s('cruiseOn')] : null,
    [
      s('brakes'),
      [facts.brakesCut ? s('brakesCut') : '', s('brakesTry'), facts.motorBrakes ? s('motorBrakes') : '']
        .filter((part) => part !== '')
        .join(' '),
    ],
    facts.lights ? [s('lights'), s('lightsSay')] : null,
    facts.range && [
      s('range'),
      s('rangeSay', { from: facts.range.fromKm, to: facts.range.toKm, share: Math.round(facts.range.share * 100) }),
    ],
    [s('charging'), s('chargingSay')],
    facts.autoOffMin === null
      ? null
      : [
          s('dark'),
          facts.on
            ? s('darkSay', { min: facts.autoOffMin, use: use(facts.on) })
            : s('darkAlone', { min: facts.autoOffMin }),
        ],
    facts.tyreBar && [s('tyres'), s('tyresSay', { from: facts.tyreBar.from, to: facts.tyreBar.to })],
    rules(),
    [s('noChange'), s('noChangeSay')],
  ];
  return {
    language,
    title: s(facts.kind === 'bike' ? 'titleBike' : 'titleScooter'),
    rows: rows.flatMap((row) => (row ? [{ name: row[0], says: row[1] }] : [])),
  };

  function throttleWords(): string {
    const { throttle } = facts;
    if (throttle === 'none') return s('throttleNone');
    if (throttle === 'fittedButDead') return s('throttleDead');
    const from = { standing: 'throttleStanding', rolling: 'throttleRolling', pedalling: 'throttlePedalling' } as const;
    return s(from[throttle.from], { speed: speed(throttle.toKmh) });
  }

  function rules(): readonly [string, string] | null {
    const asked = (['helmet', 'licence', 'plate', 'insurance'] as const).flatMap((what) =>
      facts.asks[what] === 'no' ? [] : [facts.asks[what] === 'yes' ? s(what) : s('unsure', { what: s(what) })],
    );
    const all = [...(facts.leastAge === null ? [] : [s('fromAge', { age: facts.leastAge })]), ...asked];
    const places = facts.places.map(({ where, limit }) => s('placeTo', { where, speed: speedWords(limit) }));
    const says = [all.length > 0 ? `${capital(all.join(', '))}.` : '', facts.note, ...places].filter(
      (part) => part !== '',
    );
    return says.length === 0 ? null : [s('rules'), says.join(' ')];
  }
}

const capital = (words: string): string => words.charAt(0).toLocaleUpperCase() + words.slice(1);
