// Programs of Debian that the tests need, installed where they are missing and that is permitted.
import { spawnSync } from 'node:child_process';

/**
 * @param name the package
 * @param isThere whether its programs are
 * @param otherwise what to do where it may not be installed
 */
export function ensurePackage(name, isThere, otherwise) {
  if (isThere()) return;
  if (process.getuid?.() !== 0) {
    console.error(otherwise);
    process.exit(1);
  }
  console.log(`Installing ${name}…`);
  const apt = (...args) =>
    spawnSync('apt-get', args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
  apt('update', '-qq');
  apt('install', '-y', '-qq', '--no-install-recommends', name);
  if (!isThere()) {
    console.error(`${name} could not be installed.`);
    process.exit(1);
  }
}
