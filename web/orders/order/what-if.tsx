import { Select } from '@mantine/core';
import { useMemo, useState } from 'react';
import {
  compileSetup,
  findCode,
  formatRaw,
  codeTitle,
  meaningBeside,
  type DisplayMap,
  type Finding,
  type Setup,
  type SetupInputs,
  type Speed,
} from '@decurio/core';
import { SpeedField } from '../../ui/fields.js';
import { FindingList } from '../../ui/finding-list.js';
import type { GroupSetup, OrderSetups } from './use-order-setups.js';
import classes from './what-if.module.css';

interface Change {
  readonly classId: string | null;
  readonly houseRulesId: string | null;
  readonly siteLimit: Speed | null;
  readonly units: 'kmh' | 'mph' | null;
}
const NO_CHANGE: Change = { classId: null, houseRulesId: null, siteLimit: null, units: null };

/** What would be otherwise under another class, site limit, house rules or units, side by side with what stands. Nothing is changed. */
export function WhatIf({ group, setups }: { readonly group: GroupSetup; readonly setups: OrderSetups }) {
  const [change, setChange] = useState(NO_CHANGE);
  const then = useMemo(() => compileSetup(changed(group.inputs, change, setups)), [group, change, setups]);
  const isAsked = Object.values(change).some((value) => value !== null);
  const unit = group.inputs.vehicleClass.limit?.unit ?? 'km/h';
  return (
    <section className={classes['whatIf']} aria-label="What would change if">
      <h2>What would change if</h2>
      <div className={classes['asks']}>
        <Select
          label="it went out in the class"
          data={setups.pack.classes
            .filter((each) => each.kind === 'any' || each.kind === group.type.kind)
            .map((each) => ({ value: each.id, label: each.title }))}
          value={change.classId}
          onChange={(classId) => setChange({ ...change, classId })}
          clearable
          placeholder={group.inputs.vehicleClass.title}
        />
        <SpeedField
          label="the site allowed"
          value={change.siteLimit}
          onChange={(siteLimit) => setChange({ ...change, siteLimit })}
          unit={unit}
        />
        <Select
          label="units showed"
          data={[
            { value: 'kmh', label: 'km/h' },
            { value: 'mph', label: 'mph' },
          ]}
          value={change.units}
          onChange={(units) => setChange({ ...change, units: units as Change['units'] })}
          clearable
          placeholder={group.inputs.houseRules.choices.units === 'kmh' ? 'km/h' : 'mph'}
        />
        <Select
          label="these house rules held"
          data={setups.houseRules.map((each) => ({ value: each.id, label: each.name }))}
          value={change.houseRulesId}
          onChange={(houseRulesId) => setChange({ ...change, houseRulesId })}
          clearable
          placeholder={group.inputs.houseRules.name}
        />
      </div>
      {isAsked && <Difference map={group.map} now={group.setup} then={then} />}
    </section>
  );
}

function changed(
  inputs: SetupInputs,
  { classId, houseRulesId, siteLimit, units }: Change,
  { pack, houseRules }: OrderSetups,
): SetupInputs {
  const rules = houseRules.find((each) => each.id === houseRulesId) ?? inputs.houseRules;
  return {
    ...inputs,
    vehicleClass: pack.classes.find((each) => each.id === classId) ?? inputs.vehicleClass,
    houseRules: units === null ? rules : { ...rules, choices: { ...rules.choices, units } },
    terms: siteLimit !== null && siteLimit.value > 0 ? { ...inputs.terms, siteLimit } : inputs.terms,
  };
}

function Difference({ map, now, then }: { readonly map: DisplayMap; readonly now: Setup; readonly then: Setup }) {
  const rows = then.targets.filter((target, i) => target.raw !== now.targets[i]?.raw);
  const isNew = (finding: Finding) =>
    !now.findings.some((each) => each.id === finding.id && each.says === finding.says);
  const gone = now.findings.filter(
    (finding) => !then.findings.some((each) => each.id === finding.id && each.says === finding.says),
  );
  return (
    <div aria-live="polite" className={classes['difference']}>
      <p>
        <strong>
          {rows.length === 0
            ? 'No code would be other.'
            : rows.length === 1
              ? 'One code would be other.'
              : `${rows.length} codes would be other.`}
        </strong>{' '}
        {then.worst?.says}
      </p>
      {rows.length > 0 && (
        <div className={classes['scroll']} tabIndex={0} role="region" aria-label="Codes that would be other">
          <table>
            <thead>
              <tr className="cap">
                <th scope="col">Code</th>
                <th scope="col">Sets</th>
                <th scope="col">As promised</th>
                <th scope="col">It would be</th>
                <th scope="col">Why</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((target) => {
                const code = findCode(map, target.label);
                const before = now.targets.find(({ label }) => label === target.label)?.raw ?? null;
                const show = (raw: number | null) =>
                  raw === null || !code ? 'as found' : `${formatRaw(code, raw)} ${meaningBeside(code, raw)}`;
                return (
                  <tr key={target.label}>
                    <th scope="row">{target.label}</th>
                    <td>{codeTitle(code ?? target)}</td>
                    <td className="num">{show(before)}</td>
                    <td className="num">
                      <b>{show(target.raw)}</b>
                    </td>
                    <td>{target.because}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </div>
      )}
      <FindingList findings={then.findings.filter(isNew)} />
      {gone.length > 0 && <p className="soft">No longer: {gone.map(({ says }) => says).join(' ')}</p>}
    </div>
  );
}
