import { decimalIn } from '@decurio/core';

/** A figure as it is typed, or why it is none. */
export function figureIn(text: string, whole: boolean): { readonly value: number | ''; readonly slip: string | null } {
  if (text.trim() === '') return { value: '', slip: null };
  const value = decimalIn(text);
  if (value === null) return { value: '', slip: 'A figure alone, such as 39.8.' };
  if (value < 0) return { value: '', slip: 'Not below zero.' };
  if (whole && !Number.isInteger(value)) return { value: '', slip: 'A whole number.' };
  return { value, slip: null };
}
