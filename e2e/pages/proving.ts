import { Key } from 'selenium-webdriver';
import {
  dueTests,
  foldVisit,
  fullPackV,
  shownInOrder,
  type Observation,
  type ProvingTest,
  type VisitState,
} from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { PATIENCE_MS, type Page } from './page.js';

/** The unit on the bench as the server has it, asked by the page itself, again where it does not answer at once. */
export async function benchNow(page: Page): Promise<VisitState> {
  const view = await page.driver.wait(
    () =>
      page.driver.executeAsyncScript<BenchView | null>(
        `const [done] = arguments;
         fetch('/api' + location.pathname.replace('/bench/', '/units/') + '/bench')
           .then((answer) => (answer.ok ? answer.json() : null)).then(done, () => done(null));`,
      ),
    PATIENCE_MS,
    'the bench could not be read',
  );
  const fold = view && foldVisit(view.evidence);
  if (!fold?.ok) throw new Error('the bench is no visit');
  return fold.value;
}

/** The test that the screen asks for, `full` where it asks for the meter first, or null where none is left. */
export async function testDue(page: Page): Promise<string | null> {
  return page.attribute('[data-test]', 'data-test');
}

/** Types a true speed by hand: `A` leads to its field, a moment later than a scanner types its next sign. */
export async function typeSpeed(page: Page, kmh: string): Promise<void> {
  const isTyping = async () =>
    (await page.driver
      .switchTo()
      .activeElement()
      .getTagName()
      .catch(() => '')) === 'input';
  if (!(await isTyping())) {
    await page.press('a');
    await page.driver.wait(isTyping, 10_000, 'A leads to no field');
  }
  await page.press(kmh, Key.ENTER);
}

/** Answers the test on the screen by the keys a person would use. */
export async function answer(page: Page, test: ProvingTest, seen: Observation): Promise<void> {
  switch (seen.kind) {
    case 'outcome': {
      if (test.watch.kind !== 'outcome') throw new Error(`${test.id} has no outcomes`);
      return page.press(String(test.watch.outcomes.findIndex(({ id }) => id === seen.outcome) + 1));
    }
    case 'speed':
      if ((await page.attribute('[role=tab][aria-selected=true]', 'id')) !== 'by-spot') await page.click('By hand');
      return typeSpeed(page, seen.trueKmh.toFixed(1));
    case 'seconds':
    case 'turns':
      return page.press(String(seen.figure), Key.ENTER);
    case 'metres':
      return page.press(String(seen.metres), Key.TAB, String(seen.besideMetres), Key.ENTER);
    case 'gauge':
      return page.press(String(seen.meterV), Key.TAB, String(seen.shown), Key.ENTER);
    case 'errors':
      return page.press(...(seen.shown.length === 0 ? ['1'] : [seen.shown.join(' '), Key.ENTER]));
  }
}

/** The pack was charged to the end, and reads so many volts. */
export async function chargedPack(page: Page, volts: string): Promise<void> {
  await page.press('c');
  await page.find('[aria-label="Work"] input[type="checkbox"]:checked');
  await page.press(volts, Key.ENTER);
}

const ALL_SHOWN = 'shown on the vehicle';

/**
 * Proves the unit as one in order shows it, test after test, until it is at sign off; `stop` ends before a test. `state`:
 * the unit as it was known, where the server cannot be asked.
 */
export async function prove(
  page: Page,
  stop: (test: string) => boolean = () => false,
  state?: VisitState,
): Promise<void> {
  await page.driver.wait(
    async () => (await testDue(page)) !== null || (await page.text()).includes(ALL_SHOWN),
    15_000,
    'no test came up',
  );
  const { opened } = state ?? (await benchNow(page));
  const tests = new Map(dueTests({ opened }).map((test) => [test.id, test]));
  for (;;) {
    const due = await testDue(page);
    if (due === null) break;
    if (stop(due)) return;
    const mark = () => page.attribute('[data-test]', 'data-seen');
    const was = await mark();
    if (due === 'full') await chargedPack(page, (fullPackV(opened) + 0.3).toFixed(1));
    else {
      const test = tests.get(due);
      if (!test) throw new Error(`no such test: ${due}`);
      if ((await page.attribute('[data-test]', 'data-verdict')) === 'shows') await page.press(' ');
      else await answer(page, test, shownInOrder(test, opened.pack));
    }
    await page.driver.wait(
      async () => (await testDue(page)) !== due || (await mark()) !== was,
      10_000,
      `${due} was not answered`,
    );
  }
  await page.says(ALL_SHOWN);
  await page.press(' ');
}
