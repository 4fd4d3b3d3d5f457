import { canonicalJson } from '@decurio/core';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import { inTodaysForm } from '@decurio/contract';

/** Stored documents come to all that a class may ask for; menu and start have a PIN each. */
export class ClassAsks1764800000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE pin ADD opens VARCHAR(5) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT 'menu', DROP KEY pinByOwner, ADD UNIQUE KEY pinByOwner (owner, opens)",
    );
    const rows = (await runner.query(
      "SELECT kind, docId, version, body FROM library_document WHERE kind <> 'displayMap'",
    )) as { kind: string; docId: string; version: number; body: string }[];
    for (const { kind, docId, version, body } of rows) {
      const document: unknown = JSON.parse(body);
      const upgraded = inTodaysForm(document);
      if (upgraded !== document)
        await runner.query('UPDATE library_document SET body = ? WHERE kind = ? AND docId = ? AND version = ?', [
          canonicalJson(upgraded),
          kind,
          docId,
          version,
        ]);
    }
  }

  /** The documents stay as they are. Start PINs go: an older release knows none. */
  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM pin_look WHERE pinId IN (SELECT id FROM pin WHERE opens = 'start')");
    await runner.query("DELETE FROM pin WHERE opens = 'start'");
    await runner.query('ALTER TABLE pin DROP KEY pinByOwner, ADD UNIQUE KEY pinByOwner (owner), DROP opens');
  }
}
