import { createHash } from 'node:crypto';
import { promisify } from 'node:util';
import { open, type Entry, type ZipFile } from 'yauzl';
import { MANIFEST, readManifest, type ArchiveFile, type Manifest } from './manifest.js';

/** What an archive may hold at most, whatever it says of itself. */
export const ARCHIVE_LIMITS = { files: 60_000, file: 6 * 1024 * 1024, all: 4 * 1024 * 1024 * 1024 } as const;

/** An archive whose list was read; what it lists is read file by file. */
export interface OpenArchive {
  /** SHA-256 of the list: the same archive taken in twice is one. */
  readonly id: string;
  readonly manifest: Manifest;
  /** Whether the archive holds a file of that name at all. */
  readonly has: (name: string) => boolean;
  /** The bytes of a file, held against its hash. @throws ArchiveFault */
  readonly read: (file: ArchiveFile) => Promise<Buffer>;
  readonly close: () => void;
}

/** An archive that is none, is broken, or asks for more than it may: in words for whoever brought it. */
export class ArchiveFault extends Error {}

const openFile = promisify<string, object, ZipFile>(open);
/** Names that climb out, or begin at the root, are refused by the reader; sizes are held against what is really in it. */
const HOW = { lazyEntries: true, autoClose: false, validateEntrySizes: true, strictFileNames: true };

/**
 * Opens a ZIP file and reads its list; nothing else of it is read yet.
 * @throws ArchiveFault where it is no archive of this form, holds a name that climbs out, or too much
 */
export async function openArchive(path: string): Promise<OpenArchive> {
  const zip = await openFile(path, HOW).catch(() => {
    throw new ArchiveFault('This is no ZIP file, or it was cut short: its end is missing. Copy it once more.');
  });
  try {
    const entries = await entriesOf(zip);
    const listed = entries.get(MANIFEST);
    if (!listed) throw new ArchiveFault(`It has no ${MANIFEST}: this is no archive of a ledger.`);
    const bytes = await readEntry(zip, listed);
    const read = readManifest(bytes.toString('utf8'));
    if (!read.ok) throw new ArchiveFault(read.says);
    const { manifest } = read;
    guardNames(entries, manifest);
    return {
      id: sha256(bytes),
      manifest,
      has: (name) => entries.has(name),
      read: async ({ name, sha256: hash }) => {
        const entry = entries.get(name);
        if (!entry) throw new ArchiveFault(`${name} is listed and not there.`);
        const body = await readEntry(zip, entry);
        if (sha256(body) !== hash) throw new ArchiveFault(`${name} is not what the list says: it was changed.`);
        return body;
      },
      close: () => zip.close(),
    };
  } catch (error) {
    zip.close();
    throw error;
  }
}

const sha256 = (body: Buffer): string => createHash('sha256').update(body).digest('hex');
const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error)).replace(/\.$/, '');

function entriesOf(zip: ZipFile): Promise<ReadonlyMap<string, Entry>> {
  return new Promise((done, failed) => {
    const entries = new Map<string, Entry>();
    let all = 0;
    const refuse = (says: string) => failed(new ArchiveFault(says));
    zip.once('error', (error: unknown) => refuse(`It cannot be read as an archive: ${wordsOf(error)}.`));
    zip.once('end', () => done(entries));
    zip.on('entry', (entry: Entry) => {
      const name = entry.fileName;
      all += entry.uncompressedSize;
      if (entries.has(name)) return refuse(`It holds ${name} twice.`);
      if (entry.uncompressedSize > ARCHIVE_LIMITS.file) return refuse(`${name} is larger than anything here.`);
      if (all > ARCHIVE_LIMITS.all || entries.size >= ARCHIVE_LIMITS.files)
        return refuse('It holds more than an archive may. Take it in order by order.');
      entries.set(name, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}

function guardNames(entries: ReadonlyMap<string, Entry>, { files }: Manifest): void {
  const listed = new Set([MANIFEST, ...files.map(({ name }) => name)]);
  if (listed.size !== files.length + 1) throw new ArchiveFault('Its list names a file twice.');
  const loose = [...entries.keys()].find((name) => !listed.has(name));
  if (loose !== undefined) throw new ArchiveFault(`It holds ${loose}, which its list does not name.`);
}

function readEntry(zip: ZipFile, entry: Entry): Promise<Buffer> {
  return new Promise((done, failed) => {
    const refuse = (error: unknown) => failed(new ArchiveFault(`${entry.fileName} cannot be read: ${wordsOf(error)}.`));
    zip.openReadStream(entry, (error, stream) => {
      if (error) return refuse(error);
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.once('end', () => done(Buffer.concat(chunks)));
      stream.once('error', refuse);
    });
  });
}
