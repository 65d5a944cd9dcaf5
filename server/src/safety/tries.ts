/** How many wrong tries are free: a finger slips. */
const FREE = 4;
const FIRST_WAIT_MS = 2000;
const MOST_WAIT_MS = 15 * 60_000;

/** Wrong tries, counted for the whole shop: whoever guesses from many addresses waits as well. Each one after the first few doubles the wait. */
export class Tries {
  private wrong = 0;
  private waitUntil = 0;

  /** How long the next try has to wait, ms; 0 where it need not. */
  waitMs(now: number): number {
    return Math.max(0, this.waitUntil - now);
  }
  failed(now: number): void {
    this.wrong++;
    if (this.wrong > FREE)
      this.waitUntil = now + Math.min(MOST_WAIT_MS, FIRST_WAIT_MS * 2 ** (this.wrong - FREE - 1));
  }
  succeeded(): void {
    this.wrong = 0;
    this.waitUntil = 0;
  }
}
