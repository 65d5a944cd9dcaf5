import { describe, expect, it } from 'vitest';
import { migrate, migrationNumbers } from './db/migrate';
import { onServer } from './test-server';

const server = onServer();
const { call } = server;

describe('health and description', () => {
  it('answers ok and an OpenAPI 3.1 document', async () => {
    expect((await call('GET', '/health')).body).toEqual({ status: 'ok' });
    expect((await call('GET', '/openapi.json')).body.openapi).toBe('3.1.0');
  });

  it('says what is not there', async () => {
    const answer = await call('GET', '/nothing');
    expect(answer.status).toBe(404);
    expect(answer.type).toContain('application/problem+json');
    expect(answer.body).toMatchObject({ code: 'not-found', status: 404 });
  });
});

describe('what a watch over the server reads', () => {
  it('is how long answers take, by call and status, in the text format of Prometheus, and about nobody', async () => {
    const key = 'a player that is looked for';
    const { body: player } = await call('POST', '/players', {
      name: 'Wilm Ackerley',
      sports: ['tennis'],
      key,
    });
    for (let i = 0; i < 3; i++) expect((await call('GET', `/players/${player.id}/page`)).status).toBe(200);
    await call('GET', '/players/nobody/page');
    const response = await fetch(`${server.base}/metrics`);
    expect(response.headers.get('content-type')).toContain('text/plain');
    const text = await response.text();
    expect(text).toContain(
      'kevro_answer_seconds_count{method="GET",call="/players/:id/page",status="200"} 3',
    );
    expect(text).toContain(
      'kevro_answer_seconds_count{method="GET",call="/players/:id/page",status="404"} 1',
    );
    expect(text).toContain('process_cpu_seconds_total');
    expect(text).not.toContain(player.id);
    expect(text).not.toContain('nobody');
    // The lines of the format: a comment, or a name with labels, and a number (Prometheus, exposition formats).
    for (const line of text.trim().split('\n'))
      expect(line).toMatch(/^(# (HELP|TYPE) |[a-zA-Z_:][\w:]*(\{[^}]*\})? [-+\deE.InfNa]+$|$)/);
  });
});

describe('the database', () => {
  it('rolls back a transaction that fails', async () => {
    const before = (await server.db.query('select id from player')).length;
    await expect(
      server.db.transaction(async (tx) => {
        await tx.query("insert into player (id, name, level, style) values ('x', 'X', '', '')");
        throw new Error('stop');
      }),
    ).rejects.toThrow('stop');
    expect(await server.db.query('select id from player')).toHaveLength(before);
  });

  it('runs migrations once', async () => {
    const seen = () =>
      server.db.query<{ number: number; at: string }>(
        'select number, run_at as at from migration order by number',
      );
    const before = await seen();
    // As the start does it: on the tables themselves.
    await server.db.session(async (db) => {
      await db.run('set search_path = public');
      await migrate(db);
      await db.run('reset search_path');
    });
    expect(await seen()).toEqual(before);
    expect(before.map(({ number }) => number)).toEqual(migrationNumbers());
  });
});
