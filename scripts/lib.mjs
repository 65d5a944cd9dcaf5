import { spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');

/** Runs a command and ends this process with its status where it fails. */
export function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (error) {
    console.error(`${command} could not be started: ${error.message}`);
    process.exit(1);
  }
  if (status !== 0) process.exit(status ?? 1);
}

const newest = (path) => {
  if (!existsSync(path)) return 0;
  const info = statSync(path);
  if (!info.isDirectory()) return info.mtimeMs;
  return Math.max(
    0,
    ...readdirSync(path)
      .filter((name) => name !== 'node_modules' && name !== 'dist')
      .map((name) => newest(join(path, name))),
  );
};

/** Installs the packages where they are missing or older than the lock file. */
export function install() {
  const mark = join(root, 'node_modules/.package-lock.json');
  if (existsSync(mark) && statSync(mark).mtimeMs >= statSync(join(root, 'package-lock.json')).mtimeMs) return;
  console.log('Installing packages…');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel', 'error']);
}

/** Builds the page and the server where a source is newer than what was built. */
export function build() {
  const built = Math.min(
    newest(join(root, 'web/dist/index.html')),
    newest(join(root, 'server/dist/main.js')),
  );
  const sources = ['core', 'contract', 'server', 'web', 'package-lock.json'].map((name) =>
    newest(join(root, name)),
  );
  if (built > Math.max(...sources)) return;
  console.log('Building…');
  run('npm', ['run', 'build', '--silent'], { stdio: ['ignore', 'ignore', 'inherit'] });
}

/** Runs one of the server's own tools on the shop's data, with paths as they stand where the command was typed. */
export function runTool(script) {
  run(process.execPath, [join(root, 'server/dist', script), ...process.argv.slice(2)], {
    cwd: process.env.INIT_CWD ?? process.cwd(),
    env: { KEVRO_DATA: join(root, '.data/shop'), ...process.env },
  });
}

/** How often the launcher looks whether the one that started it is still there, ms. */
const LOOK_MS = 500;

/** Starts the server and stays with it: a signal to this launcher, or the end of whatever started it, ends the server too. */
export function serve(env) {
  const child = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
    cwd: root,
    stdio: ['inherit', 'inherit', 'inherit', 'ipc'],
    env: { ...process.env, ...env },
  });
  const end = (signal) => child.kill(signal);
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => end(signal));
  // npm does not pass every signal on through its shell: without this the server would stay behind.
  const startedBy = process.ppid;
  if (process.env.npm_lifecycle_event)
    setInterval(() => process.ppid !== startedBy && end('SIGTERM'), LOOK_MS).unref();
  child.on('exit', (code) => process.exit(code ?? 0));
}
