import type { FleetNotice } from '@decurio/core';
import type { LibraryEntry } from '@decurio/contract';
import { Notice } from '../../ui/notice.js';
import { DocumentActs } from '../document-acts.js';
import { Facts } from '../facts.js';

/** Which units a notice names, in words. */
export function namedWords({ types, maps, serialFrom, serialTo, packs, firmware = [] }: FleetNotice['names']): string {
  return [
    types.length > 0 ? `types ${types.join(', ')}` : '',
    maps.length > 0 ? `displays ${maps.join(', ')}` : '',
    serialFrom !== null ? `serials from ${serialFrom}` : '',
    serialTo !== null ? `serials to ${serialTo}` : '',
    packs.length > 0 ? `packs ${packs.join(', ')}` : '',
    firmware.length > 0 ? `firmware ${firmware.join(', ')}` : '',
  ]
    .filter((part) => part !== '')
    .join('; and ');
}

/** A notice as a person reads it. */
export function NoticeSheet({ entry }: { readonly entry: LibraryEntry<'notice'> }) {
  const { name, says, cure, source, names, isOver } = entry.document;
  return (
    <>
      <p className="cap">Notice · version {entry.version}</p>
      <h1>{name}</h1>
      <Notice
        kind={isOver ? 'note' : 'stop'}
        title={isOver ? 'Over: it holds nothing any more' : 'Holds every unit that it names'}
        says={says}
      />
      <Facts
        rows={[
          ['Names', namedWords(names)],
          ['What is done', cure || 'a lead decides'],
          ['Source', source],
        ]}
      />
      <DocumentActs entry={entry} />
    </>
  );
}
