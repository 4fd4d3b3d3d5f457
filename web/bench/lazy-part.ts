import { lazy, type ComponentType, type LazyExoticComponent } from 'react';
import { fetched } from '../ui/part-missing.js';

const loads: (() => Promise<unknown>)[] = [];

/** A part of the bench that is fetched after the first paint, and kept for when the network is gone. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- as React's own lazy takes a component of any props
export function part<T extends ComponentType<any>>(load: () => Promise<{ default: T }>): LazyExoticComponent<T> {
  loads.push(load);
  return lazy(fetched(load));
}

/** Fetches every part that this page may come to need, and the parts of those: a dead network must not stop a visit half-way. */
export async function fetchParts(): Promise<void> {
  for (let from = 0; from < loads.length;) {
    const next = loads.slice(from);
    from = loads.length;
    await Promise.allSettled(next.map((load) => load()));
  }
}
