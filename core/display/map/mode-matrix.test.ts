import { describe, expect, it } from 'vitest';
import { demoMap, demoMaps } from '../../testing/demo-maps.js';
import { modeMatrix } from './mode-matrix.js';

const limpet = demoMap('limpet-modes');

describe('a display with a list per ride mode', () => {
  it('is laid out with entries down and modes across, front and rear motor by name', () => {
    const matrix = modeMatrix(limpet);
    expect(matrix?.modes.map(({ title }) => title)).toEqual(['eco', 'city', 'fast']);
    expect(matrix?.entries.map(({ shownAs, title }) => `${shownAs} ${title}`)).toEqual([
      'S1 Speed of a mode',
      'S2 Throttle cap',
      'S3 Current of a mode, front motor',
      'S4 Current of a mode, rear motor',
      'S5 Acceleration of a mode',
      'S6 Motor braking of a mode',
      'S7 Turbo',
    ]);
    expect(matrix?.entries[0]?.codes.map((code) => code?.label)).toEqual(['eco S1', 'city S1', 'fast S1']);
  });

  it('has each of its codes once, and none that all modes share', () => {
    const laid = modeMatrix(limpet)?.entries.flatMap(({ codes }) => codes.map((code) => code?.label)) ?? [];
    expect(new Set(laid).size).toBe(laid.length);
    expect(laid).toHaveLength(21);
    expect(laid.some((label) => label?.startsWith('U'))).toBe(false);
  });

  it('leaves a hole where a mode has no such entry', () => {
    const pages = limpet.menu!.pages.map((page) =>
      page.mode === 'eco'
        ? { ...page, items: page.items.filter((item) => !('code' in item) || item.code !== 'eco S7') }
        : page,
    );
    const without = modeMatrix({ ...limpet, menu: { ...limpet.menu!, pages } });
    expect(without?.entries.find(({ shownAs }) => shownAs === 'S7')?.codes.map((code) => code?.label ?? null)).toEqual([
      null,
      'city S7',
      'fast S7',
    ]);
  });
});

it('a display without modes has none', () => {
  expect(
    demoMaps()
      .filter((map) => modeMatrix(map) !== null)
      .map(({ id }) => id),
  ).toEqual(['bracken-index', 'limpet-modes']);
});
