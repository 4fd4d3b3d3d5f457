import type { DataSource } from 'typeorm';
import { makeDataSource } from '../store/data-source.js';
import { verifyVisits, type VisitCheck } from './verify-visit.js';

/*
 * Visits are recomputed here, in as many threads as there are processors; each has its own way to the database, which
 * ends with the thread.
 */

let opened: { readonly url: string; readonly source: Promise<DataSource> } | null = null;

export async function visits({
  url,
  ids,
}: {
  readonly url: string;
  readonly ids: readonly string[];
}): Promise<VisitCheck[]> {
  if (opened?.url !== url) opened = { url, source: makeDataSource(url, 2).initialize() };
  const { manager } = await opened.source;
  return verifyVisits(manager, ids);
}
