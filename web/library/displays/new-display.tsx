import { TextInput } from '@mantine/core';
import { lazy, Suspense, useState } from 'react';
import {
  blankMap,
  draftMap,
  hold,
  idFrom,
  parseDisplayMap,
  shortened,
  tap,
  type Code,
  type DisplayMap,
  type Problem,
} from '@decurio/core';
import { ActButton } from '../../ui/act-button.js';
import { Busy, Notice } from '../../ui/notice.js';
import { CaptureView } from './capture-view.js';
import { FileInput } from '../../ui/file-input.js';
import { readTable } from './read-table.js';
import classes from './displays.module.css';

const MapEditor = lazy(() => import('./map-editor.js').then((m) => ({ default: m.MapEditor })));

type Begun = { readonly map: DisplayMap; readonly says: string; readonly left: readonly Problem[] };

/** Ways to a new map: from a live unit, from a file of this format, from a flat table. */
export function NewDisplay({ taken }: { readonly taken: readonly string[] }) {
  const [begun, setBegun] = useState<Begun | null>(null);
  const [isCapturing, setCapturing] = useState(false);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const begin = (map: DisplayMap, says: string, left: readonly Problem[] = []) => {
    setProblems([]);
    setBegun({ map: taken.includes(map.id) ? { ...map, id: freeId(map.id, taken) } : map, says, left });
  };
  if (begun) {
    return (
      <>
        <h1>New display</h1>
        <p>{begun.says}</p>
        {begun.left.length > 0 && (
          <Notice
            kind="care"
            title={`${begun.left.length} rows were left out`}
            says={begun.left
              .slice(0, 6)
              .map((p) => `${p.path}: ${p.message}`)
              .join(' ')}
          />
        )}
        <Suspense fallback={<Busy />}>
          <MapEditor start={begun.map} isNew taken={taken} />
        </Suspense>
      </>
    );
  }
  if (isCapturing)
    return (
      <CaptureView
        onCancel={() => setCapturing(false)}
        onDraft={(map) =>
          begin(
            map,
            'The draft of what you walked. Say what each code does as far as it is known; all others are left alone.',
          )
        }
      />
    );
  return (
    <>
      <h1>New display</h1>
      <p>
        However it begins, a map is a draft first. A second person holds it against a real unit before anything leaves
        under it.
      </p>
      {problems.length > 0 && (
        <Notice kind="stop" title="This file cannot be used as it is" says={problems.slice(0, 5).join(' ')} />
      )}
      <div className={classes['ways']}>
        <section className={classes['way']}>
          <h2>Capture a live unit</h2>
          <p>
            Walk its menu once and note what it shows. Makes a draft of every code, and measures how long the menu stays
            open.
          </p>
          <ActButton look="main" onAct={() => setCapturing(true)}>
            Begin a capture
          </ActButton>
        </section>
        <section className={classes['way']}>
          <h2>Write it from a paper</h2>
          <p>Its keys, how its menu is moved through, and a line for each entry. Half a page for a small display.</p>
          <ActButton
            onAct={() => begin(blankMap(), 'Name it, say what one tells it by, and type one entry after another.')}
          >
            Begin in fields
          </ActButton>
        </section>
        <section className={classes['way']}>
          <h2>Bring in a map</h2>
          <p>A JSON file in the format decurio-display-map/2 or /1, as another house exported it.</p>
          <FileInput
            label="Bring in a map"
            accept=".json,application/json"
            onText={(name, text) => readJson(name, text, begin, setProblems)}
          />
        </section>
        <FromTable onTable={(name, text) => beginFromTable(name, text, begin, setProblems)} />
      </div>
    </>
  );
}

function freeId(id: string, taken: readonly string[]): string {
  for (let n = 2; ; n++) if (!taken.includes(`${id}-${n}`)) return `${id}-${n}`;
}

type Begin = (map: DisplayMap, says: string, left?: readonly Problem[]) => void;

function readJson(name: string, text: string, begin: Begin, fail: (problems: readonly string[]) => void): void {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return fail([`${name} is not JSON. Export the map again, or open it in a text editor.`]);
  }
  const parsed = parseDisplayMap(data);
  if (!parsed.ok) return fail(parsed.problems.map((p) => `${p.path}: ${p.message}`));
  begin(
    { ...parsed.map, confirmed: null },
    'The map as it came. Whoever confirmed it elsewhere does not confirm it here.',
  );
}

function beginFromTable(name: string, text: string, begin: Begin, fail: (problems: readonly string[]) => void): void {
  const read = readTable(name, text);
  if (!read.ok) return fail([read.says]);
  const { codes, problems } = read.table;
  begin(
    skeleton(name.replace(/\.[a-z]+$/i, ''), codes),
    `${codes.length} codes from the table. Now say how this display is opened, walked and left: what stands there is a guess.`,
    problems,
  );
}

/** A map that holds together around these codes; how it is handled is a guess that a person replaces. */
function skeleton(name: string, codes: readonly Code[]): DisplayMap {
  const map = draftMap({
    name: shortened(name, 60) || 'New display',
    revision: '?',
    serial: '?',
    firmware: '?',
    keys: [
      { id: 'set', label: 'set' },
      { id: 'up', label: '+' },
      { id: 'down', label: '−' },
    ],
    power: { first: 'Switch the pack on.', on: hold(1500, 'set'), off: hold(2500, 'set') },
    open: hold(2000, 'up', 'down'),
    close: hold(1500, 'set'),
    next: tap('up'),
    previous: tap('down'),
    afterLast: 'wrap',
    edit: { style: 'focus', select: tap('set'), up: tap('up'), down: tap('down') },
    store: 'endOfEdit',
    idleMs: 8_000,
    keepsUnstored: false,
    codes: [],
  });
  const items = codes.map(({ label }) => ({ code: label }));
  return {
    ...map,
    id: idFrom(name),
    codes,
    tellBy: `${codes.length} codes.`,
    notes: 'From a flat table; how the display is handled has not been seen.',
    menu: map.menu && { ...map.menu, pages: [{ id: 'main', title: 'Menu', items }] },
  };
}

function FromTable({ onTable }: { readonly onTable: (name: string, text: string) => void }) {
  const [name, setName] = useState('');
  return (
    <section className={classes['way']}>
      <h2>Start from a table</h2>
      <p>
        CSV with the columns code, min, max and, where known, function, step, factory, unit, access, values (as 0=off
        1=on), note.
      </p>
      <TextInput label="Name of the display" value={name} onChange={(e) => setName(e.target.value)} maxLength={60} />
      <FileInput
        label="Table of codes"
        accept=".csv,text/csv"
        onText={(file, text) => onTable(name.trim() === '' ? file : name.trim(), text)}
      />
    </section>
  );
}
