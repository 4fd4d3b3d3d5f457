import { findCode, formatRaw, isAgainst, meaningOf, missingPhotos, type Code, type VisitState } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { useHotkeys } from '../../ui/keys/use-hotkeys.js';
import { useSession } from '../../state/session.js';
import type { Visit } from '../use-visit.js';
import { Photos } from '../photos/photos.js';
import { OneReading } from '../reading/one-reading.js';
import { useReadRoute } from '../../ui/use-read-route.js';
import { VerdictTable } from './verdict-table.js';
import panel from '../panel.module.css';

/** Step 6: every code read from the glass without its target in sight, in the order of the menu, then all of them judged. */
export function ReadBack({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const { who } = useSession();
  const route = useReadRoute(bench.map, state.toRead, state.values);
  const open = state.toRead.filter((label) => state.verdicts.some((v) => v.label === label && v.verdict === 'notRead'));
  if (open.length === 0) return <Verdicts bench={bench} state={state} visit={visit} />;
  if (who && state.opened.bench?.otherReader === true && state.keyedBy.includes(who.userId)) return <OtherReader />;
  if (!route) return <Busy />;
  const label = route.order.find((one) => open.includes(one)) ?? open[0] ?? '';
  const code = findCode(bench.map, label);
  if (!code) return <Verdicts bench={bench} state={state} visit={visit} />;
  const read = state.readings[label]?.length ?? 0;
  return (
    <OneReading
      key={`${label} ${read}`}
      code={code}
      where={`Read back · ${state.toRead.length - open.length + 1} of ${state.toRead.length}`}
      how={route.wayTo(label)}
      reading={read + 1}
      onTake={(raw) => void visit.act('codeRead', { label, raw })}
      onNotShown={() => void visit.act('codeRead', { label, raw: null })}
      note={read > 0 && <Notice kind="care" says={`Look at ${label} once more and type what it shows now.`} />}
    />
  );
}

/** House rules want a second pair of eyes. */
const OtherReader = () => (
  <div className={panel['panel']}>
    <Notice
      kind="care"
      title="Somebody else reads this unit back"
      says="You keyed it, and house rules ask for another pair of eyes. Let a colleague sign in at this stand; the unit waits here."
    />
  </div>
);

function Verdicts({
  bench,
  state,
  visit,
}: {
  readonly bench: BenchView;
  readonly state: VisitState;
  readonly visit: Visit;
}) {
  const against = state.verdicts.filter(isAgainst);
  const agreed = state.verdicts.filter((v) => v.verdict === 'agrees').length;
  const missing = missingPhotos(state, 'readBack');
  const close = () => void visit.act('readBackClosed', {});
  const hopeless = against.some((v) => v.verdict !== 'differs');
  useHotkeys({ Space: close });
  return (
    <div className={panel['panel']}>
      <p className="cap">Read back · verdict</p>
      {against.length === 0 ? (
        <Notice kind="done" title="Every code shows what it must" says={`${agreed} agree after the restart.`} />
      ) : (
        <Notice
          kind="stop"
          title={`${against.length} ${against.length === 1 ? 'code disagrees' : 'codes disagree'}`}
          says={against
            .map((v) => `${v.label} ${saysAgainst(v.readings.at(-1) ?? null, v.target, findCode(bench.map, v.label))}`)
            .join('; ')}
        />
      )}
      {Object.entries(state.accepted).map(([label, { words, by }]) => (
        <Notice key={label} kind="note" says={`${label} stays as it shows: ${words} (${by})`} />
      ))}
      <VerdictTable verdicts={state.verdicts} map={bench.map} />
      {(state.opened.bench?.photos.readBack.length ?? 0) > 0 && (
        <Photos unitId={bench.unit.id} state={state} visit={visit} step="readBack" subjects={[]} />
      )}
      <div className={panel['acts']}>
        <ActButton look="main" hotkey="Space" disabled={against.length === 0 && missing.length > 0} onAct={close}>
          {against.length === 0
            ? 'To calibrate'
            : hopeless
              ? 'Hold it for a lead'
              : `Key ${against.length === 1 ? 'it' : `these ${against.length}`} again`}
        </ActButton>
      </div>
    </div>
  );
}

function saysAgainst(shown: number | null, target: number | null, code: Code | undefined): string {
  if (shown === null) return 'is not shown';
  const show = (raw: number) => (code ? `${formatRaw(code, raw)} (${meaningOf(code, raw)})` : String(raw));
  return `shows ${show(shown)}, must be ${target === null ? 'as found' : show(target)}`;
}
