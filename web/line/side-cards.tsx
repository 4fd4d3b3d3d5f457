import { Link, useNavigate } from 'react-router';
import { HOLD_REASONS, stepTitle } from '@decurio/core';
import type { LineUnit, NextUnit } from '@decurio/contract';
import { planApi } from '../state/plan-api.js';
import { KeyCap } from '../ui/keys/key-cap.js';
import { useHotkeys } from '../ui/keys/use-hotkeys.js';
import { whenClock, whenDay, whenSoon } from '../ui/when.js';
import classes from './side-cards.module.css';

const SHOWN = 5;
const REFRESH_MS = 15_000;

/** What is next for the person signed in, and what is held and why. */
export function SideCards({ units, me }: { readonly units: readonly LineUnit[]; readonly me: string }) {
  const mine = units.filter((unit) => unit.status === 'open' && unit.worker === me && unit.waits === null);
  const aside = units
    .filter((unit) => unit.waits !== null)
    .toSorted((a, b) => (a.waitsUntil ?? '9').localeCompare(b.waitsUntil ?? '9'));
  const waiting = units.filter((unit) => unit.status === 'waiting').slice(0, Math.max(1, SHOWN - mine.length));
  const next = [...mine, ...waiting].slice(0, SHOWN);
  const held = units.filter((unit) => unit.status === 'held');
  const odd = units.filter((unit) => unit.odd !== null);
  const planned =
    planApi.useOutlookQuery(null, { pollingInterval: REFRESH_MS, skipPollingIfUnfocused: true }).data?.nextForYou ?? [];
  const navigate = useNavigate();
  const first = planned[0]?.unitId ?? next[0]?.id;
  useHotkeys({ G: first === undefined ? undefined : () => void navigate(`/bench/${first}`) });
  return (
    <aside className={classes['side']}>
      {planned.length > 0 ? <PlannedNext next={planned} /> : <NextHere next={next} />}
      {aside.length > 0 && (
        <section className={classes['card']} aria-label="Stands aside">
          <h2 className="cap">Stands aside</h2>
          <ul>
            {aside.slice(0, SHOWN).map((unit) => (
              <li key={unit.id}>
                <Link to={`/bench/${unit.id}`}>
                  <span className={classes['serial']}>{unit.serial}</span> {unit.waits}
                  {unit.waitsUntil !== null && `, to ${whenClock(unit.waitsUntil)}`}
                </Link>
              </li>
            ))}
          </ul>
          {aside.length > SHOWN && <p className="soft">and {aside.length - SHOWN} more</p>}
        </section>
      )}
      <StorageCard units={units} />
      <HeldCard
        title="Quarantine"
        says="Outdoors, apart from everything, not carried through the building. Nobody powers or charges them."
        units={held.filter(isQuarantined)}
      />
      <HeldCard title="Held" units={held.filter((unit) => !isQuarantined(unit))} />
      {odd.length > 0 && (
        <section className={`${classes['card']} ${classes['odd']}`}>
          <h2 className="cap">Unlike their family</h2>
          <ul>
            {odd.slice(0, SHOWN).map((unit) => (
              <li key={unit.id}>
                <Link
                  to={
                    unit.handedTo !== null && unit.status === 'sealed' ? `/ledger/${unit.visitId}` : `/bench/${unit.id}`
                  }
                >
                  <span className={classes['serial']}>{unit.serial}</span> {unit.odd}
                </Link>
              </li>
            ))}
          </ul>
          {odd.length > SHOWN && <p className="soft">and {odd.length - SHOWN} more</p>}
          <p className="soft">
            The next ones are run in full. A lead may <Link to="/library/learnt">say why it is left out</Link>.
          </p>
        </section>
      )}
    </aside>
  );
}

