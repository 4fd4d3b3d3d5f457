import { useCallback, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, asProblem } from '../state/api.js';
import { useScanner } from './keys/use-scanner.js';
import { KeyCap } from './keys/key-cap.js';
import classes from './scan-box.module.css';

const SEAL = /^decurio-seal:([0-9a-f-]{36}):([0-9a-f]{64})$/i;

/** Takes a serial, scanned or typed, and opens that unit at its next step; a certificate's code opens its record. */
export function ScanBox() {
  const navigate = useNavigate();
  const [find, { isFetching }] = api.useLazyFindUnitQuery();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [unknown, setUnknown] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);

  const open = useCallback(
    async (scanned: string) => {
      const serial = scanned.trim();
      if (serial === '') return;
      setProblem(null);
      setUnknown(null);
      const seal = SEAL.exec(serial);
      if (seal) {
        setText('');
        void navigate(`/ledger/${seal[1]}`);
        return;
      }
      const answer = await find(serial);
      if (answer.data) {
        setText('');
        input.current?.blur();
        void navigate(
          answer.data.handedTo !== null && answer.data.status === 'sealed' && answer.data.visitId !== null
            ? `/ledger/${answer.data.visitId}`
            : `/bench/${answer.data.id}`,
        );
      } else {
        setText(serial);
        const refusal = asProblem(answer.error);
        setProblem(refusal?.message ?? null);
        setUnknown(refusal?.code === 'unitNotFound' ? serial : null);
      }
    },
    [find, navigate],
  );
  useEffect(() => {
    // The next scan replaces the one that led nowhere.
    if (problem !== null) input.current?.select();
  }, [problem]);
  useScanner({ onScan: (serial) => void open(serial), onSlash: () => input.current?.focus() });

  return (
    <form
      className={classes['box']}
      role="search"
      onSubmit={(event) => {
        event.preventDefault();
        void open(text);
      }}
    >
      <input
        ref={input}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setProblem(null);
        }}
        onKeyDown={(event) => {
          // The key that leads here, pressed here: no serial begins with it.
          if (event.key !== '/' || event.currentTarget.selectionStart !== 0) return;
          event.preventDefault();
          event.currentTarget.select();
        }}
        aria-label="Scan or type a serial"
        aria-invalid={problem !== null}
        aria-describedby="scan-problem"
        placeholder="Scan or type a serial"
        autoComplete="off"
        spellCheck={false}
        maxLength={130}
        readOnly={isFetching}
      />
      <KeyCap of="/" whileTyping="" />
      <div id="scan-problem" role="alert" className={classes['problem']} hidden={problem === null}>
        {problem}
        {unknown !== null && (
          <Link to={`/orders/add/${encodeURIComponent(unknown)}`} onClick={() => setProblem(null)}>
            Add it to an order
          </Link>
        )}
      </div>
    </form>
  );
}
