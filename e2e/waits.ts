/** How long anything on a page is waited for, ms: a wrong selector is told in seconds, and a busy machine is no fault of the page. */
export const WAIT_MS = 30_000;
