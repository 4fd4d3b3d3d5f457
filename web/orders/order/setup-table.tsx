import { IconLock } from '@tabler/icons-react';
import { Fragment, useMemo, useState } from 'react';
import {
  findCode,
  formatRaw,
  codeTitle,
  meaningBeside,
  modeMatrix,
  TRAIL_SOURCES,
  type Code,
  type CodeTarget,
  type DisplayMap,
  type Setup,
} from '@decurio/core';
import { ModeTable } from '../../ui/mode-table.js';
import classes from './setup-table.module.css';

export interface SetupTableProps {
  readonly setup: Setup;
  readonly map: DisplayMap;
}

/** Every code of a display with what it sets, what it is found at, its target and why; a target opens its trail. */
export function SetupTable({ setup, map }: SetupTableProps) {
  const [open, setOpen] = useState<string | null>(null);
  const matrix = useMemo(() => modeMatrix(map), [map]);
  const ofModes = new Set(matrix?.entries.flatMap(({ codes }) => codes.map((code) => code?.label)));
  const trailOf = (target: CodeTarget, code: Code, columns: number) => (
    <Trail
      target={target}
      code={code}
      columns={columns}
      after={setup.keyedAfter?.filter(({ label }) => label === target.label) ?? []}
    />
  );
  return (
    <div className={classes['scroll']} tabIndex={0} role="region" aria-label={`Setup of ${map.name}`}>
      {matrix && (
        <ModeTable
          matrix={matrix}
          targets={setup.targets}
          cell={(target, code) => (
            <span data-moves={target.raw !== null && target.raw !== code.factory} className={classes['cell']}>
              {target.raw !== null && target.raw !== code.factory && (
                <>
                  {formatRaw(code, code.factory)} <span aria-label="to">→</span>{' '}
                </>
              )}
              <TargetButton
                target={target}
                code={code}
                isOpen={open === target.label}
                onToggle={() => setOpen(open === target.label ? null : target.label)}
              />
            </span>
          )}
          under={(own) => {
            const target = own.find(({ label }) => label === open);
            const code = target && findCode(map, target.label);
            return target && code && trailOf(target, code, matrix.modes.length + 1);
          }}
        />
      )}
      <table className={classes['table']}>
        <thead>
          <tr className="cap">
            <th scope="col">Code</th>
            <th scope="col">Sets</th>
            <th scope="col">As found</th>
            <th scope="col">Target</th>
            <th scope="col">Why</th>
          </tr>
        </thead>
        <tbody>
          {setup.targets.map((target) => {
            const code = findCode(map, target.label);
            if (!code || ofModes.has(target.label)) return null;
            const isOpen = open === target.label;
            return (
              <Fragment key={target.label}>
                <Row
                  target={target}
                  code={code}
                  isOpen={isOpen}
                  onToggle={() => setOpen(isOpen ? null : target.label)}
                />
                {isOpen && trailOf(target, code, 4)}
              </Fragment>
            );
          })}
        </tbody>
      </table>
      <p className="soft">As found: as the maker delivers it, until a unit is read.</p>
    </div>
  );
}

interface RowProps {
  readonly target: CodeTarget;
  readonly code: Code;
  readonly isOpen: boolean;
  readonly onToggle: () => void;
}

function Row({ target, code, isOpen, onToggle }: RowProps) {
  const { label, raw } = target;
  const moves = raw !== null && raw !== code.factory;
  return (
    <tr data-open={isOpen} data-moves={moves}>
      <th scope="row">
        {label}
        {target.locked && <IconLock size={14} aria-label="locked" />}
      </th>
      <td>{codeTitle(code ?? target)}</td>
      <td className="num">
        {formatRaw(code, code.factory)} <small>{meaningBeside(code, code.factory)}</small>
      </td>
      <td className="num">
        <TargetButton target={target} code={code} isOpen={isOpen} onToggle={onToggle} />
      </td>
      <td>{target.because}</td>
    </tr>
  );
}

/** A target that opens how it came about. */
function TargetButton({ target, code, isOpen, onToggle }: RowProps) {
  const { label, raw } = target;
  return (
    <button
      type="button"
      className={classes['target']}
      aria-expanded={isOpen}
      onClick={onToggle}
      aria-label={`${label}: ${raw === null ? 'as found' : formatRaw(code, raw)}. How it came about`}
    >
      {raw === null ? (
        <span className={classes['asFound']}>{target.secret ? 'PIN' : 'as found'}</span>
      ) : (
        <>
          <b>{formatRaw(code, raw)}</b> <small>{meaningBeside(code, raw)}</small>
        </>
      )}
    </button>
  );
}

interface TrailProps {
  /** Of its table, beside the first. */
  readonly columns: number;
  readonly target: CodeTarget;
  readonly code: Code;
  readonly after: readonly { readonly after: string; readonly because: string }[];
}

const SOURCES = {
  measured: 'measured by us on a unit',
  makersPaper: "from the maker's paper",
  hearsay: 'hearsay',
} as const;
const EFFECTS = {
  acts: 'it acts',
  displayOnly: 'it scales what is shown',
  unverified: 'not verified that it acts',
} as const;

/** Which inputs led to a target, in order; what it rests on is marked. */
function Trail({ target, code, columns, after }: TrailProps) {
  const steps = target.trail ?? [];
  return (
    <tr className={classes['trail']}>
      <td />
      <td colSpan={columns}>
        {steps.length > 0 ? (
          <ol>
            {steps.map((step, i) => (
              <li key={i} data-decided={step.decided === true}>
                <span className={classes['from']}>{TRAIL_SOURCES[step.from]}</span>
                <span>
                  {step.says}
                  {step.decided && <em> decided</em>}
                </span>
              </li>
            ))}
          </ol>
        ) : (
          <p>{target.because}</p>
        )}
        <p className="soft">
          Meaning: {SOURCES[code.source]}; {EFFECTS[code.effect]}; acts{' '}
          {code.actsAfter === 'restart' ? 'after a restart' : 'at once'}.
          {code.keptIn === 'displayWhileAttached' && ' Kept by the display while it is attached.'}
          {code.keptIn === 'untilPackOut' && ' Lost when the pack comes out.'}
          {after.map((each) => ` Keyed after ${each.after}: ${each.because}.`)}
        </p>
      </td>
    </tr>
  );
}
