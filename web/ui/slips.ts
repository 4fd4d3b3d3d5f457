import { ValidationError, type Schema } from 'yup';

/** What is wrong with a document, by path as forms name their fields: `pack.cellsInSeries`, `classes.0.limit`. */
export function slipsIn(schema: Schema, document: unknown): Record<string, string> {
  try {
    schema.validateSync(document, { strict: true, abortEarly: false });
    return {};
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const slips: Record<string, string> = {};
    for (const { path, message } of error.inner.length > 0 ? error.inner : [error]) {
      const name = (path ?? '').replace(/\[(\d+)\]/g, '.$1');
      slips[name] ??= message;
    }
    return slips;
  }
}
