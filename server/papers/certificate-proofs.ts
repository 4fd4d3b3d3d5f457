import {
  dueTests,
  proofsOf,
  provingTermsOf,
  setUpTitle,
  usedReadings,
  type ProofOf,
  type VisitState,
} from '@decurio/core';
import { caption, inFont, INKS, PAGE, room, table, type Column, type Paper } from './kit.js';

const COLUMNS: readonly Column[] = [
  { title: 'Shown on the vehicle', role: 'strong', x: 0, width: 168 },
  { title: 'For', role: 'code', x: 172, width: 74 },
  { title: 'What was seen', role: 'text', x: 250, width: 206 },
  { title: 'Verdict', role: 'strong', x: 460, width: 51 },
];

/** Every test of the vehicle itself, with its figure. Visits of before it was led through have none. */
export function proofTable(paper: Paper, state: VisitState): void {
  const proofs = proofsOf(state);
  if (proofs.length === 0) return;
  const shown = proofs.filter(({ judgement }) => judgement.verdict === 'shows').length;
  caption(paper, `${shown} of ${proofs.length} shown on the vehicle: ${provingTermsOf(state.opened)?.why ?? ''}`);
  table(
    paper,
    COLUMNS,
    proofs.map((proof) => proofCells(proof, state)),
  );
}

/** One row of that table: what, for which codes and clauses, what was seen, and whether that shows it. */
export function proofCells({ test, judgement, left, seen }: ProofOf, { proving }: VisitState): readonly string[] {
  const again = proving.again.filter((each) => each.test === test.id && each.words !== '');
  return [
    `${test.title} (${setUpTitle(test).toLowerCase()})`,
    test.proves.labels.join(' '),
    [
      left ? `Left out by ${left.by}: ${left.words}` : judgement.says,
      seen.length > 1 && test.watch.kind === 'speed' ? `${seen.length} readings.` : '',
      ...again.map(({ words, by }) => `Before it ${by} put right: ${words}.`),
    ]
      .filter((part) => part !== '')
      .join(' '),
    left
      ? 'left out'
      : judgement.verdict === 'shows'
        ? 'shows it'
        : judgement.verdict === 'doesNot'
          ? 'does not'
          : 'open',
  ];
}

/** What is read back and not proved, with the reasons, and what was proved on others of the batch. */
export function notProvedSays({ opened }: VisitState): readonly string[] {
  const { notProved = [], tests = [] } = opened.setup;
  if (!provingTermsOf(opened)) return [];
  const due = new Set(dueTests({ opened }).map(({ id }) => id));
  const sampled = tests.filter(({ id }) => !due.has(id)).map(({ title }) => title.toLowerCase());
  return [
    ...(sampled.length > 0 ? [`Proved on a sample of its batch, not on this unit: ${sampled.join('; ')}.`] : []),
    ...(notProved.length > 0
      ? [`Read back and not proved: ${notProved.map(({ label, because }) => `${label} ${because}`).join(' ')}`]
      : []),
  ];
}

const PLOT = { width: 236, height: 112, left: 30, bottom: 18 } as const;

/** Shown against true speed as it was run: the readings, the ratio, and the line where both agree. */
export function speedPlot(paper: Paper, { calibration }: VisitState): void {
  const readings = usedReadings(calibration);
  const { result } = calibration;
  if (readings.length === 0 || result?.how !== 'runs') return;
  caption(paper, `Shown against true speed, ${readings.length} readings`);
  room(paper, PLOT.height + 10);
  const most = Math.ceil(Math.max(...readings.flatMap(({ trueKmh, shown }) => [trueKmh, shown])) / 5) * 5;
  const [x0, y0] = [PAGE.margin + PLOT.left, paper.y + PLOT.height - PLOT.bottom];
  const [wide, high] = [PLOT.width - PLOT.left, PLOT.height - PLOT.bottom - 4];
  const at = (x: number, y: number): readonly [number, number] => [x0 + (x / most) * wide, y0 - (y / most) * high];
  const line = (k: number, ink: string, dash: boolean): void => {
    const end = Math.min(most, most / k);
    paper.save().lineWidth(1).strokeColor(ink);
    if (dash) paper.dash(2, { space: 2 });
    paper
      .moveTo(x0, y0)
      .lineTo(...at(end, end * k))
      .stroke()
      .restore();
  };
  paper
    .lineWidth(0.6)
    .strokeColor(INKS.soft)
    .moveTo(x0, y0 - high)
    .lineTo(x0, y0)
    .lineTo(x0 + wide, y0)
    .stroke();
  line(1, INKS.rule, true);
  line(result.ratio.k, INKS.verdigris, false);
  for (const { trueKmh, shown } of readings) paper.circle(...at(trueKmh, shown), 2.2).fill(INKS.ink);
  paper.fontSize(7.5).fillColor(INKS.soft);
  for (let kmh = 0; kmh <= most; kmh += 5)
    paper.text(inFont(paper, 'code', String(kmh)), at(kmh, 0)[0] - 10, y0 + 3, {
      width: 20,
      align: 'center',
      lineBreak: false,
    });
  paper.text(inFont(paper, 'text', 'true, km/h'), x0 + wide + 6, y0 - 4, { lineBreak: false });
  const [words, top] = [x0 + wide + 70, y0 - high];
  const says = [
    `Shown over true ${result.ratio.k.toFixed(3)}, between ${result.ratio.low.toFixed(3)} and ${result.ratio.high.toFixed(3)} (95 %).`,
    ...[
      ...new Set(
        readings.map(({ reference, instrument }) => `${reference}${instrument === '' ? '' : ` ${instrument}`}`),
      ),
    ].map((reference) => `By ${reference}.`),
  ];
  paper.fontSize(8.2).fillColor(INKS.ink);
  paper.text(inFont(paper, 'text', says.join(' ')), words, top, { width: PAGE.margin + PAGE.width - words });
  paper.y = y0 + PLOT.bottom;
  paper.x = PAGE.margin;
}
