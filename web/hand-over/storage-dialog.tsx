import { STORAGE_ACTS, STORAGE_DAYS, storageAdvice, type HandoverState, type LabelledPack } from '@decurio/core';
import { useDraft } from '../drafts/use-draft.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { FigureField } from '../ui/figure-field.js';
import { Notice } from '../ui/notice.js';
import { whenDay } from '../ui/when.js';
import type { Add } from './hand-over.js';
import classes from './storage-dialog.module.css';

const KINDS = { store: 'done', charge: 'care', use: 'care', measureCharge: 'care', stop: 'stop' } as const;

/** A unit that stands for more than a few weeks: its pack by meter as it is put away, every month, and as it comes out. */
export function StorageDialog({
  visitId,
  pack,
  storage,
  add,
  problem,
  onClose,
}: {
  readonly visitId: string;
  readonly pack: LabelledPack;
  readonly storage: HandoverState['storage'];
  readonly add: Add;
  readonly problem: string | null;
  readonly onClose: () => void;
}) {
  const draft = useDraft(`storage.${visitId}`, { volts: '' as number | '' });
  const { volts } = draft.value;
  const advice = volts === '' ? null : storageAdvice(pack, volts);
  const write = async (kind: 'packStored' | 'packTaken') => {
    if (volts === '' || !(await add(kind, { packV: volts }))) return;
    draft.forget();
    onClose();
  };
  return (
    <Dialog title={storage ? `In storage since ${whenDay(storage.since)}` : 'Put it away'} onClose={onClose} size="lg">
      <form
        className={classes['storage']}
        onSubmit={(event) => {
          event.preventDefault();
          void write('packStored');
        }}
      >
        <p>
          For more than a few weeks. The pack is measured by meter at rest as it is put away, and every {STORAGE_DAYS}{' '}
          days: an empty pack that stands dies, and one that died is never charged.
        </p>
        {storage && (
          <table>
            <thead>
              <tr>
                <th scope="col">Measured</th>
                <th scope="col">Volts</th>
                <th scope="col">By</th>
              </tr>
            </thead>
            <tbody>
              {storage.readings.map(({ at, packV, by }) => (
                <tr key={at}>
                  <td>{whenDay(at)}</td>
                  <td className="num">{packV}</td>
                  <td>{by}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {storage && <p>Due again on {whenDay(storage.measureAt)}.</p>}
        <FigureField
          label="By meter, at rest"
          unit="V"
          value={volts}
          onChange={(next) => draft.change({ volts: next })}
          required
          autoFocus
        />
        {advice && !advice.ok && <Notice kind="care" says={advice.problem.message} />}
        {advice?.ok && (
          <Notice
            kind={KINDS[advice.value.act]}
            title={`${advice.value.fromV} to ${advice.value.toV} V is how this pack stands`}
            says={STORAGE_ACTS[advice.value.act]}
          />
        )}
        {problem !== null && <Notice kind="stop" says={problem} />}
        <div className={classes['acts']}>
          <ActButton type="submit" look="main" disabled={volts === ''} onAct={() => undefined}>
            {storage ? 'It stays, measured' : 'Put away so'}
          </ActButton>
          {storage && (
            <ActButton disabled={volts === ''} onAct={() => void write('packTaken')}>
              Take it out, measured
            </ActButton>
          )}
        </div>
      </form>
    </Dialog>
  );
}
