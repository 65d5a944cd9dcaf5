// Everything that is checked without running it, in two lanes side by side; what a lane prints comes when it has ended.
import { spawn } from 'node:child_process';
import { root } from './lib.mjs';

const LANES = [['types'], ['lint', 'format:check', 'imports', 'unused', 'api']];

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

const lane = async (names) => {
  let fine = true;
  for (const name of names) fine = (await one(name)) && fine;
  return fine;
};
const fine = await Promise.all(LANES.map(lane));
process.exit(fine.every(Boolean) ? 0 : 1);
