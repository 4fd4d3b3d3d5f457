import { describe, expect, it } from 'vitest';
import { figureIn } from './figure-in.js';

describe('a figure read off something', () => {
  it.each([
    ['39.8', 39.8],
    ['39,8', 39.8],
    [' 3 ', 3],
    ['0', 0],
  ])('%s is %d', (text, value) => {
    expect(figureIn(text, false)).toEqual({ value, slip: null });
  });

  it.each([
    ['47-559', 'A figure alone, such as 39.8.'],
    ['12-3', 'A figure alone, such as 39.8.'],
    ['1e3', 'A figure alone, such as 39.8.'],
    ['3.2 bar', 'A figure alone, such as 39.8.'],
    ['-3', 'Not below zero.'],
  ])('%s is none: %s', (text, slip) => {
    expect(figureIn(text, false)).toEqual({ value: '', slip });
  });

  it('counts nothing in halves', () => {
    expect(figureIn('2.5', true)).toEqual({ value: '', slip: 'A whole number.' });
    expect(figureIn('2', true)).toEqual({ value: 2, slip: null });
  });

  it('is nothing yet where nothing is typed', () => {
    expect(figureIn('', false)).toEqual({ value: '', slip: null });
  });
});
