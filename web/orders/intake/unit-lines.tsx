import { NumberInput, Select, Textarea } from '@mantine/core';
import { mapTitle, type DisplayMap, type VehicleType } from '@decurio/core';
import { api } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import type { Promised } from '../promise/promise.js';
import { SetupGlance } from './setup-glance.js';
import classes from '../promise/order-form.module.css';

/** Units of one type as they are typed: serials scanned one after another, and how many are still to come. */
export interface UnitLine {
  readonly typeId: string | null;
  readonly mapId: string | null;
  readonly toCome: number;
  readonly serials: string;
}

export const EMPTY_LINE: UnitLine = { typeId: null, mapId: null, toCome: 0, serials: '' };

/** Serials in the order they were scanned: one a line, or with commas between. */
export const serialsOf = (text: string): readonly string[] =>
  text
    .split(/[\n,;]+/)
    .map((serial) => serial.trim())
    .filter((serial) => serial !== '');

export interface UnitLinesProps {
  readonly lines: readonly UnitLine[];
  readonly onChange: (lines: readonly UnitLine[]) => void;
  readonly promised: Promised;
  readonly slips: Readonly<Record<string, string>>;
  /** How many serials stand in the lines before, so that a slip finds its line. */
  readonly serialsBefore: (line: number) => number;
}

export function UnitLines({ lines, onChange, promised, slips, serialsBefore }: UnitLinesProps) {
  const types = (api.useLibraryQuery('vehicleType').data ?? []).map((entry) => entry.document as VehicleType);
  const maps = (api.useLibraryQuery('displayMap').data ?? []).map((entry) => entry.document as DisplayMap);
  const change = (i: number, part: Partial<UnitLine>) =>
    onChange(lines.map((line, at) => (at === i ? { ...line, ...part } : line)));
  return (
    <>
      {lines.map((line, i) => {
        const type = types.find((each) => each.id === line.typeId);
        const fitted = maps.filter((map) => type?.maps.includes(map.id));
        const serials = serialsOf(line.serials);
        const bad = serials.findIndex((_, at) => slips[`units.${serialsBefore(i) + at}.serial`] !== undefined);
        return (
          <div className={classes['line']} key={i} role="group" aria-label={type ? type.name : `Type ${i + 1}`}>
            <Select
              label="Type"
              data={types.map((each) => ({ value: each.id, label: each.name }))}
              value={line.typeId}
              onChange={(typeId) => change(i, { typeId, mapId: null })}
              searchable
              placeholder="choose"
            />
            <Select
              label="Display"
              data={fitted.map((map) => ({ value: map.id, label: mapTitle(map) }))}
              value={line.mapId}
              onChange={(mapId) => change(i, { mapId })}
              disabled={fitted.length < 2}
              placeholder={fitted.length < 2 ? (fitted[0] ? mapTitle(fitted[0]) : '') : 'told at check in'}
              clearable
            />
            <NumberInput
              data-scan-guard
              label="Still to come"
              value={line.toCome}
              onChange={(next) => change(i, { toCome: Number(next) || 0 })}
              min={0}
              max={50000}
              allowDecimal={false}
              allowNegative={false}
              hideControls
            />
            <Textarea
              label={`Serials, one a line${serials.length > 0 ? `: ${serials.length}` : ''}`}
              value={line.serials}
              onChange={(e) => change(i, { serials: e.target.value })}
              rows={Math.min(8, Math.max(2, serials.length + 1))}
              placeholder="scan one after another"
              error={bad === -1 ? undefined : `${serials[bad]}: ${slips[`units.${serialsBefore(i) + bad}.serial`]}`}
              spellCheck={false}
            />
            {lines.length > 1 && (
              <ActButton onAct={() => onChange(lines.filter((_, at) => at !== i))}>Take out</ActButton>
            )}
            {type && (
              <SetupGlance
                type={type}
                map={fitted.find((map) => map.id === line.mapId) ?? fitted[0]}
                promised={promised}
              />
            )}
          </div>
        );
      })}
      <div className={classes['acts']}>
        <ActButton onAct={() => onChange([...lines, EMPTY_LINE])}>Another type</ActButton>
      </div>
    </>
  );
}