/** What the plan has for the person signed in, of whatever order, each with when and why. It asks nobody to follow it. */
function PlannedNext({ next }: { readonly next: readonly NextUnit[] }) {
  return (
    <section className={classes['card']} aria-label="Next for you">
      <h2 className="cap">Next for you</h2>
      <ul>
        {next.map(({ unitId, serial, step, atMs, because }, i) => (
          <li key={unitId}>
            <Link to={`/bench/${unitId}`}>
              <span className={classes['serial']}>{serial}</span> {stepTitle(step)} {i === 0 && <KeyCap of="G" />}
              <small className={classes['because']}>
                {whenSoon(atMs)}, {because}
              </small>
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is next on this order alone, where no plan says more. */
function NextHere({ next }: { readonly next: readonly LineUnit[] }) {
  return (
    <section className={classes['card']} aria-label="Next for you">
      <h2 className="cap">Next for you</h2>
      {next.length === 0 && <p className="soft">Nothing waits for you on this order.</p>}
      <ul>
        {next.map((unit, i) => (
          <li key={unit.id}>
            <Link to={`/bench/${unit.id}`}>
              <span className={classes['serial']}>{unit.serial}</span>{' '}
              {unit.step === null ? 'Check in' : stepTitle(unit.step)} {i === 0 && <KeyCap of="G" />}
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is put away and comes due, whatever is overdue or must not stay so first. */
function StorageCard({ units }: { readonly units: readonly LineUnit[] }) {
  const now = new Date().toISOString();
  const away = units
    .flatMap(({ id, serial, stored, handedTo }) => (stored && handedTo === null ? [{ id, serial, stored }] : []))
    .toSorted(
      (a, b) =>
        Number(b.stored.act === 'stop') - Number(a.stored.act === 'stop') ||
        a.stored.measureAt.localeCompare(b.stored.measureAt),
    );
  if (away.length === 0) return null;
  const isPressing = away.some(({ stored }) => stored.act === 'stop' || stored.measureAt <= now);
  return (
    <section className={`${classes['card']} ${isPressing ? classes['held'] : ''}`} aria-label="In storage">
      <h2 className="cap">In storage</h2>
      <ul>
        {away.slice(0, SHOWN).map(({ id, serial, stored }) => (
          <li key={id}>
            <Link to={`/bench/${id}`}>
              <span className={classes['serial']}>{serial}</span>{' '}
              {stored.act === 'stop'
                ? `${stored.packV} V: neither charged nor powered`
                : stored.measureAt <= now
                  ? `${stored.packV} V, measure it now`
                  : `${stored.packV} V, measure it on ${whenDay(stored.measureAt)}`}
            </Link>
          </li>
        ))}
      </ul>
      {away.length > SHOWN && <p className="soft">and {away.length - SHOWN} more</p>}
    </section>
  );
}

/** Its pack must not be powered: it stands in a place of its own until it is measured again, another is in, or it is withdrawn. */
const isQuarantined = ({ heldReason }: LineUnit): boolean => heldReason === HOLD_REASONS.pack;

interface HeldCardProps {
  readonly title: string;
  readonly says?: string;
  readonly units: readonly LineUnit[];
}

function HeldCard({ title, says, units }: HeldCardProps) {
  if (units.length === 0) return null;
  return (
    <section className={`${classes['card']} ${classes['held']}`} aria-label={title}>
      <h2 className="cap">{title}</h2>
      {says && <p>{says}</p>}
      <ul>
        {units.slice(0, SHOWN).map((unit) => (
          <li key={unit.id}>
            <Link to={`/bench/${unit.id}`}>
              {/* What must not be done with a pack is never cut short. */}
              <span className={isQuarantined(unit) ? undefined : classes['words']}>
                <span className={classes['serial']}>{unit.serial}</span> {unit.heldWords}
              </span>
            </Link>
          </li>
        ))}
      </ul>
      {units.length > SHOWN && <p className="soft">and {units.length - SHOWN} more, marked in the ranks</p>}
    </section>
  );
}
