import { Select } from '@mantine/core';
import { useState } from 'react';
import {
  compareMaps,
  codeTitle,
  mapTitle,
  rangeWords,
  type Code,
  type CodeComparison,
  type DisplayMap,
} from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { api, asProblem } from '../../state/api.js';
import { Busy, Notice } from '../../ui/notice.js';
import { AgainstPaper } from './against-paper.js';
import page from '../library-page.module.css';
import classes from './displays.module.css';

const KINDS = { added: 'only right', removed: 'only left', changed: 'differs', same: 'same' } as const;

/** This map beside another one, or beside an earlier version of itself. */
export function CompareView({ entry }: { readonly entry: LibraryEntry<'displayMap'> }) {
  const all = api.useLibraryQuery('displayMap');
  const versions = api.useVersionsQuery({ kind: 'displayMap', id: entry.id });
  const others = (all.data ?? []).map((e) => e.document as DisplayMap).filter((map) => map.id !== entry.id);
  const kin = others.filter((map) => map.family !== undefined && map.family === entry.document.family);
  const [chosen, setChosen] = useState<string | null>(null);
  const earlier = versions.data?.filter((v) => v.version !== entry.version) ?? [];
  const first = kin[0] ?? others[0];
  const choice = chosen ?? (first ? `map ${first.id}` : null);
  const version = choice?.startsWith('version ') ? Number(choice.slice(8)) : null;
  const at = api.useAtVersionQuery(
    { kind: 'displayMap', id: entry.id, version: version ?? 0 },
    { skip: version === null },
  );
  const right =
    version === null ? others.find((map) => `map ${map.id}` === choice) : (at.data?.document as DisplayMap | undefined);
  const comparison = right ? compareMaps(entry.document, right) : null;
  const problem = asProblem(all.error ?? versions.error ?? at.error);
  if (problem)
    return (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void versions.refetch() }} />
    );
  if (!all.data || !versions.data) return <Busy />;
  if (choice === null && earlier.length === 0) return <AgainstPaper map={entry.document} />;
  return (
    <>
      <Select
        label="Held against"
        className={classes['narrow'] ?? ''}
        allowDeselect={false}
        searchable
        value={choice}
        onChange={setChosen}
        data={[
          { group: 'Looks alike', items: kin.map((map) => ({ value: `map ${map.id}`, label: mapTitle(map) })) },
          {
            group: 'Earlier versions',
            items: earlier.map((v) => ({ value: `version ${v.version}`, label: `Version ${v.version} of this map` })),
          },
          {
            group: 'Other displays',
            items: others
              .filter((map) => !kin.includes(map))
              .map((map) => ({ value: `map ${map.id}`, label: mapTitle(map) })),
          },
        ].filter((group) => group.items.length > 0)}
      />
      {comparison && right ? (
        <Comparison left={entry.document} right={right} codes={comparison.codes} parts={comparison.parts} />
      ) : (
        <Busy />
      )}
      <AgainstPaper map={entry.document} />
    </>
  );
}

interface ComparisonProps {
  readonly left: DisplayMap;
  readonly right: DisplayMap;
  readonly codes: readonly CodeComparison[];
  readonly parts: readonly string[];
}

const PART_WORDS: Readonly<Record<string, string>> = {
  keys: 'its keys',
  power: 'power',
  ride: 'levels and modes',
  menu: 'how the menu works',
  instructions: 'the instructions',
  restart: 'the restart',
  dangers: 'what starts the motor',
  icons: 'icons',
  speed: 'how speed is shown',
};

function Comparison({ left, right, codes, parts }: ComparisonProps) {
  const differing = codes.filter((code) => code.kind !== 'same');
  return (
    <>
      <p>
        {differing.length === 0 ? 'All codes are the same' : `${differing.length} of ${codes.length} codes differ`}
        {parts.length > 0 ? `; besides ${parts.map((part) => PART_WORDS[part] ?? part).join(', ')}.` : '.'}
      </p>
      <table className={`${page['table']} ${classes['compare']}`} aria-label="Codes side by side">
        <thead>
          <tr className="cap">
            <th scope="col">Code</th>
            <th scope="col">{mapTitle(left)}</th>
            <th scope="col">{left.id === right.id ? 'The other version' : mapTitle(right)}</th>
          </tr>
        </thead>
        <tbody>
          {codes.map((code) => (
            <tr key={code.label} data-kind={code.kind}>
              <th scope="row">
                {code.label}
                <small>{KINDS[code.kind]}</small>
              </th>
              {code.kind === 'changed' ? (
                <>
                  <td>
                    {code.changes.map((change) => (
                      <Aspect key={change.aspect} name={change.aspect} says={change.left} />
                    ))}
                  </td>
                  <td>
                    {code.changes.map((change) => (
                      <Aspect key={change.aspect} name={change.aspect} says={change.right} />
                    ))}
                  </td>
                </>
              ) : (
                <>
                  <td>{code.left ? brief(code.left) : '–'}</td>
                  <td>{code.right ? brief(code.right) : '–'}</td>
                </>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const ASPECTS = {
  function: 'sets',
  range: 'range',
  meaning: 'meaning',
  factory: 'delivered at',
  access: 'access',
  behaviour: 'acts',
  source: 'known from',
} as const;

const Aspect = ({ name, says }: { readonly name: keyof typeof ASPECTS; readonly says: string }) => (
  <p>
    <span className="soft">{ASPECTS[name]}</span> {says}
  </p>
);

const brief = (code: Code): string => `${codeTitle(code)}, ${rangeWords(code)}`;
