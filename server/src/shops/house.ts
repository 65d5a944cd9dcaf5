import type { RequestListener } from 'node:http';
import express, { type Express, type Request, type RequestHandler } from 'express';
import type { Access } from '@kevro/contract';
import { ApiProblem, problemHandler } from '../problem';
import { cookieNamed } from '../safety/access';
import { safeHeaders } from '../safety/headers';
import { onlyOwnPages } from '../safety/own-pages';
import { CODE } from './list';

const COOKIE = 'kevro-shop';
/** As long as a browser keeps a cookie. */
const MOST_SECONDS = 400 * 24 * 3600;

/** Which shop a browser asks for: what it was told last. It lets nobody in. */
const codeOf = (request: Request): string | undefined => cookieNamed(COOKIE, request);

export interface House {
  /** The application of a shop; undefined where there is none that is asked for so. */
  shop: (code: string) => Promise<RequestListener | undefined>;
  /** Where the built page is, for who has not said which shop. */
  page: RequestHandler;
  isOwnName: (host: string) => boolean;
}

/** Several shops at one address: each browser asks for the one that it was told of, by an address with `?shop=` or where it signs in. */
export function houseOf({ shop, page, isOwnName }: House): Express {
  const house = express();
  house.disable('x-powered-by');
  house.use(safeHeaders);
  house.use(onlyOwnPages(isOwnName));
  // An address that names a shop is gone to without it: what is written down of it then names none.
  house.get(/^\/(?!api\/)[^.]*$/, (request, response, next) => {
    const { shop: named, ...rest } = request.query as Record<string, string>;
    if (typeof named !== 'string') return next();
    const code = named.trim().toLowerCase();
    if (!CODE.test(code)) throw new ApiProblem('no-such-shop');
    const others = new URLSearchParams(rest).toString();
    response
      .set('Set-Cookie', `${COOKIE}=${code}; HttpOnly; SameSite=Lax; Path=/; Max-Age=${MOST_SECONDS}`)
      .redirect(303, request.path + (others ? `?${others}` : ''));
  });
  house.use(async (request, response, next) => {
    const code = codeOf(request);
    const own = code === undefined ? undefined : await shop(code);
    if (own) own(request, response);
    else next();
  });
  // Nobody has said which shop, or one that there is not.
  house.get('/api/v1/access', (request, response) => {
    const nowhere: Access = {
      bench: false,
      signedIn: false,
      role: null,
      who: '',
      named: true,
      passphraseSet: true,
      several: true,
      shop: codeOf(request) ?? '',
      alwaysOpen: false,
      addresses: [],
    };
    response.json(nowhere);
  });
  house.get('/api/v1/health', (_request, response) => {
    response.json({ status: 'ok' });
  });
  house.use('/api', (request) => {
    throw new ApiProblem(request.path === '/v1/sign-in' ? 'no-such-shop' : 'sign-in');
  });
  house.use(page);
  house.use(problemHandler);
  return house;
}
