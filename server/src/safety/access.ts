import { randomBytes, randomInt, timingSafeEqual } from 'node:crypto';
import type { Request, RequestHandler, Response } from 'express';
import type { Role } from '@kevro/contract';
import type { Clock } from '../clock';
import type { Db } from '../db/db';
import { ApiProblem } from '../problem';
import { deviceOf, hashOf, lockOf } from '../records/access';
import { theShop } from '../records/shop';
import { mayStore } from './room';

const COOKIE = 'kevro-device';

/** The address without the wrapping that IPv4 has in IPv6. */
const plain = (address: string | undefined): string => (address ?? '').replace(/^::ffff:/, '');

/**
 * Whether a request comes from the machine that Kevro runs on: over loopback, or from the very address that it came to. A proxy that says nothing of itself looks
 * the same, so that this counts only while the shop has no passphrase.
 */
export function isFromHere({ socket, headers }: Pick<Request, 'socket' | 'headers'>): boolean {
  if (
    headers.forwarded !== undefined ||
    headers['x-forwarded-for'] !== undefined ||
    headers.via !== undefined
  )
    return false;
  const from = plain(socket.remoteAddress);
  return from === '::1' || /^127\./.test(from) || (from !== '' && from === plain(socket.localAddress));
}

/** What a browser shows under a name that it was given. */
export function cookieNamed(wanted: string, { headers }: Pick<Request, 'headers'>): string | undefined {
  for (const part of (headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === wanted && value) return value;
  }
  return undefined;
}
/** The token that a device shows. */
export const tokenOf = (request: Pick<Request, 'headers'>): string | undefined =>
  cookieNamed(COOKIE, request);

/** What a device is given to keep: no script can read it, and no other page's request carries it. @param hours 0 takes it back */
export const cookieOf = (token: string, hours: number): string =>
  `${COOKIE}=${token}; HttpOnly; SameSite=Strict; Path=/; Max-Age=${Math.round(hours * 3600)}`;

/** As long as a browser keeps a cookie: the bench stays the bench until the passphrase changes. */
export const BENCH_HOURS = 400 * 24;
export const BENCH_NAME = 'bench';
const NO_NAME = 'another device';
const BY_LINK = 'a player’s link';

/** Names under which Kevro itself writes in the change log. */
const OWN_NAMES = [BENCH_NAME, NO_NAME, BY_LINK].map(lettersOf);
function lettersOf(name: string): string {
  return name
    .normalize('NFKC')
    .toLowerCase()
    .replaceAll(/[^\p{L}]/gu, '');
}
/** Whether a device may call itself so: no name that stands for somebody else in the change log. */
export const mayBeCalled = (name: string): boolean => name === '' || !OWN_NAMES.includes(lettersOf(name));

/** Who a request comes from. */
export interface Caller {
  /** A browser of the bench machine. */
  bench: boolean;
  /** What it may do; undefined where it may not come in. */
  role: Role | undefined;
  /** Somebody of the shop who signed in by name. */
  staffId: string | undefined;
  /** As the change log has it. */
  name: string;
}
const BENCH: Caller = { bench: true, role: 'owner', staffId: undefined, name: BENCH_NAME };
const STRANGER: Caller = { bench: false, role: undefined, staffId: undefined, name: BY_LINK };

/**
 * The door of the shop. Without a passphrase this machine is the bench and nobody else comes in. As soon as there is one, every browser is known by its own
 * sign-in, those of the bench too: an address lets nobody in.
 */
export class Door {
  /** A lock stays; that there is none may have changed at another process. */
  private locked = false;
  /**
   * @param ownersKey for the commands that run on this machine beside the server: whoever can read the shop's folder is its owner
   * @param isAlone whether this machine has but this shop: else nobody is its bench by an address
   */
  constructor(
    private readonly db: Db,
    private readonly now: Clock,
    readonly ownersKey = randomBytes(32).toString('base64url'),
    private readonly isAlone = true,
  ) {}

  async isLocked(): Promise<boolean> {
    return (this.locked ||= (await lockOf(this.db)) !== undefined);
  }
  /** A passphrase was set. */
  lock(): void {
    this.locked = true;
  }

