import type { RequestListener } from 'node:http';
import { sentence, statusOf } from '@kevro/contract';

/** How soon whoever asked may ask again, s. */
const AGAIN_S = 2;
const PAGE = `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<meta name="color-scheme" content="light dark">
<title>Kevro is starting</title>
<body style="font: 1.2rem sans-serif; margin: 20vh auto; max-width: 30rem; padding: 0 1rem">
<p role="status">Kevro is starting. The page opens by itself in a few seconds.</p>
</body>
</html>
`;

/** Answers until the shop is open: a person with a page that opens the shop by itself, a program with a problem. */
export const starting: RequestListener = (request, response) => {
  const isPerson =
    request.method === 'GET' &&
    !request.url?.startsWith('/api/') &&
    (request.headers.accept ?? '').includes('text/html');
  const again = { 'Retry-After': String(AGAIN_S), 'Cache-Control': 'no-store' };
  if (isPerson) {
    const type = { 'Content-Type': 'text/html; charset=utf-8', Refresh: String(AGAIN_S) };
    response.writeHead(statusOf('starting'), { ...again, ...type }).end(PAGE);
    return;
  }
  response.writeHead(statusOf('starting'), { ...again, 'Content-Type': 'application/problem+json' }).end(
    JSON.stringify({
      type: 'urn:kevro:problem:starting',
      title: 'Not now',
      status: statusOf('starting'),
      detail: sentence('starting'),
      code: 'starting',
    }),
  );
};
