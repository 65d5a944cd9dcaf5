import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt);
/** OWASP's password storage cheat sheet: N 2^17, r 8, p 1. */
const COST: ScryptOptions = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 };
const BYTES = 32;

/** A passphrase as it is kept. */
export interface Kept {
  salt: string;
  hash: string;
}

export async function keep(passphrase: string): Promise<Kept> {
  const salt = randomBytes(16);
  return {
    salt: salt.toString('base64'),
    hash: (await derive(passphrase.normalize('NFKC'), salt, BYTES, COST)).toString('base64'),
  };
}

export async function isRight(passphrase: string, { salt, hash }: Kept): Promise<boolean> {
  const given = await derive(passphrase.normalize('NFKC'), Buffer.from(salt, 'base64'), BYTES, COST);
  return timingSafeEqual(given, Buffer.from(hash, 'base64'));
}
