import { spawn, type ChildProcess } from 'node:child_process';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/** Where the seeded data lies that every test copies. */
export const templateFolder = join(root, '.cache', 'e2e-template');

/**
 * What a server that lives for seconds need not do: optimise the database's code, and tidy a small young heap again and
 * again. A third less work per start.
 */
const quickStart = ['--liftoff-only', '--max-semi-space-size=64'];

/** The real built server on a data folder, on a port of its own that it keeps over restarts. */
export class TestServer {
  private child: ChildProcess | null = null;
  private port = 0;

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

  async stop(): Promise<void> {
    const { child } = this;
    this.child = null;
    if (child === null || child.exitCode !== null) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    await gone;
  }
}
