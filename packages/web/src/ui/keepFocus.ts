/** Marks what was given the focus because no control had it: a place that a view may take it from. */
const KEPT = 'data-kept-focus';

/** Places that a control can lie in, the nearest of which gets its focus. */
const PLACES = 'section, fieldset, form, article, aside, nav, dialog, main';

/** True if nobody has the focus, or only a place that it fell back to: then a view may take it. */
export function isFocusFree(): boolean {
  const { activeElement, body } = document;
  return (
    activeElement === null || activeElement === body || activeElement.hasAttribute(KEPT) || activeElement.id === 'work'
  );
}

/**
 * Keeps the focus from falling to the body where a control that has it goes away: it goes to the nearest place that is left of those the
 * control lay in, so that Tab goes on from there. No button or box takes it unasked.
 *
 * @returns ends it
 */
export function keepFocus(root: Document = document): () => void {
  let last: { readonly control: Element; readonly places: readonly HTMLElement[] } | null = null;
  const onFocus = ({ target }: Event) => {
    if (!(target instanceof Element)) return;
    const places: HTMLElement[] = [];
    for (let at = target.parentElement?.closest<HTMLElement>(PLACES) ?? null; at; ) {
      places.push(at);
      at = at.parentElement?.closest<HTMLElement>(PLACES) ?? null;
    }
    last = { control: target, places };
  };
  const onChange = () => {
    if (last === null || last.control.isConnected) return;
    const { places } = last;
    last = null;
    if (root.activeElement !== null && root.activeElement !== root.body) return;
    const place = places.find((one) => one.isConnected && one.checkVisibility?.() !== false);
    if (!place) return;
    if (!place.hasAttribute('tabindex')) {
      place.tabIndex = -1;
      place.setAttribute(KEPT, '');
      // A place is no stop: once it is left it is as it was.
      place.addEventListener(
        'blur',
        () => {
          place.removeAttribute('tabindex');
          place.removeAttribute(KEPT);
        },
        { once: true },
      );
    }
    place.focus({ preventScroll: true });
  };
  root.addEventListener('focusin', onFocus);
  const observer = new MutationObserver(onChange);
  observer.observe(root, { childList: true, subtree: true });
  return () => {
    root.removeEventListener('focusin', onFocus);
    observer.disconnect();
  };
}
