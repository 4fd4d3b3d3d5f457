import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { WebDriver } from 'selenium-webdriver';
import type { Browser } from '../../scripts/lib/browser.mjs';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/**
 * Rules of WCAG 2.2 AA and good practice that the page as it stands breaks, with the first place of each. Where colours
 * are the reader's own their contrast is not ours to judge.
 */
export async function violationsOn(
  driver: WebDriver,
  { colours = 'ours' }: { readonly colours?: 'ours' | 'theirs' } = {},
): Promise<string[]> {
  await driver.executeScript(axe);
  return driver.executeAsyncScript(`
    const done = arguments[arguments.length - 1];
    axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'],
      rules: { 'color-contrast': { enabled: ${colours === 'ours'} } },
    })
      .then((r) => done(r.violations.map((v) => v.id + ': ' + v.nodes[0].html.slice(0, 160) + ' ' + (v.nodes[0].any[0]?.message ?? ''))));
  `);
}

/** Least height of what a finger hits, px: at the stand with a glove, elsewhere. */
const FINGER = { bench: 43, elsewhere: 24 };

/**
 * What does not fit on the page at its size, in words: sideways scrolling, a button whose words are cut off, one too
 * small for a finger, one that something else lies over, words that something lies over.
 */
function misfitsOn(driver: WebDriver): Promise<string[]> {
  return driver.executeScript(
    `
    const finger = arguments[0];
    const page = document.documentElement;
    const found = [];
    if (page.scrollWidth > page.clientWidth) {
      const widest = [...document.querySelectorAll('body *')].filter((e) => e.getBoundingClientRect().right > page.clientWidth + 1
        && !e.closest('[style*="overflow"]') && getComputedStyle(e).position !== 'fixed')
        .map((e) => e.tagName + '.' + String(e.className).slice(0, 40));
      found.push('sideways by ' + (page.scrollWidth - page.clientWidth) + ': ' + widest.slice(0, 3).join(', '));
    }
    for (const each of document.querySelectorAll('main button, main [role=tab], header button')) {
      const box = each.getBoundingClientRect();
      if (!each.checkVisibility() || box.width <= 1 || box.height <= 1) continue;
      const name = (each.getAttribute('aria-label') ?? (each.innerText || each.outerHTML)).trim().replace(/\\s+/g, ' ').slice(0, 60);
      const style = getComputedStyle(each);
      const isWordy = each.innerText.trim() !== '' && style.textOverflow !== 'ellipsis';
      if (isWordy && (each.scrollWidth > each.clientWidth + 2 || each.scrollHeight > each.clientHeight + 2)) found.push('cut off: ' + name);
      const least = each.closest('section[aria-label=Work]') && !each.closest('table') ? finger.bench : finger.elsewhere;
      if (box.height < least - 0.5) found.push('only ' + Math.round(box.height) + ' high: ' + name);
      if (each.disabled) continue;
      each.scrollIntoView({ block: 'center', inline: 'center' });
      const now = each.getBoundingClientRect();
      const over = document.elementFromPoint(now.left + now.width / 2, now.top + now.height / 2);
      if (over && over !== each && !each.contains(over) && !over.contains(each)) found.push('covered: ' + name + ' by ' + over.tagName + '.' + String(over.className).slice(0, 40));
    }
    // What is there for the ear alone is clipped to nothing.
    const isForTheEar = (each) => each !== null && (getComputedStyle(each).clipPath === 'inset(50%)' || isForTheEar(each.parentElement));
    const linesOf = (each) => {
      const walker = document.createTreeWalker(each, NodeFilter.SHOW_TEXT);
      const texts = [];
      while (walker.nextNode()) if (!isForTheEar(walker.currentNode.parentElement)) texts.push(walker.currentNode);
      const rects = texts.flatMap((text) => {
        const range = document.createRange();
        range.selectNodeContents(text);
        return [...range.getClientRects()];
      });
      return rects.filter(({ width, height }) => width > 1 && height > 1);
    };
    const frameOf = (each) => each === null || /auto|scroll/.test(getComputedStyle(each).overflowY) ? each : frameOf(each.parentElement);
    // Words that something else lies over cannot be read, whatever can still be pressed.
    for (const each of document.querySelectorAll('main :is(h1, h2, h3, p, dt, dd, label, legend, strong, small)')) {
      const words = each.innerText.trim();
      if (words === '' || !each.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
      each.scrollIntoView({ block: 'center', inline: 'center' });
      const lines = linesOf(each);
      const box = lines[Math.floor(lines.length / 2)];
      if (!box) continue;
      // What is scrolled away within its frame is not lain over.
      const frame = frameOf(each.parentElement)?.getBoundingClientRect();
      const y = box.top + box.height / 2;
      if (frame && (y < frame.top || y > frame.bottom)) continue;
      const over = document.elementFromPoint(box.left + box.width / 2, y);
      if (over && over !== each && !each.contains(over) && !over.contains(each))
        found.push('lain over: ' + words.replace(/\\s+/g, ' ').slice(0, 40) + ' by ' + over.tagName + '.' + String(over.className).slice(0, 40));
    }
    scrollTo(0, 0);
    return found;
  `,
    FINGER,
  );
}

const SETTLES_MS = 1_500;

/** A bench, a tablet, a phone, and a screen enlarged fourfold. */
const SIZES: readonly (readonly [width: number, height: number])[] = [
  [1280, 800],
  [1024, 768],
  [390, 844],
  [320, 640],
];

/** The same at each size, the narrowest left out where it is not meant; the window is as before then. */
export async function misfitsAtSizes({ driver, setViewport }: Browser, least = 320): Promise<string[]> {
  const found: string[] = [];
  for (const [width, height] of SIZES.filter(([each]) => each >= least)) {
    await setViewport(width, height);
    // A plot takes its new size a frame or two later.
    let now: string[] = [];
    await driver.wait(async () => (now = await misfitsOn(driver)).length === 0, SETTLES_MS).catch(() => undefined);
    found.push(...now.map((each) => `${width} px: ${each}`));
  }
  await setViewport(1280, 800);
  return found;
}

/**
 * What a hand at the stand misses on the page as it stands, in words: an act that has no key, two acts on one, one that
 * leads on and is out of sight, presses that are due and not shown.
 */
export async function missedByHand(driver: WebDriver): Promise<string[]> {
  let missed: string[] = [];
  const look = async (): Promise<boolean> => (missed = await driver.executeScript<string[]>(MISSED)).length === 0;
  // What is drawn anew at another size takes a frame or two.
  await driver.wait(look, SETTLES_MS).catch(() => undefined);
  return missed;
}

const MISSED = `
    const found = [];
    for (const act of document.querySelectorAll('section[aria-label=Work] [data-act]')) {
      if (!act.checkVisibility()) continue;
      const name = act.innerText.trim().replace(/\\s+/g, ' ');
      if (!act.querySelector('kbd')) found.push('no key: ' + name);
      const box = act.getBoundingClientRect();
      const there = document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2);
      if (act.dataset.act === 'main' && !act.contains(there)) found.push('out of sight: ' + name);
    }
    const keys = [...document.querySelectorAll('main kbd')].filter((key) => key.checkVisibility()).map((key) => key.innerText.trim());
    for (const key of new Set(keys.filter((each, i) => each.length === 1 && keys.indexOf(each) !== i))) found.push('two acts on ' + key);
    const presses = document.querySelector('[aria-label="Next presses"]');
    if (presses && presses.getBoundingClientRect().height < 30) found.push('next presses are not shown');
    return found;
  `;
