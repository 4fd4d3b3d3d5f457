/** A value that SQL took out of a JSON document: the driver gives some of them as text and some already read. */
export const readJson = <T>(value: unknown): T => (typeof value === 'string' ? (JSON.parse(value) as T) : (value as T));
