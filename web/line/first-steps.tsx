import { IconCheck } from '@tabler/icons-react';
import { Link } from 'react-router';
import type { Role } from '@decurio/core';
import { api } from '../state/api.js';
import classes from './first-steps.module.css';

/** What a house that has just begun needs before its first order, in the order one thing builds on another. */
export function FirstSteps({ role }: { readonly role: Role }) {
  const rules = api.useLibraryQuery('rulePack').data ?? [];
  const displays = api.useLibraryQuery('displayMap').data ?? [];
  const types = api.useLibraryQuery('vehicleType').data ?? [];
  const houseRules = api.useLibraryQuery('houseRules').data ?? [];
  const isChecked = rules.some(
    ({ document }) => 'classes' in document && document.classes.some(({ checked }) => checked !== null),
  );
  const steps: readonly Step[] = [
    {
      does: 'Bring in the rules of the places you deliver to',
      says: 'Starters lie ready under Library, Rules. They come from general knowledge, and nobody has checked them.',
      to: '/library/rulePack/new',
      isDone: rules.length > 0,
    },
    {
      does: 'Confirm a class with the authority there',
      says: 'Nothing is signed off under a class that nobody has confirmed.',
      to: '/library/rulePack',
      isDone: isChecked,
    },
    {
      does: 'Write the displays you meet',
      says: 'What each menu shows, which keys move it, and what every code does.',
      to: '/library/displayMap/new',
      isDone: displays.length > 0,
    },
    {
      does: 'Write the types of vehicle',
      says: 'Motor, pack, tyre, and which display it comes with.',
      to: '/library/vehicleType/new',
      isDone: types.length > 0,
    },
    {
      does: 'Say how the house sets what the law leaves open',
      says: 'Brightness, assist levels, PINs: the house rules.',
      to: '/library/houseRules/new',
      isDone: houseRules.length > 0,
    },
    {
      does: 'Drop the first order file',
      says: 'Its units then stand here in ranks of ten.',
      to: '/orders',
      isDone: false,
    },
  ];
  const next = steps.findIndex(({ isDone }) => !isDone);
  return (
    <section className={classes['first']} aria-label="To begin with">
      <p className="cap">To begin with</p>
      <h1>Six steps to the first unit</h1>
      <ol>
        {steps.map(({ does, says, to, isDone }, i) => (
          <li key={does} data-done={isDone || undefined} aria-current={i === next ? 'step' : undefined}>
            <span className={classes['mark']} aria-hidden="true">
              {isDone ? <IconCheck size={18} /> : i + 1}
            </span>
            <div>
              <Link to={isDone ? to.replace('/new', '') : to}>{does}</Link>
              <p className="soft">{isDone ? 'Done.' : says}</p>
            </div>
          </li>
        ))}
      </ol>
      {role === 'owner' && (
        <p className="soft">
          Others are let in under <Link to="/accounts">Who may sign in</Link>; how the house runs stands under{' '}
          <Link to="/status">How it runs</Link>. To look around first, start the demo with its invented depot.
        </p>
      )}
    </section>
  );
}

interface Step {
  readonly does: string;
  readonly says: string;
  readonly to: string;
  readonly isDone: boolean;
}
