import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A device of the tests at a pseudo terminal: what it says is sent, what it is asked is heard. */
export class Terminal {
  private readonly folder = mkdtempSync(join(tmpdir(), 'kevro-port-'));
  /** The name of its port; the same after it was plugged in again. */
  readonly path = join(this.folder, 'port');
  private child: ChildProcess | undefined;
  private timers: NodeJS.Timeout[] = [];
  private asked: (text: string) => void = () => undefined;

  async plug(): Promise<this> {
    this.child = spawn('socat', [`PTY,raw,echo=0,link=${this.path}`, 'STDIO'], {
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    this.child.stdin?.on('error', () => undefined);
    this.child.stdout?.on('data', (bytes: Buffer) => this.asked(bytes.toString('latin1')));
    while (!existsSync(this.path)) await new Promise((again) => setTimeout(again, 10));
    return this;
  }
  async unplug(): Promise<void> {
    this.stopSaying();
    const { child } = this;
    this.child = undefined;
    if (!child) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill();
    await gone;
    rmSync(this.path, { force: true });
  }
  say(text: string): void {
    this.child?.stdin?.write(Buffer.from(text, 'latin1'));
  }
  /** Says it again and again. */
  keepSaying(text: () => string, everyMs = 60): void {
    this.timers.push(setInterval(() => this.say(text()), everyMs));
  }
  stopSaying(): void {
    for (const timer of this.timers) clearInterval(timer);
    this.timers = [];
  }
  /** Answers what it is asked. */
  onAsked(answer: (text: string) => string): void {
    this.asked = (text) => this.say(answer(text));
  }
  async close(): Promise<void> {
    await this.unplug();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
