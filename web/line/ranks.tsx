import { memo, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { STEPS, stepTitle } from '@decurio/core';
import type { LineUnit } from '@decurio/contract';
import { whenClock } from '../ui/when.js';
import { StepLadderMarks } from '../ui/step-ladder-marks.js';
import type { Rank } from './which-units.js';
import classes from './ranks.module.css';

const MOST_SHOWN = 18;
/** Signs of a serial in the close setting: where serials of a delivery differ. */
const TAIL = 4;

export interface RanksProps {
  readonly ranks: readonly Rank[];
  /** All of the delivery: what their serials share is not repeated on each card. */
  readonly units: readonly LineUnit[];
  readonly me: string;
  /** As many ranks on a screen as can be read. */
  readonly isClose: boolean;
}

/** Units in ranks of ten; each is a card that leads to its bench, or to its record once sealed. */
export const Ranks = memo(function Ranks({ ranks, units, me, isClose }: RanksProps) {
  const prefix = commonPrefix(units);
  return (
    <>
      <ol className={classes['ranks']} data-close={isClose || undefined} onKeyDown={goBeside}>
        {ranks.map(({ number, units: rank, isWhole }) => (
          <li key={number} className={classes['rank']} data-whole={isWhole}>
            <span className={classes['number']} aria-label={`Rank ${number}`}>
              {number}
            </span>
            <ol className={classes['units']}>
              {rank.map((unit) => (
                <li key={unit.id}>
                  {isClose ? (
                    <UnitTab unit={unit} me={me} />
                  ) : (
                    <UnitCard unit={unit} shortSerial={unit.serial.slice(prefix)} me={me} />
                  )}
                </li>
              ))}
            </ol>
          </li>
        ))}
      </ol>
      {isClose ? (
        <ul className={classes['legend']} aria-label="What the marks mean">
          <li data-sign="✓">sealed</li>
          <li data-sign="4">begun, at this step</li>
          <li data-sign="!">held</li>
        </ul>
      ) : (
        <ul className={classes['legend']} aria-label="What the marks mean">
          <li data-mark="d">step done</li>
          <li data-mark="l">left out</li>
          <li data-mark="n">begun, at this step</li>
          <li data-mark="h">held at this step</li>
          <li data-mark="t">to do</li>
          <li data-mark="x">not part of the visit</li>
        </ul>
      )}
    </>
  );
});

const BESIDE: Readonly<Record<string, readonly [ranks: number, units: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** Arrows go from unit to unit as they stand: along a rank, and to the same place of the rank above or below. */
function goBeside(event: KeyboardEvent<HTMLElement>): void {
  const by = BESIDE[event.key];
  if (!by || event.ctrlKey || event.altKey || event.metaKey) return;
  const ranks = [...event.currentTarget.children].map((rank) => [...rank.querySelectorAll('a')]);
  const at = ranks.findIndex((units) => units.some((unit) => unit === event.target));
  const place = ranks[at]?.findIndex((unit) => unit === event.target) ?? -1;
  if (place < 0) return;
  event.preventDefault();
  const rank = ranks[at + by[0]];
  (by[0] === 0 ? rank?.[place + by[1]] : (rank?.[place] ?? rank?.at(-1)))?.focus();
}

/** What is out stands in the ledger; everything else has a next step on the bench, handing over among them. */
const placeOf = (unit: LineUnit): string =>
  unit.status === 'sealed' && unit.handedTo !== null && unit.visitId !== null
    ? `/ledger/${unit.visitId}`
    : `/bench/${unit.id}`;

const nameOf = (unit: LineUnit, me: string): string =>
  `${unit.serial}, ${typeOf(unit)}, ${says(unit)}${unit.status === 'open' ? `, ${whoAndWhere(unit, me)}` : ''}`;

/** A unit in the close setting: the end of its serial, and a sign for how it stands. */
const UnitTab = memo(function UnitTab({ unit, me }: { readonly unit: LineUnit; readonly me: string }) {
  const name = nameOf(unit, me);
  return (
    <Link to={placeOf(unit)} className={classes['tab']} data-status={unit.status} aria-label={name} title={name}>
      {unit.serial.slice(-TAIL)}
      <i aria-hidden="true">{signOf(unit)}</i>
    </Link>
  );
});

function signOf({ status, step, waits }: LineUnit): string {
  if (status === 'sealed') return '✓';
  if (waits !== null) return '…';
  if (status === 'held') return '!';
  return status === 'open' && step !== null ? String(STEPS.findIndex(({ id }) => id === step) + 1) : '';
}

const UnitCard = memo(function UnitCard({
  unit,
  shortSerial,
  me,
}: {
  readonly unit: LineUnit;
  readonly shortSerial: string;
  readonly me: string;
}) {
  return (
    <Link
      to={placeOf(unit)}
      className={classes['card']}
      data-status={unit.status}
      aria-label={nameOf(unit, me)}
      title={unit.serial}
    >
      <span className={classes['serial']} data-long={shortSerial.length > 7}>
        {telling(shortSerial)}
      </span>
      <span className={classes['type']}>{unit.status === 'open' ? whoAndWhere(unit, me) : typeOf(unit)}</span>
      <span className={classes['says']}>{says(unit)}</span>
      <StepLadderMarks ladder={unit.ladder} />
    </Link>
  );
});

const typeOf = ({ isSpare, typeName }: LineUnit): string => (isSpare ? `Spare, ${typeName}` : typeName);

/** Serials differ at their ends: of one too long for its card the end is shown, the whole stands in its name. */
const telling = (serial: string): string => (serial.length > MOST_SHOWN ? `…${serial.slice(1 - MOST_SHOWN)}` : serial);

function says(unit: LineUnit): string {
  if (unit.status === 'waiting') return unit.handedTo === null ? 'Waiting' : 'To be called back';
  if (unit.status === 'sealed') return sealedSays(unit);
  if (unit.status === 'held') return `Held · ${(unit.heldReason ?? '').toLowerCase()}`;
  if (unit.waits !== null) return `Waits${unit.waitsUntil === null ? '' : ` to ${whenClock(unit.waitsUntil)}`}`;
  return unit.step === null ? '' : stepTitle(unit.step);
}

function sealedSays({ isSpare, handedTo, stored }: LineUnit): string {
  if (handedTo !== null) return isSpare ? `On ${handedTo}` : `Out · ${handedTo}`;
  if (isSpare) return 'Spare, ready';
  return stored === null ? 'Sealed' : 'In storage';
}

const whoAndWhere = (unit: LineUnit, me: string): string => {
  const who = unit.worker === me ? 'you' : (unit.worker ?? '').split(' ')[0];
  return unit.station ? `${who} · ${unit.station}` : `${who}`;
};

/** How many leading characters all serials share, up to and with the last hyphen, so that cards show what differs. */
function commonPrefix(units: readonly LineUnit[]): number {
  const first = units[0]?.serial ?? '';
  let shared = first.length;
  for (const { serial } of units) {
    while (shared > 0 && !serial.startsWith(first.slice(0, shared))) shared--;
  }
  return units.length < 2 ? 0 : first.slice(0, shared).lastIndexOf('-') + 1;
}
