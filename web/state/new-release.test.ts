import { expect, it } from 'vitest';
import { mainScriptOf } from './new-release.js';

it.each([
  ['<script type="module" crossorigin src="/assets/index-BqX3.js"></script>', '/assets/index-BqX3.js'],
  ['<script type="module" src="/main.tsx"></script>', null],
  ['<html><body>Bad gateway</body></html>', null],
  ['', null],
])('the release of %s is %s', (html, script) => {
  expect(mainScriptOf(html)).toBe(script);
});
