import { array, object, string, ValidationError, type InferType } from 'yup';

export const ARCHIVE_FORMAT = 'decurio-archive/1';
/** The list of everything in an archive, under this name. */
export const MANIFEST = 'manifest.json';

export const FILE_KINDS = ['record', 'handover', 'document', 'paper', 'photo', 'checkpoint', 'about'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

const sha256 = () =>
  string()
    .strict()
    .matches(/^[0-9a-f]{64}$/)
    .required();

/** One file of an archive. */
const fileSchema = object({
  name: string()
    .strict()
    .max(300)
    .matches(/^[A-Za-z0-9][A-Za-z0-9._/-]*$/, 'a name of a file is plain letters')
    .required(),
  kind: string()
    .strict()
    .oneOf([...FILE_KINDS])
    .required(),
  sha256: sha256(),
  /** Of a record and what was handed over with it, of papers and photographs: the visit. */
  visitId: string().strict().uuid().optional(),
}).noUnknown();

const manifestSchema = object({
  format: string().strict().oneOf([ARCHIVE_FORMAT]).required(),
  /** The name of the house, after its key; empty where it signs nothing. */
  origin: string().strict().max(120).defined(),
  madeAt: string().strict().max(40).required(),
  of: object({
    what: string().strict().oneOf(['order', 'customer']).required(),
    name: string().strict().max(200).required(),
  })
    .noUnknown()
    .required(),
  files: array(fileSchema).max(60_000).required(),
}).noUnknown();

export type ArchiveFile = InferType<typeof fileSchema>;
export type Manifest = InferType<typeof manifestSchema>;

/** Reads a manifest. @returns in words why it is none */
export function readManifest(
  text: string,
): { readonly ok: true; readonly manifest: Manifest } | { readonly ok: false; readonly says: string } {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { ok: false, says: `${MANIFEST} is no JSON.` };
  }
  const format = typeof data === 'object' && data !== null && 'format' in data ? data.format : undefined;
  if (typeof format === 'string' && /^decurio-archive\/\d{1,4}$/.test(format) && format !== ARCHIVE_FORMAT)
    return { ok: false, says: `This archive is from a newer version (${format}). Update this house first.` };
  try {
    return { ok: true, manifest: manifestSchema.validateSync(data, { strict: true }) };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return { ok: false, says: `${MANIFEST} does not list what an archive holds: ${error.errors[0] ?? ''}.` };
  }
}
