// npm run dockerfile: does what the Dockerfile says, each stage on a copy of this machine's own files that is thrown away, and starts what came of it. For machines
// on which no container engine runs; it needs Linux, root, and this machine's own Node in the place of the image's.
import { execFileSync, spawn } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { root } from './lib.mjs';

/** The instructions of a Dockerfile: a name and the rest of its line. Those that only describe the image are checked to be known. */
const lines = readFileSync(join(root, 'Dockerfile'), 'utf8')
  .split('\n')
  .filter((line) => line.trim() !== '' && !line.startsWith('#'))
  .map((line) => /^([A-Z]+)\s+(.*)$/.exec(line)?.slice(1) ?? [line, '']);
const DESCRIBES = new Set(['VOLUME', 'EXPOSE', 'HEALTHCHECK']);
const ignored = readFileSync(join(root, '.dockerignore'), 'utf8').split('\n').filter(Boolean);
const isIgnored = (path) =>
  ignored.some((rule) =>
    rule.startsWith('**/')
      ? path.split('/').includes(rule.slice(3))
      : path === rule || path.startsWith(`${rule}/`),
  );

// Not on a file system that is itself made of layers: such cannot lie over another.
const folder = mkdtempSync(join(existsSync('/dev/shm') ? '/dev/shm' : '/tmp', 'kevro-dockerfile-'));
process.on('exit', () => rmSync(folder, { recursive: true, force: true }));

class Stage {
  constructor(name) {
    this.name = name;
    this.env = {};
    this.user = 'root';
    this.cwd = '/';
    for (const part of ['upper', 'work', 'whole']) mkdirSync(join(folder, name, part), { recursive: true });
  }
  at(path) {
    return join(folder, this.name, 'upper', path.startsWith('/') ? path : join(this.cwd, path));
  }
  /** The command that runs a line within this stage's own root. */
  shell(line) {
    const own = join(folder, this.name);
    const mount = `mount -t overlay overlay -o lowerdir=/,upperdir=${own}/upper,workdir=${own}/work ${own}/whole`;
    const inside = `cd ${this.cwd} && ${line}`;
    const env = Object.entries(this.env).map(([key, value]) => `${key}=${value}`);
    // The image has a user called node; here it is whoever may do least.
    const as = this.user === 'root' ? '' : 'setpriv --reuid 65534 --regid 65534 --clear-groups ';
    return [
      'unshare',
      [
        '-m',
        'sh',
        '-c',
        `${mount} && mount -t proc proc ${own}/whole/proc && mount --bind /dev ${own}/whole/dev && exec chroot ${own}/whole ${as}env HOME=/tmp ${env.join(' ')} sh -c "$0"`,
        inside,
      ],
    ];
  }
  run(line) {
    const [command, args] = this.shell(line.replaceAll('node:node', '65534:65534'));
    execFileSync(command, args, { stdio: ['ignore', 'inherit', 'inherit'] });
  }
}

const stages = new Map();
let stage;
let start;
for (const [name, rest] of lines) {
  console.log(`${name} ${rest.slice(0, 100)}`);
  if (name === 'FROM') {
    const [, , as = `stage-${stages.size}`] = /^(\S+)(?: AS (\S+))?$/.exec(rest) ?? [];
    stage = new Stage(as);
    stages.set(as, stage);
  } else if (name === 'WORKDIR') {
    stage.cwd = rest;
    mkdirSync(stage.at('/' + rest), { recursive: true });
  } else if (name === 'COPY') {
    const [from, to] = rest.replace(/^--from=\S+ /, '').split(' ');
    const other = /^--from=(\S+)/.exec(rest)?.[1];
    const source = other ? stages.get(other).at(from) : join(root, from);
    cpSync(source, stage.at(to), {
      recursive: true,
      filter: (path) => other !== undefined || !isIgnored(relative(root, path)),
    });
  } else if (name === 'RUN') stage.run(rest);
  else if (name === 'ENV')
    Object.assign(stage.env, Object.fromEntries(rest.split(' ').map((pair) => pair.split('='))));
  else if (name === 'USER') stage.user = rest;
  else if (name === 'CMD') start = JSON.parse(rest).join(' ');
  else if (!DESCRIBES.has(name))
    throw new Error(`The Dockerfile has an instruction that is not tried here: ${name}`);
}

const PORT = '4717';
stage.env.PORT = PORT;
const [command, args] = stage.shell(start);
const server = spawn(command, args, { stdio: ['ignore', 'pipe', 'inherit'], detached: true });
const said = await new Promise((done, fail) => {
  server.stdout.on('data', (text) => text.includes('ready') && done(text.toString().trim()));
  server.once('exit', (code) => fail(new Error(`it ended with ${code}`)));
});
const url = `http://127.0.0.1:${PORT}`;
const [health, page, players] = await Promise.all(
  ['/api/v1/health', '/', '/api/v1/players'].map((path) => fetch(url + path)),
);
const shop = readdirSync(join(folder, stage.name, 'upper/var/lib/kevro'));
process.kill(-server.pid, 'SIGTERM');
await new Promise((gone) => server.once('exit', gone));
console.log(
  `${said}; health ${health.status}, page ${page.status}, players ${players.status}; in the volume: ${shop.join(', ')}`,
);
process.exit(health.status === 200 && page.status === 200 ? 0 : 1);
