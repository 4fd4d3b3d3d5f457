import { formatRaw, showsAlready, kmhWords, type CalibrationOf, type WheelCandidate } from '@decurio/core';
import { Notice } from '../../ui/notice.js';
import { percent, signedPercent } from './calibrate-words.js';
import { keyOf } from './next-act.js';
import classes from './verdict.module.css';

const SHOWN = 5;

export interface CandidateTableProps {
  readonly found: CalibrationOf;
  readonly drive: string;
  readonly chosen: string | null;
  readonly onChoose: (key: string) => void;
}

/** Wheel value and cap together: the house rule's pick on top, its neighbours under it, and what is keyed now. */
export function CandidateTable({ found, drive, chosen, onChoose }: CandidateTableProps) {
  const { candidates, codes, question } = found;
  const [pick] = candidates;
  if (!pick || !question) return null;
  const now = asKeyedNow(found);
  const picked = candidates.find((each) => keyOf(each) === (chosen ?? keyOf(pick))) ?? pick;
  const near = [pick, ...neighbours(candidates, pick).filter((each) => keyOf(each) !== keyOf(pick))].slice(
    0,
    SHOWN - 1,
  );
  const isSame = showsAlready(picked, codes);
  const hasCaps = question.caps.length > 0;
  return (
    <section className={classes['card']} data-kind={isSame ? 'done' : 'act'}>
      <p className="cap">{isSame ? 'Keyed as it should be' : 'Key this instead'}</p>
      <h2>{named(picked, found)}</h2>
      <p>
        Reads {percent(Math.abs(picked.ratio.k - 1))} {picked.ratio.k < 1 ? 'low' : 'high'}.
        {picked.ends &&
          ` ${drive} ends at ${picked.ends.kmh.toFixed(1)}, ${picked.ends.worst.toFixed(1)} km/h true at worst.`}
        {picked.readsFarOver && ' More than a tenth over is for a lead to decide.'}
      </p>
      {picked.cap === null && question.limitKmh !== null && question.caps.length > 0 && (
        <Notice kind="stop" says={tooLowWords(picked, found)} />
      )}
      <table className={classes['candidates']}>
        <thead>
          <tr className="cap">
            <th scope="col">{codes.cap ? 'Wheel · cap' : 'Wheel'}</th>
            <th scope="col">Reads</th>
            {hasCaps && <th scope="col">Ends at worst</th>}
          </tr>
        </thead>
        <tbody>
          {near.map((each) => (
            <tr key={keyOf(each)} data-chosen={each === picked}>
              <th scope="row">
                <label>
                  <input
                    type="radio"
                    name="candidate"
                    checked={each === picked}
                    onChange={() => onChoose(keyOf(each))}
                  />
                  {shortName(each, found)}
                </label>
              </th>
              <td data-against={question.shown === 'neverUnder' && each.mayReadUnder}>
                {signedPercent(each.ratio.k - 1)}
                {question.shown === 'neverUnder' && each.mayReadUnder && <small>may be under</small>}
              </td>
              {hasCaps && (
                <td data-against={each.cap === null}>{each.ends ? each.ends.worst.toFixed(1) : 'no cap is safe'}</td>
              )}
            </tr>
          ))}
          {now && (
            <tr data-now="true">
              <th scope="row">{now.name} now</th>
              <td data-against={question.shown === 'neverUnder' && question.ratio.low < 1}>
                {signedPercent(question.ratio.k - 1)}
              </td>
              {hasCaps && (
                <td data-against={now.over > 0}>
                  {now.worst}
                  {now.over > 0 && <small>{now.over.toFixed(1)} over</small>}
                </td>
              )}
            </tr>
          )}
        </tbody>
      </table>
      <p className="soft">
        House rule: {question.shown === 'neverUnder' ? 'never read under true speed' : 'nearest to true speed'};{' '}
        {question.pulses.length > 1 ? 'pulses may be trimmed' : 'pulses stay as counted'}.
        {question.limitKmh !== null && ` Limit ${kmhWords(question.limitKmh)}.`}
      </p>
    </section>
  );
}

/** A cap that cannot be met: why, and the nearest that can be had. */
function tooLowWords({ ratio }: WheelCandidate, { codes, question, overshoot }: CalibrationOf): string {
  const lowest = question?.caps.toSorted((a, b) => a.kmh - b.kmh)[0];
  if (!lowest || !codes.cap || (question?.limitKmh ?? null) === null || !question?.limitKmh)
    return 'No cap of this display is safe.';
  const end = (lowest.kmh + overshoot.kmh) / ratio.low;
  return `${codes.cap.label} cannot be set as low as ${kmhWords(question.limitKmh)} of true speed: its lowest, ${formatRaw(codes.cap, lowest.raw)}, ends at ${kmhWords(end)} at worst. The unit cannot be delivered in this class with this display: hold it for a lead.`;
}

/** The pick's neighbours by circumference, nearest first. */
function neighbours(candidates: readonly WheelCandidate[], pick: WheelCandidate): readonly WheelCandidate[] {
  return candidates
    .filter(({ pulses }) => pulses === pick.pulses)
    .toSorted((a, b) => Math.abs(a.wheel.mm - pick.wheel.mm) - Math.abs(b.wheel.mm - pick.wheel.mm));
}

function named({ wheel, pulses, cap }: WheelCandidate, { codes }: CalibrationOf): string {
  const parts = [
    ...(codes.wheel ? [`${codes.wheel.label} wheel ${formatRaw(codes.wheel, wheel.raw)}`] : []),
    ...(codes.pulses && pulses !== codes.pulsesSet ? [`${codes.pulses.label} pulses ${pulses}`] : []),
    ...(codes.cap && cap ? [`${codes.cap.label} cap ${formatRaw(codes.cap, cap.raw)}`] : []),
  ];
  return parts.join(' · ');
}

const shortName = ({ wheel, pulses, cap }: WheelCandidate, { codes }: CalibrationOf): string =>
  [
    codes.wheel ? formatRaw(codes.wheel, wheel.raw) : '',
    ...(pulses === codes.pulsesSet ? [] : [`${pulses} p`]),
    ...(codes.cap && cap ? [formatRaw(codes.cap, cap.raw)] : []),
  ]
    .filter(Boolean)
    .join('·');

function asKeyedNow({
  codes,
  endsNow,
  question,
}: CalibrationOf): { readonly name: string; readonly worst: string; readonly over: number } | null {
  if (!codes.wheel || codes.wheelRaw === null) return null;
  const limit = question?.limitKmh ?? Infinity;
  return {
    name: [
      formatRaw(codes.wheel, codes.wheelRaw),
      codes.cap && codes.capRaw !== null ? formatRaw(codes.cap, codes.capRaw) : '',
    ]
      .filter(Boolean)
      .join('·'),
    worst: endsNow ? endsNow.worst.toFixed(1) : 'no cap',
    over: endsNow && endsNow.worst > limit * (1 + 1e-9) ? endsNow.worst - limit : 0,
  };
}
