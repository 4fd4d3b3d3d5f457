import { json } from '@codemirror/lang-json';
import { linter, lintGutter, type Diagnostic } from '@codemirror/lint';
import CodeMirror, { EditorView, type ReactCodeMirrorRef } from '@uiw/react-codemirror';
import { SegmentedControl } from '@mantine/core';
import { useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { isKeyed, mapTitle, parseDisplayMap, type DisplayMap, type ParsedMap } from '@decurio/core';
import { api, asProblem } from '../../state/api.js';
import { ActButton } from '../../ui/act-button.js';
import { Begun } from '../../drafts/begun.js';
import { useDraft } from '../../drafts/use-draft.js';
import { Handlebar } from '../../ui/handlebar/handlebar.js';
import { useHandlebar } from '../../ui/handlebar/use-handlebar.js';
import { Notice } from '../../ui/notice.js';
import { placeOf } from './json-places.js';
import { MapForm } from './map-form/map-form.js';
import { mapText as asText, writtenText } from './map-text.js';
import classes from './displays.module.css';

export interface MapEditorProps {
  readonly start: DisplayMap;
  /** Not in the library yet. */
  readonly isNew: boolean;
  /** Ids of displays that are in the library: a new one cannot have them. */
  readonly taken?: readonly string[];
}

type Side = 'form' | 'text';

/** A map in fields or as text, either way round, checked with every letter, and beside it the display that it makes. */
export function MapEditor({ start, isNew, taken = NONE }: MapEditorProps) {
  const draft = useDraft(`map.${start.id}`, { text: asText(start) });
  // The editor keeps its own text once it is begun; beginning anew is the only way in from outside.
  const [begun, setBegun] = useState({ text: draft.value.text, round: 1 });
  const { text } = draft.value;
  const [side, setSide] = useState<Side>('form');
  const [save, saving] = api.useAddDocumentMutation();
  const navigate = useNavigate();
  const editor = useRef<ReactCodeMirrorRef>(null);
  const parsed = useMemo(() => withIdOfItsOwn(parseText(text), taken), [text, taken]);
  const [lastSound, setLastSound] = useState<DisplayMap>(start);
  const isChanged = text !== asText(start);

  const change = (next: string) => {
    draft.change({ text: next });
    const now = parseText(next);
    if (now.ok) setLastSound(now.map);
  };
  const submit = async () => {
    if (!parsed.ok) return;
    const answer = await save({ kind: 'displayMap', document: { ...parsed.map, confirmed: null } });
    if (!answer.data) return;
    draft.forget();
    void navigate(`/library/displayMap/${parsed.map.id}/versions`);
  };
  const startOver = () => {
    draft.startAfresh();
    setBegun(({ round }) => ({ text: asText(start), round: round + 1 }));
  };
  const turnTo = (next: Side) => {
    setBegun(({ round }) => ({ text, round: round + 1 }));
    setSide(next);
  };
  const goTo = (path: string) => {
    if (side === 'form') {
      awaited.current = path;
      turnTo('text');
      return;
    }
    if (editor.current?.view) show(editor.current.view, text, path);
  };
  /** Where the text is to be shown once it stands there. */
  const awaited = useRef<string | null>(null);
  const written = useMemo(() => writtenIn(text), [text]);
  const problem = asProblem(saving.error);

  return (
    <div className={classes['editor']}>
      <div className={classes['view']}>
        <Begun draft={{ begunAt: draft.begunAt, startAfresh: startOver }} />
        <SegmentedControl
          className={classes['side']}
          aria-label="How it is written"
          value={side}
          onChange={(next) => turnTo(next as Side)}
          data={[
            { value: 'form', label: 'In fields' },
            { value: 'text', label: 'As text' },
          ]}
        />
        {side === 'form' && written !== undefined && (
          <MapForm
            key={begun.round}
            written={written}
            problems={parsed.ok ? [] : parsed.problems}
            isNew={isNew}
            onChange={(next) => change(writtenText(next))}
          />
        )}
        {side === 'form' && written === undefined && (
          <Notice kind="care" says="The text is no JSON as it stands. Mend it there; nothing in it is lost." />
        )}
        {side === 'text' && (
          <div className={classes['text']}>
            <CodeMirror
              key={begun.round}
              ref={editor}
              value={begun.text}
              onChange={change}
              onCreateEditor={(view) => {
                const path = awaited.current;
                awaited.current = null;
                if (path !== null) show(view, text, path);
              }}
              height="calc(100vh - 380px)"
              minHeight="320px"
              extensions={EXTENSIONS}
            />
          </div>
        )}
      </div>
      <aside className={classes['beside']} aria-label="The display it makes" data-follows>
        {parsed.ok ? (
          <Notice
            kind="done"
            says={`${mapTitle(parsed.map)}: ${parsed.map.codes.length} ${parsed.map.codes.length === 1 ? 'code' : 'codes'}, and all of it hangs together.`}
          />
        ) : (
          <Problems parsed={parsed} onGo={goTo} />
        )}
        <div className={classes['acts']}>
          <ActButton
            look="main"
            disabled={!parsed.ok || (!isChanged && !isNew)}
            busy={saving.isLoading}
            onAct={() => void submit()}
          >
            {isNew ? 'Keep as a draft' : 'Keep as a new version'}
          </ActButton>
          <ActButton disabled={!isChanged} onAct={startOver}>
            Start over
          </ActButton>
          <span className="soft">
            {isNew
              ? 'A draft is confirmed by a second person before anything leaves under it.'
              : 'The version in use stays as it is. A new one is a draft until a second person confirms it.'}
          </span>
        </div>
        {problem && (
          <Notice kind="stop" says={problem.fields ? Object.values(problem.fields).join(' ') : problem.message} />
        )}
        <Live map={parsed.ok ? parsed.map : lastSound} isStale={!parsed.ok} />
      </aside>
    </div>
  );
}

/** Marks what a path names, and brings it in sight. */
function show(view: EditorView, text: string, path: string): void {
  const { from, to } = placeOf(text, path);
  view.dispatch({
    selection: { anchor: from, head: to },
    effects: EditorView.scrollIntoView(from, { y: 'center' }),
  });
  view.focus();
}

/** The map as the text has it; undefined where it is no JSON of a map. */
function writtenIn(text: string): unknown {
  try {
    const written: unknown = JSON.parse(text);
    return typeof written === 'object' && written !== null && !Array.isArray(written) ? written : undefined;
  } catch {
    return undefined;
  }
}

function parseText(text: string): ParsedMap {
  try {
    return parseDisplayMap(JSON.parse(text) as unknown);
  } catch (error) {
    return {
      ok: false,
      problems: [
        {
          code: 'notJson',
          path: '',
          message: `This is no JSON yet: ${error instanceof Error ? error.message : 'it ends too early'}.`,
        },
      ],
    };
  }
}

const NONE: readonly string[] = [];

/** A new display under the id of another would become a version of that one. */
function withIdOfItsOwn(parsed: ParsedMap, taken: readonly string[]): ParsedMap {
  if (!parsed.ok || !taken.includes(parsed.map.id)) return parsed;
  const message = `Another display stands in the library as ${parsed.map.id}. Choose an id of its own, or open that display and keep a new version of it.`;
  return { ok: false, problems: [{ code: 'taken', path: 'id', message }] };
}

const underlines = linter((view): Diagnostic[] => {
  const text = view.state.doc.toString();
  const parsed = parseText(text);
  return parsed.ok
    ? []
    : parsed.problems.map(({ path, message }) => ({ ...placeOf(text, path ?? ''), severity: 'error', message }));
});

const EXTENSIONS = [
  EditorView.contentAttributes.of({ 'aria-label': 'The map as text. Escape, then Tab, leaves it.' }),
  json(),
  lintGutter(),
  underlines,
  EditorView.lineWrapping,
  EditorView.theme({ '&': { fontSize: '14px' }, '.cm-content': { fontFamily: 'var(--code)' } }),
];

function Problems({
  parsed,
  onGo,
}: {
  readonly parsed: ParsedMap & { readonly ok: false };
  readonly onGo: (path: string) => void;
}) {
  return (
    <section aria-label="Problems" aria-live="polite">
      <h2 className="cap">
        {parsed.problems.length} {parsed.problems.length === 1 ? 'problem' : 'problems'}
      </h2>
      <ul className={classes['problems']}>
        {parsed.problems.map(({ path = '', message }, i) => (
          <li key={i}>
            <button type="button" onClick={() => onGo(path)}>
              {path !== '' && <code>{path}</code>}
              {message}
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The display as the text last described it soundly; laid anew whenever that changes. */
function Live({ map, isStale }: { readonly map: DisplayMap; readonly isStale: boolean }) {
  if (!isKeyed(map)) return null;
  return (
    <section aria-label="Live display">
      {isStale && <p className="soft">The display below still runs the last sound text.</p>}
      <LiveDisplay key={JSON.stringify(map)} map={map} />
    </section>
  );
}

function LiveDisplay({ map }: { readonly map: DisplayMap }) {
  const bar = useHandlebar(map);
  return <Handlebar map={map} bar={bar} keyboard="on" />;
}
