import { spawn, type ChildProcess } from 'node:child_process';
import { readdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Where the seeded data lies that every test copies. */
export const templateFolder = join(root, '.cache', 'e2e-template');
/** The same as a backup. */
export const templateBackup = join(root, '.cache', 'e2e-template.zip');

/**
 * What a server that lives for seconds need not do: optimise the database's code, and tidy a small young heap again and
 * again. A third less work per start.
 */
const quickStart = ['--liftoff-only', '--max-semi-space-size=64'];

/** The real built server on a data folder, on a port of its own that it keeps over restarts. */
export class TestServer {
  private child: ChildProcess | null = null;
  private port = 0;
  private restored = '';

  constructor(
    private readonly folder: string,
    private readonly args: string[] = ['--demo'],
  ) {}

  get url(): string {
    return `http://127.0.0.1:${this.port}`;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, [...quickStart, join(root, 'server/dist/main.js'), ...this.args], {
      env: { ...process.env, TORVEK_DATA: this.folder, PORT: String(this.port) },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.child = child;
    this.port = await new Promise<number>((resolve, reject) => {
      child.stdout.on('data', (chunk) => {
        const match = /http:\/\/[^:]+:(\d+)/.exec(String(chunk));
        if (match !== null) resolve(Number(match[1]));
      });
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
    });
  }

  /** Everything there is, as its owner takes it away. */
  async backup(): Promise<Uint8Array> {
    const answer = await fetch(`${this.url}/api/backup`, { headers: { cookie: await this.owner() } });
    if (!answer.ok) throw new Error(`the backup was answered with ${answer.status}`);
    return new Uint8Array(await answer.arrayBuffer());
  }

  /** Puts a backup in the place of everything. */
  async restore(bytes: Uint8Array): Promise<void> {
    if (this.child === null) await this.start();
    const answer = await fetch(`${this.url}/api/restore`, {
      method: 'POST',
      headers: {
        cookie: await this.owner(),
        origin: this.url,
        'content-type': 'application/octet-stream',
      },
      body: Buffer.from(bytes),
    });
    if (!answer.ok) throw new Error(`the restore was answered with ${answer.status}: ${await answer.text()}`);
    this.restored = this.recorded();
  }

  /** Whether nobody has recorded anything since the last restore. */
  isAsRestored(): boolean {
    return this.child !== null && this.restored !== '' && this.recorded() === this.restored;
  }

  /** How long each journal is: whatever is acknowledged makes one longer. */
  private recorded(): string {
    const folder = join(this.folder, 'journal');
    return readdirSync(folder)
      .sort()
      .map((name) => `${name} ${statSync(join(folder, name)).size}`)
      .join();
  }

  /** A session of the demo's owner, as a cookie. */
  private async owner(): Promise<string> {
    const answer = await fetch(`${this.url}/api/session/demo`, {
      method: 'POST',
      headers: { origin: this.url, 'content-type': 'application/json' },
      body: JSON.stringify({ person: 'person-demo-owner' }),
    });
    return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
  }

  async stop(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (child === null || child.exitCode !== null) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await gone;
  }
}
