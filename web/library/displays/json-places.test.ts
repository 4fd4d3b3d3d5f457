import { describe, expect, it } from 'vitest';
import { placeOf, stepsOf } from './json-places.js';

const text = '{\n  "codes": [\n    { "label": "A", "range": { "min": 1 } }\n  ]\n}';
const at = (path: string) => {
  const { from, to } = placeOf(text, path);
  return text.slice(from, to);
};

describe('the place of a problem in the text', () => {
  it('is the value that its path names', () => {
    expect(at('codes[0].range.min')).toBe('1');
    expect(at('codes[0].label')).toBe('"A"');
  });

  it('is the nearest thing around it where it is missing', () => {
    expect(at('codes[0].range.max')).toBe('{ "min": 1 }');
  });

  it('is the beginning where nothing of it is there', () => {
    expect(placeOf(text, 'menu.next')).toEqual({ from: 0, to: 1 });
    expect(placeOf('', 'menu')).toEqual({ from: 0, to: 0 });
    expect(placeOf('{"codes":', 'codes')).toBeDefined();
  });

  it('reads names and numbers, and leaves words out', () => {
    expect(stepsOf('menu.pages[1].items[0]')).toEqual(['menu', 'pages', 1, 'items', 0]);
    expect(stepsOf('menu.repeat (up)')).toEqual(['menu', 'repeat']);
  });
});
