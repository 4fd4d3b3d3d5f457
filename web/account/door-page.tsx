import type { ReactNode } from 'react';
import { Mark } from '../ui/mark.js';
import classes from './sign-in.module.css';

interface DoorPageProps {
  readonly title: string;
  /** What is done there, on a card. */
  readonly children: ReactNode;
  readonly beside?: ReactNode;
}

/** What is seen before anybody is let in: one card, and what may stand beside it. */
export function DoorPage({ title, children, beside }: DoorPageProps) {
  return (
    <div className={classes['page']}>
      <header className={classes['head']}>
        <Mark />
      </header>
      <main className={classes['columns']}>
        <section className={classes['card']}>
          <h1>{title}</h1>
          {children}
        </section>
        {beside}
      </main>
    </div>
  );
}