  private isOwner({ headers }: Request): boolean {
    const shown = Buffer.from(headers.authorization ?? '');
    const right = Buffer.from(`Bearer ${this.ownersKey}`);
    return shown.length === right.length && timingSafeEqual(shown, right);
  }

  async callerOf(request: Request): Promise<Caller> {
    if (this.isOwner(request)) return BENCH;
    if (!(await this.isLocked())) return this.isAlone && isFromHere(request) ? BENCH : STRANGER;
    const token = tokenOf(request);
    const device = token === undefined ? undefined : await deviceOf(this.db, token);
    if (!device) return STRANGER;
    if (device.bench) return BENCH;
    const { signedInHours } = await theShop(this.db);
    const isOver = Date.parse(this.now()) - Date.parse(device.signedInAt) >= signedInHours * 3_600_000;
    if (isOver || device.left) return STRANGER;
    const { staffId } = device;
    // A device that came in without a name is one of the bench's: it works there.
    return {
      bench: false,
      role: device.role ?? 'fitter',
      staffId: staffId ?? undefined,
      name: device.name || NO_NAME,
    };
  }
}

/** Finds out who a request comes from, for everything that follows. */
export const knowingCaller =
  (door: Door): RequestHandler =>
  async (request, response, next) => {
    (response.locals as { caller?: Caller }).caller = await door.callerOf(request);
    next();
  };
export const callerOf = (response: Response): Caller =>
  (response.locals as { caller?: Caller }).caller ?? STRANGER;

/** Lets nobody on but the bench and who is signed in. */
export const onlySignedIn: RequestHandler = (_request, response, next) => {
  if (!callerOf(response).role) throw new ApiProblem('sign-in');
  next();
};
/** Lets on nobody who may only look. */
export const notForReaders: RequestHandler = (_request, response, next) => {
  if (callerOf(response).role === 'reader') throw new ApiProblem('reader-only');
  next();
};
/** Lets who may only look change nothing. */
export const onlyWhoMay: RequestHandler = (request, response, next) =>
  mayStore(request) ? notForReaders(request, response, next) : next();

/** Lets only the bench on: who holds a tablet must not change the lock. */
export const onlyBench: RequestHandler = (_request, response, next) => {
  if (!callerOf(response).bench) throw new ApiProblem('bench-only');
  next();
};
export const onlyOwner: RequestHandler = (_request, response, next) => {
  if (callerOf(response).role !== 'owner') throw new ApiProblem('owner-only');
  next();
};

/** How long a code that is shown at the bench lets a device in, ms. */
const PAIRING_MS = 10 * 60_000;
/** No letter that is read as another. */
const LETTERS = 'ABCDEFGHJKLMNPQRSTUVWXYZ23456789';
const code = (length: number): string =>
  Array.from({ length }, () => LETTERS[randomInt(LETTERS.length)]).join('');

/** Codes that let one device in each, once: at whichever process it comes to, but for the one that this process printed for a browser of its own machine. */
export class Pairings {
  private forBench: string | undefined;

  constructor(private readonly db: Db) {}

  async make(now: number): Promise<{ code: string; until: number }> {
    await this.db.query('delete from pairing where until <= $1', [new Date(now).toISOString()]);
    const until = now + PAIRING_MS;
    const made = code(8);
    await this.db.query('insert into pairing (code_hash, until) values ($1, $2)', [
      hashOf(made),
      new Date(until).toISOString(),
    ]);
    return { code: made, until };
  }
  /** For another browser of this machine; it waits until it is used. */
  makeForBench(): string {
    return (this.forBench = code(16));
  }
  /** What the code lets in now; then it does no more. */
  async use(said: string, now: number): Promise<{ bench: boolean } | undefined> {
    const plainCode = said.toUpperCase().replaceAll(/[^A-Z0-9]/g, '');
    if (plainCode !== '' && plainCode === this.forBench) {
      this.forBench = undefined;
      return { bench: true };
    }
    const [found] = await this.db.query<{ until: string }>(
      'delete from pairing where code_hash = $1 returning until',
      [hashOf(plainCode)],
    );
    return found && Date.parse(found.until) > now ? { bench: false } : undefined;
  }
}
