/** Boxes, radios and lists: a click chooses there, and Space afterwards is meant for the page. */
const TEXT =
  'input:not([type="checkbox"]):not([type="radio"]):not([type="file"]):not([type="range"]), textarea, [contenteditable="true"]';
const CONTROL = 'button, a, summary, select, input, [role="button"], [role="tab"], [role="switch"], [role="option"]';

type Means = 'pointer' | 'keys';
let lastMeans: Means = 'keys';
/** How the focus came to a control. */
const cameBy = new WeakMap<Element, Means>();

/** Whether text is typed there. */
export const takesText = (element: Element): boolean => element.matches(TEXT);

/**
 * Whether Space and Enter belong to the control that has the focus: it takes them where it was come to by Tab or arrows,
 * as everybody expects; a finger or a mouse that touched it has left it, and the keys mean "done, next" again.
 */
export function ownsItsKeys(element: Element): boolean {
  const control = element.closest(CONTROL);
  return control !== null && cameBy.get(control) !== 'pointer';
}

/** Notices how the focus came where it is, from now on. */
export function watchPointer(): void {
  document.addEventListener(
    'pointerdown',
    ({ target }) => {
      lastMeans = 'pointer';
      const control = target instanceof Element ? target.closest(CONTROL) : null;
      if (control) cameBy.set(control, 'pointer');
    },
    { capture: true },
  );
  document.addEventListener(
    'keydown',
    ({ key }) => {
      if (key === 'Tab' || key.startsWith('Arrow')) lastMeans = 'keys';
    },
    { capture: true },
  );
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof Element) cameBy.set(target, lastMeans);
  });
  // A key held down is one press: no form is sent a second time by it.
  document.addEventListener(
    'keydown',
    (event) => {
      const isText = event.target instanceof HTMLTextAreaElement;
      if (event.repeat && event.key === 'Enter' && !isText) event.preventDefault();
    },
    { capture: true },
  );
}
