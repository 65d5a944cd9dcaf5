import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  OpenAPIClientAxios,
  type AxiosResponse,
  type OpenAPIClient,
  type UnknownOperationMethod,
} from 'openapi-client-axios';
import { startTestServer, type TestServer } from './test-server';

/** A client that a general-purpose library makes of the document alone, by the names of its operations. */
describe('a client made of the OpenAPI document', () => {
  let server: TestServer;
  let client: OpenAPIClient;
  beforeAll(async () => {
    server = await startTestServer();
    client = await new OpenAPIClientAxios({
      definition: `${server.base}/openapi.json`,
      withServer: { url: server.base },
    }).init();
  });
  afterAll(() => server.close());
  const call = async (
    ...[name, ...given]: [string, ...Parameters<UnknownOperationMethod>]
  ): Promise<AxiosResponse> => {
    const operation = client[name] as UnknownOperationMethod | undefined;
    if (!operation) throw new Error(`The document has no operation ${name}`);
    return operation(...given);
  };

  it('plans', async () => {
    const { data } = await call(
      'plan',
      {},
      {
        shape: { sport: 'tennis', lengthCm: 68.58 },
        specs: { massG: 320, balanceCm: 32.5, swingWeight: 318, twistWeight: 13.5 },
        target: {
          massG: { value: 326, tolerance: 2 },
          swingWeight: { value: 325, tolerance: 3 },
        },
      },
    );
    expect(data.plans[0]).toMatchObject({ withinTolerance: true });
  });

  it('imports a list, and finds its setups by what they are', async () => {
    const csv = 'name;weight (g);swing weight;stiffness\nLio Marr;331.5;329;64\n';
    const { data } = await call('importSetups', { mode: 'store' }, csv, {
      headers: { 'content-type': 'text/csv' },
    });
    expect(data).toMatchObject({ stored: 1, problems: [] });
    const found = await call('setups', { minStiffness: 60 });
    expect(found.data.rows).toMatchObject([
      { name: 'Lio Marr', specs: { massG: 331.5, swingWeight: 329, stiffness: 64 } },
    ]);
  });

  it('reads a frame that it stored', async () => {
    const made = await call(
      'addFrame',
      {},
      {
        tag: 'CL-1',
        maker: 'Velmond',
        model: 'Arc 100',
        shape: { sport: 'tennis', lengthCm: 68.58 },
      },
    );
    const { data } = await call('frame', { id: made.data.id });
    expect(data.frame).toMatchObject({ tag: 'CL-1', model: 'Arc 100' });
  });

  it('says what is wrong, as the document has it', async () => {
    const refused = await call('frame', { id: 'none' }, null, { validateStatus: () => true });
    expect(refused).toMatchObject({ status: 404, data: { code: 'not-found' } });
  });
});
