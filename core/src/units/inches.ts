import { CM_PER_INCH } from './constants';

/** A tape measure in inches is read to its sixteenths. */
const SIXTEENTHS = 16;

/**
 * A length as it is read off a tape measure in inches: whole inches and a fraction of sixteenths in lowest terms.
 * @param cm 0 or more, cm; less than zero is said with a minus
 * @example inchFraction(8) // '3 1/8'
 */
export function inchFraction(cm: number): string {
  const total = Math.round((Math.abs(cm) / CM_PER_INCH) * SIXTEENTHS);
  const whole = Math.floor(total / SIXTEENTHS);
  let [part, of] = [total % SIXTEENTHS, SIXTEENTHS];
  while (part > 0 && part % 2 === 0) [part, of] = [part / 2, of / 2];
  const fraction = part > 0 ? `${part}/${of}` : '';
  const said = [whole > 0 || part === 0 ? `${whole}` : '', fraction].filter(Boolean).join(' ');
  return cm < 0 && total > 0 ? `−${said}` : said;
}
