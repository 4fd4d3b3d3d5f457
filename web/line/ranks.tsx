import { memo } from 'react';
import { Link } from 'react-router';
import { stepTitle } from '@decurio/core';
import type { LineUnit } from '@decurio/contract';
import { StepLadderMarks } from '../ui/step-ladder-marks.js';
import classes from './ranks.module.css';

const RANK = 10;
const MOST_SHOWN = 18;

/** Units in ranks of ten; each is a card that leads to its bench, or to its record once sealed. */
export const Ranks = memo(function Ranks({ units, me }: { readonly units: readonly LineUnit[]; readonly me: string }) {
  const prefix = commonPrefix(units);
  const ranks = Array.from({ length: Math.ceil(units.length / RANK) }, (_, i) => units.slice(i * RANK, (i + 1) * RANK));
  return (
    <>
      <ol className={classes['ranks']}>
        {ranks.map((rank, i) => (
          <li key={rank[0]?.id} className={classes['rank']} data-whole={rank.every((unit) => unit.status === 'sealed')}>
            <span className={classes['number']} aria-label={`Rank ${i + 1}`}>
              {i + 1}
            </span>
            <ol className={classes['units']}>
              {rank.map((unit) => (
                <li key={unit.id}>
                  <UnitCard unit={unit} shortSerial={unit.serial.slice(prefix)} me={me} />
                </li>
              ))}
            </ol>
          </li>
        ))}
      </ol>
      <ul className={classes['legend']} aria-label="What the marks mean">
        <li data-mark="d">step done</li>
        <li data-mark="n">begun, at this step</li>
        <li data-mark="h">held at this step</li>
        <li data-mark="t">to do</li>
        <li data-mark="x">not part of the visit</li>
      </ul>
    </>
  );
});

const UnitCard = memo(function UnitCard({
  unit,
  shortSerial,
  me,
}: {
  readonly unit: LineUnit;
  readonly shortSerial: string;
  readonly me: string;
}) {
  const to = unit.status === 'sealed' && unit.visitId !== null ? `/ledger/${unit.visitId}` : `/bench/${unit.id}`;
  return (
    <Link
      to={to}
      className={classes['card']}
      data-status={unit.status}
      aria-label={`${unit.serial}, ${unit.typeName}, ${says(unit)}${unit.status === 'open' ? `, ${whoAndWhere(unit, me)}` : ''}`}
      title={unit.serial}
    >
      <span className={classes['serial']} data-long={shortSerial.length > 7}>
        {telling(shortSerial)}
      </span>
      <span className={classes['type']}>{unit.status === 'open' ? whoAndWhere(unit, me) : unit.typeName}</span>
      <span className={classes['says']}>{says(unit)}</span>
      <StepLadderMarks ladder={unit.ladder} />
    </Link>
  );
});

/** Serials differ at their ends: of one too long for its card the end is shown, the whole stands in its name. */
const telling = (serial: string): string => (serial.length > MOST_SHOWN ? `…${serial.slice(1 - MOST_SHOWN)}` : serial);

function says(unit: LineUnit): string {
  if (unit.status === 'waiting') return 'Waiting';
  if (unit.status === 'sealed') return 'Sealed';
  if (unit.status === 'held') return `Held · ${(unit.heldReason ?? '').toLowerCase()}`;
  return unit.step === null ? '' : stepTitle(unit.step);
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
