import { readFileSync } from 'node:fs';
import { createSecureContext } from 'node:tls';
import type { TlsFiles } from './config.js';

/** @throws Error that says which file cannot be read, or that they do not belong together */
export function readTls({ certFile, keyFile }: TlsFiles): { readonly cert: Buffer; readonly key: Buffer } {
  const read = { cert: bytesOf('TLS_CERT_FILE', certFile), key: bytesOf('TLS_KEY_FILE', keyFile) };
  try {
    createSecureContext(read);
  } catch (error) {
    throw new Error(`${certFile} and ${keyFile} are no certificate and its key in PEM: ${(error as Error).message}`, {
      cause: error,
    });
  }
  return read;
}

function bytesOf(setting: string, file: string): Buffer {
  try {
    return readFileSync(file);
  } catch (error) {
    throw new Error(`${setting}: ${file} cannot be read (${(error as NodeJS.ErrnoException).code})`, { cause: error });
  }
}
