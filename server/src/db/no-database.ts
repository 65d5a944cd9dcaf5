/** What is wrong with the way to the database, in a sentence without its password. */
export class NoDatabase extends Error {
  constructor(why: string) {
    super(`Kevro cannot open the database that DATABASE_URL names: ${why}.`);
    this.name = 'NoDatabase';
  }
}
