import { hostname, networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import { ApiProblem } from '../problem';

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/** A host without its port: `[::1]:80` is `[::1]`. */
const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

/** The addresses of this machine in its networks, as they stand in a URL; loopback is not among them. */
export const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((all) => all ?? [])
    .filter(({ internal, scopeid }) => !internal && !scopeid)
    .map(({ family, address }) => (family === 'IPv6' ? `[${address}]` : address));

export const isLoopback = (host: string): boolean => /^(localhost|127\..*|\[?::1\]?)$/.test(host);

/** Where other devices find a server that listens at a host: on every address of this machine, or on the one that was named. */
export const addressesAt = (host: string): string[] =>
  /^(0\.0\.0\.0|\[?::\]?)$/.test(host) ? ownAddresses() : [host];

/**
 * The names under which this shop may be asked for: this machine's own, and what the one who runs it adds.
 * @param more names that only its owner knows, as in KEVRO_NAMES
 */
export function ownNames(more: readonly string[] = []): (host: string) => boolean {
  const given = more.map((name) => name.trim().toLowerCase()).filter((name) => name !== '');
  const machine = hostname().toLowerCase();
  return (host) => {
    const name = nameOf(host);
    // Addresses are looked up anew: a machine gets another one while it runs.
    return [...LOOPBACK, machine, `${machine}.local`, ...given, ...ownAddresses()].includes(name);
  };
}

/**
 * Refuses what another page sends, and what comes under a name that is not the shop's: a page that somebody opens in the same browser must neither write here
 * (a plain form needs no permission) nor read (a foreign name can be made to lead to this machine).
 */
export const onlyOwnPages =
  (isOwn: (host: string) => boolean): RequestHandler =>
  (request, _response, next) => {
    const { host, origin } = request.headers;
    if (!host || !isOwn(host)) throw new ApiProblem('foreign-name');
    if (origin !== undefined && !sameHost(origin, host)) throw new ApiProblem('foreign-page');
    // Old browsers do not send it; those that do tell of requests without an origin as well, as for a picture or a script.
    const site = request.headers['sec-fetch-site'];
    const opened = request.headers['sec-fetch-mode'] === 'navigate' && request.method === 'GET';
    if (site === 'cross-site' && (!opened || request.path.startsWith('/api/')))
      throw new ApiProblem('foreign-page');
    next();
  };

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === new URL(`http://${host}`).host;
  } catch {
    return false;
  }
}

/** Only what says that it is JSON is read as JSON: a form of another page cannot say so. */
export const onlyJson: RequestHandler = (request, _response, next) => {
  const { 'content-type': type, 'content-length': length } = request.headers;
  const hasBody = request.headers['transfer-encoding'] !== undefined || Number(length ?? 0) > 0;
  const isJson = /^application\/json\s*(;|$)/i.test(type ?? '');
  if ((hasBody || type !== undefined) && !isJson && request.method !== 'GET' && request.method !== 'HEAD')
    throw new ApiProblem('not-sent-as-json');
  next();
};
