// Lints the OpenAPI document by the recommended rules of a well-known linter, and holds it to a size that a client can load.
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { runnerImport } from 'vite';
import { join } from 'node:path';
import { root } from './lib.mjs';

const MOST_BYTES = 300_000;
const { module } = await runnerImport(join(root, 'contract/src/openapi.ts'));
const source = JSON.stringify(module.openApiDocument());
const config = await createConfig({
  extends: ['recommended'],
  rules: {
    // A record by a fixed list of names says them as `propertyNames`.
    'no-required-schema-properties-undefined': 'off',
    // No setup is called `import`.
    'no-ambiguous-paths': 'off',
  },
});
const problems = await lintFromString({ source, absoluteRef: 'openapi.json', config });
for (const { severity, ruleId, message, location } of problems)
  console.log(`${severity} ${ruleId}: ${message} (${location[0]?.pointer ?? ''})`);
if (source.length > MOST_BYTES)
  console.log(`The document has ${source.length} bytes: more than ${MOST_BYTES}.`);
process.exitCode = problems.length > 0 || source.length > MOST_BYTES ? 1 : 0;
