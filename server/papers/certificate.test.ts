import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import PDFDocument from 'pdfkit';
import { describe, expect, it } from 'vitest';
import { fullMap, CHAIN_START, makeRecord, sealEvidence, type DisplayMap, type Evidence } from '@decurio/core';
import { ROOT } from '../../scripts/lib/paths.mjs';
import { cleanVisit, deedsOf } from '../../core/testing/visit-script.js';
import { fourKey } from '../../core/testing/samples.js';
import { makeCertificate } from './certificate.js';
import { PAPER_FONTS } from './fonts.js';
import { fontFor, legible, paperTime, unprintable } from './paper-text.js';

const record = (serial?: string) => {
  const entries: Evidence[] = [];
  for (const deed of deedsOf(cleanVisit)) {
    const named = serial !== undefined && deed.kind === 'opened' ? { ...deed, data: { ...deed.data, serial } } : deed;
    entries.push(sealEvidence(named, entries.at(-1)?.hash ?? CHAIN_START));
  }
  return makeRecord(entries);
};
/** A font read as the papers read it. */
async function openFont(path: string): Promise<{ readonly hasGlyphForCodePoint: (point: number) => boolean }> {
  const doc = new PDFDocument();
  doc.font(path);
  return (
    doc as unknown as {
      readonly _font: { readonly font: { readonly hasGlyphForCodePoint: (point: number) => boolean } };
    }
  )._font.font;
}
const pagesOf = (pdf: Buffer): number => (pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length;

describe('a certificate', () => {
  it('is one page for a short menu', async () => {
    const pdf = await makeCertificate(record(), fourKey, 'UTC');
    expect(pagesOf(pdf)).toBe(1);
    expect(pdf.length).toBeGreaterThan(10_000);
  });

  it.each([['Жанна Петрова'], ['Ελένη Παπά'], ['Nguyễn Văn Ếch'], ['ज़ारा'], ['Łódź Öngün']])(
    'prints %s in a font that has every letter',
    async (name) => {
      expect(legible(name)).toBe(name.normalize('NFC'));
      const pdf = await makeCertificate(record(name.slice(0, 20)), fourKey, 'UTC');
      expect(fontFor('text', name) === 'text' || pdf.includes('NotoSans')).toBe(true);
      const font = await openFont(PAPER_FONTS[fontFor('text', name)]);
      expect(
        [...name.normalize('NFC')].filter((letter) => !font.hasGlyphForCodePoint(letter.codePointAt(0) ?? 0)),
      ).toEqual([]);
    },
  );

  it('is said to print question marks where no font has the letters, and which words', () => {
    const { evidence } = record('山田 26');
    expect(legible('山田 26')).toBe('?? 26');
    expect(unprintable({ evidence })).toEqual(['山田 26']);
    expect(unprintable(record('Жанна'))).toEqual([]);
  });

  it('survives a serial of forty characters and a map that no longer names a code', async () => {
    const other = fullMap(
      JSON.parse(readFileSync(join(ROOT, 'demo/maps/fescue-three-key.json'), 'utf8')),
    ) as DisplayMap;
    expect((await makeCertificate(record('X'.repeat(40)), other, 'UTC')).subarray(0, 5).toString()).toBe('%PDF-');
  });

  it('says loudly where a vehicle must never go, and what a lead decided', async () => {
    const entries: Evidence[] = [];
    const decided = {
      level: 'decide' as const,
      id: 'x:unit',
      label: null,
      says: 'The cap cannot be shown to work.',
      decided: { words: 'measured instead', by: 'Ines M.', on: '2026-11-25' },
    };
    for (const deed of deedsOf(cleanVisit)) {
      const land =
        deed.kind === 'opened'
          ? {
              ...deed,
              data: {
                ...deed.data,
                order: {
                  ...deed.data.order,
                  privateLand: { label: 'Yard only', endsOn: '2027-01-01', authorityBy: 'Ines M.' },
                },
                setup: { ...deed.data.setup, findings: [decided] },
              },
            }
          : deed;
      entries.push(sealEvidence(land, entries.at(-1)?.hash ?? CHAIN_START));
    }
    const [plain, loud] = [
      await makeCertificate(record(), fourKey, 'UTC'),
      await makeCertificate(makeRecord(entries), fourKey, 'UTC'),
    ];
    expect(loud.length).toBeGreaterThan(plain.length);
  });

  it('is refused for entries that contradict one another', async () => {
    const whole = record();
    await expect(makeCertificate({ ...whole, evidence: whole.evidence.slice(1) }, fourKey, 'UTC')).rejects.toThrow(
      'does not fold',
    );
  });
});

it("writes times in the house's zone and never lets a letter vanish", () => {
  expect(paperTime('2026-11-24T23:30:00.000Z', 'UTC')).toBe('24 Nov 2026 23:30 UTC');
  expect(paperTime('2026-11-24T23:30:00.000Z', 'Europe/Berlin')).toBe('25 Nov 2026 00:30 UTC+01:00');
  expect(paperTime('2026-07-01T02:15:59.000Z', 'America/St_Johns')).toBe('30 Jun 2026 23:45 UTC-02:30');
  expect(paperTime('2026-12-31T19:00:00.000Z', 'Asia/Kathmandu')).toBe('1 Jan 2027 00:45 UTC+05:45');
  expect(legible('Söhne, Łódź − 20 €')).toBe('Söhne, Łódź − 20 €');
  expect(legible('Park 🚲')).toBe('Park ?');
});
