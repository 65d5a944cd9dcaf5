import { request } from 'node:http';

export interface Raw {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: string;
}
/** A request as a browser or anything else can send it: with headers that `fetch` would not let through. */
export const rawTo =
  (server: { base: string }) =>
  (
    method: string,
    path: string,
    headers: Record<string, string> = {},
    body?: string | Buffer,
  ): Promise<Raw> =>
    new Promise((done, fail) => {
      const { port } = new URL(server.base);
      const sent = request({ host: '127.0.0.1', port, method, path, headers }, (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          done({
            status: answer.statusCode ?? 0,
            headers: answer.headers,
            body: Buffer.concat(parts).toString(),
          }),
        );
      });
      sent.on('error', fail);
      sent.end(body);
    });
export const code = ({ body }: Raw): string => (JSON.parse(body) as { code: string }).code;
export const player = JSON.stringify({ name: 'Wanda Quell', sports: ['tennis'] });
export const json = { 'content-type': 'application/json' };
