import { randomInt } from 'node:crypto';
import type { Request, RequestHandler } from 'express';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import { isSignedIn } from '../records/access';
import { theShop } from '../records/shop';

const COOKIE = 'kevro-device';

/** The address without the wrapping that IPv4 has in IPv6. */
const plain = (address: string | undefined): string => (address ?? '').replace(/^::ffff:/, '');

/**
 * Whether a request comes from the machine that Kevro runs on: over loopback, or from the very address that it came to. What something passed on may come from
 * anywhere.
 */
export function isBench({ socket, headers }: Pick<Request, 'socket' | 'headers'>): boolean {
  if (
    headers.forwarded !== undefined ||
    headers['x-forwarded-for'] !== undefined ||
    headers.via !== undefined
  )
    return false;
  const from = plain(socket.remoteAddress);
  return from === '::1' || /^127\./.test(from) || (from !== '' && from === plain(socket.localAddress));
}

/** The token that a device shows. */
export function tokenOf({ headers }: Pick<Request, 'headers'>): string | undefined {
  for (const part of (headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === COOKIE && value) return value;
  }
  return undefined;
}

/** What a device is given to keep: no script can read it, and no other page's request carries it. @param hours 0 takes it back */
export const cookieOf = (token: string, hours: number): string =>
  `${COOKIE}=${token}; HttpOnly; SameSite=Strict; Path=/; Max-Age=${Math.round(hours * 3600)}`;

export async function maySee(request: Request, db: Db, now: Clock): Promise<boolean> {
  if (isBench(request)) return true;
  const token = tokenOf(request);
  if (!token) return false;
  const { signedInHours } = await theShop(db);
  return isSignedIn(db, token, signedInHours, now());
}

/** Lets nobody on but the bench machine and devices that are signed in. */
export const onlySignedIn =
  (db: Db, now: Clock): RequestHandler =>
  async (request, _response, next) => {
    if (!(await maySee(request, db, now))) throw new ApiProblem('sign-in');
    next();
  };

/** Lets only the bench machine on: who holds a tablet must not change the lock. */
export const onlyBench: RequestHandler = (request, _response, next) => {
  if (!isBench(request)) throw new ApiProblem('bench-only');
  next();
};

/** How long a code that is shown at the bench lets a device in, ms. */
const PAIRING_MS = 10 * 60_000;
/** No letter that is read as another. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';

/** Codes that let one device in each, once. */
export class Pairings {
  private readonly codes = new Map<string, number>();

  make(now: number): { code: string; until: number } {
    for (const [code, until] of this.codes) if (until <= now) this.codes.delete(code);
    const code = Array.from({ length: 8 }, () => LETTERS[randomInt(LETTERS.length)]).join('');
    const until = now + PAIRING_MS;
    this.codes.set(code, until);
    return { code, until };
  }
  /** Whether the code lets somebody in now; then it does no more. */
  use(code: string, now: number): boolean {
    const said = code.toUpperCase().replaceAll(/[^A-Z0-9]/g, '');
    const until = this.codes.get(said);
    this.codes.delete(said);
    return until !== undefined && until > now;
  }
}
