/**
 * How often something is tried against chance or against all there is: so often as the suite has time for, or as
 * `npm run prove` asks.
 */
export const howOften = (inTheSuite: number, whole: number): number =>
  process.env['DECURIO_PROVE'] === undefined ? inTheSuite : whole;
