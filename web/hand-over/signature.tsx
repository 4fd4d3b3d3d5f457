import { useEffect, useRef } from 'react';
import SignaturePad from 'signature_pad';
import type { Strokes } from '@decurio/core';
import { KeyButton } from '../ui/keys/key-button.js';
import classes from './hand-over.module.css';

/** A field that is signed with a finger, a pen or a mouse. Points are kept as shares of its width and height. */
export function Signature({ onChange }: { readonly onChange: (strokes: Strokes) => void }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad | null>(null);
  const told = useRef(onChange);
  useEffect(() => {
    told.current = onChange;
  });
  useEffect(() => {
    const field = canvas.current;
    if (!field) return;
    const own = new SignaturePad(field, { penColor: '#18211d', minWidth: 1, maxWidth: 2.4 });
    pad.current = own;
    const fit = () => {
      const { width, height } = field.getBoundingClientRect();
      const kept = own.toData();
      field.width = width * devicePixelRatio;
      field.height = height * devicePixelRatio;
      field.getContext('2d')?.scale(devicePixelRatio, devicePixelRatio);
      own.fromData(kept);
    };
    fit();
    const watch = new ResizeObserver(fit);
    watch.observe(field);
    own.addEventListener('endStroke', () => {
      const { width, height } = field.getBoundingClientRect();
      told.current(strokesOf(own, width, height));
    });
    return () => {
      watch.disconnect();
      own.off();
    };
  }, []);
  return (
    <div className={classes['signature']}>
      <canvas ref={canvas} aria-label="Signature of whoever receives it" role="img" />
      <KeyButton
        hotkey="X"
        onAct={() => {
          pad.current?.clear();
          onChange([]);
        }}
      >
        Wipe
      </KeyButton>
    </div>
  );
}

const MOST_POINTS = 1500;
const share = (at: number, of: number): number => Math.round(Math.min(1, Math.max(0, at / of)) * 1000) / 1000;

const strokesOf = (pad: SignaturePad, width: number, height: number): Strokes =>
  pad
    .toData()
    .slice(0, 150)
    .map(({ points }) => points.slice(0, MOST_POINTS).map(({ x, y }) => [share(x, width), share(y, height)] as const));

/** A signature as it was drawn. */
export function SignatureShown({ strokes }: { readonly strokes: Strokes }) {
  return (
    <svg className={classes['drawn']} viewBox="0 0 300 110" role="img" aria-label="Signature">
      {strokes.map((stroke, i) => (
        <polyline key={i} points={stroke.map(([x, y]) => `${x * 300},${y * 110}`).join(' ')} />
      ))}
    </svg>
  );
}
