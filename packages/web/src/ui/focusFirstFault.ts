/**
 * Leads to the first box of a form that says what is wrong with it, once the faults are shown; nothing where none is.
 *
 * @param form its boxes with a fault have `aria-invalid`
 */
export function focusFirstFault(form: HTMLElement): void {
  // The faults are drawn after the event that asked for them; two frames on they are there.
  requestAnimationFrame(() =>
    requestAnimationFrame(() => form.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus()),
  );
}
