import { useRef, useState } from 'react';
import type { VisitRecord } from '@decurio/core';
import type { SealCheck } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { ActButton } from '../ui/act-button.js';
import { Dialog } from '../ui/dialog.js';
import { SealVerdict } from './seal-verdict.js';

type Verdict = Pick<SealCheck, 'holds' | 'says' | 'findings'>;

/** Holds a record file that someone brought against the ledger. */
export function CheckRecordFile() {
  const picker = useRef<HTMLInputElement>(null);
  const [check] = api.useCheckRecordMutation();
  const [fileName, setFileName] = useState('');
  const [verdict, setVerdict] = useState<Verdict | null>(null);

  const verify = async (file: File) => {
    setFileName(file.name);
    let record: VisitRecord;
    try {
      record = JSON.parse(await file.text()) as VisitRecord;
    } catch {
      return setVerdict({
        holds: false,
        findings: [],
        says: 'This is not a JSON file. Choose the record that was exported from a ledger.',
      });
    }
    const answer = await check(record);
    setVerdict(answer.data ?? { holds: false, findings: [], says: asProblem(answer.error)?.message ?? '' });
  };

  return (
    <>
      <ActButton onAct={() => picker.current?.click()}>Verify a record file</ActButton>
      <input
        ref={picker}
        type="file"
        accept="application/json,.json"
        hidden
        aria-label="Record file"
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void verify(file);
        }}
      />
      {verdict && (
        <Dialog onClose={() => setVerdict(null)} title={fileName}>
          <SealVerdict verdict={verdict} broken="Not accepted" />
        </Dialog>
      )}
    </>
  );
}
