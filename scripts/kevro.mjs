#!/usr/bin/env node
// The command of the package: kevro serves a shop; backup, restore, owner and shops are the commands beside it.
const [, , command] = process.argv;
const COMMANDS = {
  backup: './server/dist/backup-shop.js',
  restore: './server/dist/restore-shop.js',
  owner: './server/dist/owner.js',
  shops: './server/dist/shops.js',
};
if (command === undefined) await import('./server/dist/main.js');
else if (COMMANDS[command]) {
  process.argv.splice(2, 1);
  await import(COMMANDS[command]);
} else {
  console.error(
    'kevro serves a shop; kevro backup [file] saves it; kevro restore file [folder] makes one from a backup; kevro owner name lets an owner in, with the passphrase on the standard input; kevro shops lists, adds and renames the shops of a database.',
  );
  process.exit(1);
}
