import { ARCHIVE_FORMAT } from './manifest.js';

/** What whoever opens an archive years later needs to know, in words. */
export const readmeOf = (of: string, records: number, origin: string): string => `WHAT THIS IS

An archive of ${of}: ${records} sealed ${records === 1 ? 'record' : 'records'} of vehicles that were made ready for delivery,
with what they were worked out from. Format ${ARCHIVE_FORMAT}${origin === '' ? '' : `, from the house ${origin}`}.

WHAT IS IN IT

manifest.json      every file with its SHA-256
records/           one record a visit, as JSON: every entry, each chained to the one before it by its hash
handover/          what was handed over with it and came back since, a chain of its own that begins with the seal
documents/         types, display maps, rules and house rules at the versions that the records name
papers/            the certificate of each visit as it prints
photographs/       by the id that the record names, with their SHA-256 in the record
checkpoint.txt     where the house signs: how far the ledger had come, a signed note over the root of a tree as in RFC 6962
key.txt            where the house signs: the key by which that signature can be checked; compare it with what the house gave you otherwise
record.schema.json the form of a record, as JSON Schema

HOW TO CHECK IT

Without any program of ours: the hash of an entry is the SHA-256 of its canonical JSON (RFC 8785), without "hash" itself,
and without "name" in "by" where "nameSha256" stands beside it. "prevHash" is the hash of the entry before it, and 64
zeros for the first. The last hash is the seal that the certificate prints.
With it: npm run verify -- --key key.txt records/*.json, or bring the archive into another house (Ledger, Elsewhere),
which checks all of it before it believes any.

What it shows: that nothing was changed after the fact. Not that what was typed was true.
`;
