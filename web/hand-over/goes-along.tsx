import { Checkbox, TextInput } from '@mantine/core';
import { useState } from 'react';
import { withPoint, type HandoverData, type HandoverState, type Strokes } from '@decurio/core';
import type { PapersView } from '@decurio/contract';
import { shrinkPhoto, unreadablePhoto } from '../bench/photos/shrink-photo.js';
import { TakePhoto, Thumbnail } from '../bench/photos/take-photo.js';
import { api, asProblem, type ApiProblem } from '../state/api.js';
import { useDraft } from '../drafts/use-draft.js';
import { ActButton } from '../ui/act-button.js';
import { KeyButton } from '../ui/keys/key-button.js';
import { Notice } from '../ui/notice.js';
import { whenClock } from '../ui/when.js';
import type { Add } from './hand-over.js';
import { Signature, SignatureShown } from './signature.js';
import classes from './hand-over.module.css';

type LabelPhoto = NonNullable<HandoverData['labelFixed']['photo']>;

const PINS = { menu: 'Menu PIN', start: 'Start PIN' } as const;

/** What goes along, who was told what, and who received it. Once it is out nothing more is written here. */
export function GoesAlong({
  view,
  state,
  add,
  isBusy,
  problem,
  unitId,
  visitId,
}: {
  readonly view: PapersView;
  readonly state: HandoverState;
  readonly add: Add;
  readonly isBusy: boolean;
  readonly problem: ApiProblem | null;
  readonly unitId: string;
  readonly visitId: string;
}) {
  const draft = useDraft(`handOver.${visitId}`, {
    where: '',
    things: view.cameWith as readonly string[],
    more: '',
    shown: [] as readonly string[],
    menuTo: '',
    startTo: '',
    name: '',
    unsignedWhy: '',
    photo: null as LabelPhoto | null,
  });
  const [keepPhoto] = api.useKeepPhotoMutation();
  const [photoProblem, setPhotoProblem] = useState<string | null>(null);
  const { photo, where, things, more, shown, name, unsignedWhy } = draft.value;
  const [strokes, setStrokes] = useState<Strokes>([]);
  const [refuses, setRefuses] = useState(false);
  const told = { menu: draft.value.menuTo, start: draft.value.startTo };
  if (state.out)
    return (
      <section className={classes['along']} aria-label="Handed over">
        <Notice
          kind="done"
          title={`Handed over to ${state.out.to}`}
          says={`${withPoint(`At ${whenClock(state.out.at)}, by ${state.out.by}`)}${state.out.words === '' ? '' : withPoint(` Not signed: ${state.out.words}`)}`}
        />
        {state.out.strokes && <SignatureShown strokes={state.out.strokes} />}
        <Written state={state} />
        <p className="soft">A chain of its own, from the seal on. The sealed record stays as it is.</p>
      </section>
    );
  const allThings = [...things, ...(more.trim() === '' ? [] : [more.trim()])];
  /** What was ticked or typed and not written yet, before it is out. */
  const writeRest = async (): Promise<boolean> => {
    const label = { where: where.trim(), ...(photo ? { photo } : {}) };
    const isNew = state.label?.where !== label.where || state.label.photo?.photoId !== photo?.photoId;
    if (label.where !== '' && isNew && !(await add('labelFixed', label))) return false;
    if (
      allThings.length > 0 &&
      allThings.join() !== state.things.join() &&
      !(await add('wentAlong', { things: allThings }))
    )
      return false;
    for (const opens of view.pins)
      if (told[opens].trim() !== '' && !state.pins.some((pin) => pin.opens === opens && pin.to === told[opens].trim()))
        if (!(await add('pinTold', { opens, to: told[opens].trim() }))) return false;
    return shown.length === 0 || shown.join() === state.shown.join() || add('riderShown', { items: [...shown] });
  };
  const photograph = async (file: File) => {
    const jpeg = await shrinkPhoto(file);
    if (!jpeg) return setPhotoProblem(unreadablePhoto(file));
    const photoId = crypto.randomUUID();
    const kept = await keepPhoto({ unitId, visitId, photoId, jpeg });
    if (!kept.data) return setPhotoProblem(`${asProblem(kept.error)?.message ?? ''} Take it again.`.trim());
    setPhotoProblem(null);
    draft.change({ photo: { photoId, sha256: kept.data.sha256 } });
  };
  const handOver = async () => {
    if (!(await writeRest())) return;
    const done = refuses
      ? await add('unsigned', { name: name.trim(), words: unsignedWhy.trim() })
      : await add('received', {
          name: name.trim(),
          strokes: strokes.map((stroke) => stroke.map(([x, y]) => [x, y] as const)),
        });
    if (done) draft.forget();
  };
  const mayHandOver =
    view.isSealed && name.trim() !== '' && (refuses ? unsignedWhy.trim().length >= 3 : strokes.length > 0);
  const toggle = (list: readonly string[], one: string): readonly string[] =>
    list.includes(one) ? list.filter((each) => each !== one) : [...list, one];
  return (
    <form
      className={classes['along']}
      aria-label="What goes along"
      onSubmit={(event) => {
        event.preventDefault();
        if (mayHandOver) void handOver();
      }}
    >
      <h3 className="cap">What goes along</h3>
      <div className={classes['labelFixed']}>
        <TextInput
          label="Class label fixed"
          placeholder="Seat tube, seen from the left"
          value={where}
          onChange={(event) => draft.change({ where: event.target.value })}
          maxLength={80}
          data-scan-guard="words"
        />
        {photo && <Thumbnail photoId={photo.photoId} says="the label where it sits" />}
        <TakePhoto says="The label where it sits" isShort onFile={(file) => void photograph(file)} />
      </div>
      {photo && where.trim() === '' && <small>Say above where it sits: the photograph goes with that.</small>}
      {photoProblem !== null && <Notice kind="care" says={photoProblem} />}
      <fieldset>
        <legend>Things</legend>
        <div className={classes['things']}>
          {view.cameWith.map((thing) => (
            <Checkbox
              key={thing}
              label={thing}
              checked={things.includes(thing)}
              onChange={() => draft.change({ things: toggle(things, thing) })}
            />
          ))}
          <TextInput
            aria-label="Something else that goes along"
            placeholder="Something else"
            value={more}
            onChange={(event) => draft.change({ more: event.target.value })}
            maxLength={80}
            data-scan-guard="words"
          />
        </div>
      </fieldset>
      {view.pins.length > 0 && (
        <fieldset>
          <legend>Told to whom; the digits stand nowhere</legend>
          <div className={classes['pins']}>
            {view.pins.map((opens) => (
              <TextInput
                key={opens}
                aria-label={`${PINS[opens]} told to`}
                placeholder={PINS[opens]}
                value={told[opens]}
                onChange={(event) =>
                  draft.change(opens === 'menu' ? { menuTo: event.target.value } : { startTo: event.target.value })
                }
                maxLength={80}
                data-scan-guard="words"
              />
            ))}
          </div>
        </fieldset>
      )}
      <div className={classes['shownRow']}>
        <details className={classes['shown']}>
          <summary>
            Shown to the rider, {shown.length} of {view.toShow.length}
          </summary>
          <div>
            {view.toShow.map((item) => (
              <Checkbox
                key={item}
                label={item}
                checked={shown.includes(item)}
                onChange={() => draft.change({ shown: toggle(shown, item) })}
              />
            ))}
          </div>
        </details>
        {shown.length < view.toShow.length && (
          <button type="button" className={classes['all']} onClick={() => draft.change({ shown: view.toShow })}>
            All {view.toShow.length} shown
          </button>
        )}
      </div>
      <TextInput
        label="Received by"
        value={name}
        onChange={(event) => draft.change({ name: event.target.value })}
        maxLength={80}
        data-scan-guard="words"
      />
      {refuses ? (
        <TextInput
          label="Why it is not signed"
          value={unsignedWhy}
          onChange={(event) => draft.change({ unsignedWhy: event.target.value })}
          maxLength={300}
          data-scan-guard="words"
          autoFocus
        />
      ) : (
        <Signature onChange={setStrokes} />
      )}
      {problem && <Notice kind="stop" says={fieldsOf(problem)} />}
      <p className="soft">A chain of its own, from the seal on. The sealed record stays as it is.</p>
      <div className={classes['acts']}>
        <ActButton
          type="submit"
          look="main"
          hotkey="Enter"
          busy={isBusy}
          disabled={!mayHandOver}
          onAct={() => undefined}
        >
          Handed over
        </ActButton>
        <KeyButton hotkey="N" onAct={() => setRefuses(!refuses)}>
          {refuses ? 'It is signed' : 'Not signed'}
        </KeyButton>
      </div>
    </form>
  );
}

const fieldsOf = ({ message, fields = {} }: ApiProblem): string =>
  Object.values(fields).length > 0 ? Object.values(fields).join(' ') : message;

function Written({ state }: { readonly state: HandoverState }) {
  return (
    <dl className={classes['written']}>
      {state.label && (
        <div>
          <dt>Class label</dt>
          <dd>
            {state.label.where}
            {state.label.photo && <Thumbnail photoId={state.label.photo.photoId} says="the label where it sits" />}
          </dd>
        </div>
      )}
      {state.things.length > 0 && (
        <div>
          <dt>Went along</dt>
          <dd>{state.things.join(', ')}</dd>
        </div>
      )}
      {state.pins.map(({ opens, to }) => (
        <div key={`${opens} ${to}`}>
          <dt>{PINS[opens]} told to</dt>
          <dd>{to}</dd>
        </div>
      ))}
      {state.shown.length > 0 && (
        <div>
          <dt>Shown</dt>
          <dd>
            {state.shown.map((one) => (
              <div key={one}>{one}</div>
            ))}
          </dd>
        </div>
      )}
    </dl>
  );
}
