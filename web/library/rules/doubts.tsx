import type { PackedClass } from '@decurio/core';
import classes from '../library-form.module.css';

/** What nobody is sure of: asked before a class is confirmed. */
export const Doubts = ({ each }: { readonly each: Pick<PackedClass, 'doubts' | 'ask'> }) => (
  <div className={classes['doubts']}>
    <h3>Not sure: ask {each.ask || 'the authority'}</h3>
    <ul>
      {each.doubts.map(({ about, question }) => (
        <li key={about}>
          <strong>{about}:</strong> {question}
        </li>
      ))}
    </ul>
  </div>
);
