import { join } from 'node:path';
import express, { type Router } from 'express';

/** The built page, for every address that is not the API's. */
export function builtPage(folder: string): Router {
  const page = express.Router();
  page.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y' }));
  // What keeps its name when it changes is asked for each time: what opens the page without the server is read so by browsers.
  page.use(express.static(folder, { index: false, maxAge: 0 }));
  // Every other path is the page's own; a file that is not there is not the page.
  page.get(/^\/(?!api\/)[^.]*$/, (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile('index.html', { root: folder });
  });
  return page;
}
