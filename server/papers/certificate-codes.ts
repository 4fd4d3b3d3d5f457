import {
  findCode,
  formatRaw,
  codeTitle,
  meaningOf,
  type CodeVerdict,
  type DisplayMap,
  type VisitState,
} from '@decurio/core';

/** What the table of codes is headed by: how many agree, and how many do not and why they may. */
export function codesCaption({ verdicts }: VisitState): string {
  const many = (verdict: CodeVerdict['verdict']): number => verdicts.filter((each) => each.verdict === verdict).length;
  const parts = [
    `${many('agrees')} agree`,
    ...(many('accepted') > 0 ? [`${many('accepted')} accepted as shown`] : []),
    ...(many('asFound') > 0 ? [`${many('asFound')} recorded as found`] : []),
    ...(many('notShown') > 0 ? [`${many('notShown')} not shown`] : []),
  ];
  return `Codes read back after restart: ${parts.join(', ')}`;
}

/** One row of that table: code, what it sets, must show, read back, which means, why. By the verdicts of the record itself. */
export function codeCells(
  { label, target, readings, verdict }: CodeVerdict,
  { opened, accepted }: VisitState,
  map: DisplayMap,
): readonly string[] {
  const code = findCode(map, label);
  const wanted = opened.setup.targets.find((each) => each.label === label);
  const raw = readings.at(-1);
  const show = (value: number | undefined): string =>
    value === undefined ? '–' : code ? formatRaw(code, value) : String(value);
  const decision = verdict === 'accepted' ? accepted[label] : undefined;
  return [
    label,
    wanted ? codeTitle(code ?? wanted) : '',
    target === null ? 'as found' : show(target),
    raw === null ? 'not shown' : show(raw),
    code && raw !== null && raw !== undefined ? meaningOf(code, raw) : '',
    decision ? `Accepted as it shows by ${decision.by} on ${decision.on}: ${decision.words}` : (wanted?.because ?? ''),
  ];
}
