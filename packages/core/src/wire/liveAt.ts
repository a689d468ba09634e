/** Where pages listen to what others change: server-sent events, with `?tab=` an id of the page's own. */
export const LIVE_AT = '/api/events';
