import type { VisitState } from '../bench/visit-state.js';

/** What whoever collects it is shown, from what it was set up to be: in the order in which one walks around it. */
export function shownToRider(
  { opened }: VisitState,
  map: { readonly ride?: { readonly levels: unknown; readonly modes: unknown } },
): readonly string[] {
  const { setup, order } = opened;
  const proves = (start: string): boolean => (setup.tests ?? []).some(({ id }) => id.startsWith(start));
  return [
    'Switching on and off, and cutting power at once',
    ...(map.ride?.levels ? ['Levels, and what the lowest does'] : []),
    ...(map.ride?.modes ? ['Modes, and how fast each goes'] : []),
    'Both brakes, tried at walking pace',
    ...(proves('end:throttle') ? ['Throttle: from which moment it drives'] : []),
    ...(proves('walk') ? ['Walk assist: on which key, or that it is off'] : []),
    ...(proves('fitted:frontLight') ? ['Lights and bell'] : []),
    'Charging: own charger, dry, not unattended',
    ...(order.asks?.rider ?? []),
  ];
}

/** Things that go along, as they came in. */
export const thingsAlong = ({ checkedIn }: Pick<VisitState, 'checkedIn'>): readonly string[] =>
  (checkedIn?.accessories ?? '')
    .split(/[,;]/)
    .map((thing) => thing.trim())
    .filter((thing) => thing !== '');
