/**
 * How often something is tried against chance or against all there is: so often as the suite has time for, or as
 * `npm run prove` asks.
 * @example
 * howOften(60, 300); // 60 in the suite, 300 under `npm run prove`
 */
export const howOften = (inTheSuite: number, whole: number): number =>
  process.env['DECURIO_PROVE'] === undefined ? inTheSuite : whole;
