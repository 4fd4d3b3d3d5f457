import { changeWords, dayIn, kilometresNow, type OdometerLetter } from '@decurio/core';
import { caption, factRows, masthead, sentencesOf, type Paper } from './kit.js';

/** The letter that goes with a vehicle whose display was changed: its kilometres are told with it from then on. */
export function drawOdometerLetter(
  paper: Paper,
  letter: OdometerLetter,
  {
    typeName,
    orderNumber,
    customer,
    seal,
    zone,
  }: {
    readonly typeName: string;
    readonly orderNumber: string;
    readonly customer: string;
    readonly seal: string;
    readonly zone: string;
  },
): void {
  masthead(paper, {
    title: 'Odometer letter',
    serial: letter.serial,
    says: `${typeName}, ${orderNumber}: ${customer}`,
  });
  caption(paper, 'Its kilometres');
  sentencesOf(paper, [kilometresNow(letter)]);
  caption(paper, letter.changes.length === 1 ? 'The change' : `${letter.changes.length} changes`);
  sentencesOf(
    paper,
    letter.changes.map((change) => changeWords(change, dayIn(zone, Date.parse(change.at)))),
  );
  caption(paper, 'Keep it with the vehicle');
  sentencesOf(paper, [
    'Whoever has the vehicle next is given this letter with it.',
    'Where the law asks for kilometres to be declared when a vehicle is sold, the authority there says how this is done.',
  ]);
  factRows(paper, [['Seal of its record', seal]]);
}
