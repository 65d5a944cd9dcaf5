// npm run pack: Kevro as one file, which starts with npx and needs nothing of this folder.
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { build, install, root } from './lib.mjs';

install();
build();

const into = resolve(process.argv[2] ?? root);
const folder = mkdtempSync(join(tmpdir(), 'kevro-pack-'));
const read = (path) => JSON.parse(readFileSync(join(root, path), 'utf8'));
const { version, description, license, engines } = read('package.json');
const locked = read('package-lock.json').packages;

/** What the server still asks for when it is built, its own and what it has of the core and the contract, each as the lock file has it. */
const dependencies = Object.fromEntries(
  ['server', 'core', 'contract']
    .flatMap((workspace) => Object.keys(read(`${workspace}/package.json`).dependencies ?? {}))
    .filter((name) => !name.startsWith('@kevro/'))
    .map((name) => [name, locked[`node_modules/${name}`].version]),
);

mkdirSync(into, { recursive: true });
mkdirSync(join(folder, 'web'));
mkdirSync(join(folder, 'server'));
cpSync(join(root, 'web/dist'), join(folder, 'web/dist'), { recursive: true });
cpSync(join(root, 'server/dist'), join(folder, 'server/dist'), { recursive: true });
for (const file of ['README.md', 'CHANGELOG.md']) cpSync(join(root, file), join(folder, file));
cpSync(join(root, 'scripts/kevro.mjs'), join(folder, 'kevro.mjs'));
writeFileSync(
  join(folder, 'package.json'),
  JSON.stringify(
    {
      name: 'kevro',
      version,
      description,
      license,
      engines,
      type: 'module',
      bin: { kevro: 'kevro.mjs' },
      dependencies,
    },
    null,
    2,
  ),
);
const { status, stdout } = spawnSync('npm', ['pack', '--silent', '--pack-destination', into], {
  cwd: folder,
  encoding: 'utf8',
  stdio: ['ignore', 'pipe', 'inherit'],
});
rmSync(folder, { recursive: true, force: true });
if (status !== 0) process.exit(status ?? 1);
console.log(join(into, stdout.trim().split('\n').at(-1) ?? ''));
