import { Panel } from '../ui/Panel.js';

/** Stands where a view will be while its part of the application is on its way. */
export function Loading() {
  return <Panel aria-busy>Opening the page …</Panel>;
}
