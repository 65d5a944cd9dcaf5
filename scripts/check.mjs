// Everything that is checked without running it, two checks side by side, the longest first; what a check prints comes when it has ended.
import { spawn } from 'node:child_process';
import { root } from './lib.mjs';

const CHECKS = ['lint', 'types', 'format:check', 'imports', 'unused', 'api'];

const one = (name) =>
  new Promise((done) => {
    const child = spawn('npm', ['run', '--silent', name], { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const from of [child.stdout, child.stderr]) from.on('data', (part) => (said += part));
    child.on('exit', (code) => {
      console.log(`${name}: ${code === 0 ? 'ok' : `failed\n${said}`}`);
      done(code === 0);
    });
  });

/** Takes the next check until none is left. */
const lane = async () => {
  let fine = true;
  for (let name = CHECKS.shift(); name; name = CHECKS.shift()) fine = (await one(name)) && fine;
  return fine;
};
const fine = await Promise.all([lane(), lane()]);
process.exit(fine.every(Boolean) ? 0 : 1);
