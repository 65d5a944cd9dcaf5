import type { RequestListener, Server } from 'node:http';
import { log } from '../safety/log';
import { serverFor } from './server-for';

/** Where a server listens for other devices: at the addresses of its machine, beside the one that this machine itself uses. */
export class OtherDevices {
  private readonly servers = new Map<string, Server>();

  /** @param answer what the server answers @param port at which it listens already @param addressesNow of this machine, as they stand in a URL */
  constructor(
    private readonly answer: RequestListener,
    private readonly port: number,
    private readonly addressesNow: () => readonly string[],
  ) {}

  get addresses(): string[] {
    return [...this.servers.keys()].map((address) => `http://${address}:${this.port}`);
  }

  /** Listens at every address that this machine has now. One that cannot be had keeps nobody from the others. */
  async open(): Promise<void> {
    await Promise.all(
      this.addressesNow()
        .filter((address) => !this.servers.has(address))
        .map(async (address) => {
          const server = serverFor(this.answer);
          const listens = await new Promise<boolean>((done) => {
            server.once('error', (error) => {
              log.warn({ err: error, address }, 'an address cannot be listened at');
              done(false);
            });
            server.listen(this.port, address.replace(/^\[|\]$/g, ''), () => done(true));
          });
          if (listens) this.servers.set(address, server);
        }),
    );
  }

  close(): void {
    for (const server of this.servers.values()) {
      server.close();
      server.closeAllConnections();
    }
    this.servers.clear();
  }
}
