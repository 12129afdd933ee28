import { spawn, type ChildProcess } from 'node:child_process';

const running = new Set<ChildProcess>();

export interface RealProcess {
  child: ChildProcess;
  url: string;
  /** What it has written, so far. */
  said: () => string;
}

/**
 * Starts the server on a folder, on a free port: from source, or as it was built, which starts sooner.
 *
 * @throws Error with what it wrote to its error output when it ends instead
 */
export async function startProcess(
  folder: string,
  built = process.env.TORVEK_TEST_BUILT === '1',
  /** The database’s code is not optimised in a life of seconds: off where time is measured. */
  quick = true,
): Promise<RealProcess> {
  const program = built ? ['server/dist/main.js'] : ['--import', 'tsx', 'server/src/main.ts'];
  const child = spawn(process.execPath, [...(quick ? ['--liftoff-only'] : []), ...program], {
    env: { ...process.env, TORVEK_DATA: folder, PORT: '0', NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  running.add(child);
  let errors = '';
  let printed = '';
  child.stderr.on('data', (chunk) => (errors += String(chunk)));
  const url = await new Promise<string>((resolve, reject) => {
    child.stdout.on('data', (chunk) => {
      printed += String(chunk);
      const match = /http:\S+\d/.exec(String(chunk));
      if (match !== null) resolve(match[0]);
    });
    child.once('exit', () => reject(new Error(errors)));
  });
  return { child, url, said: () => printed + errors };
}

/** Kills a process as a power switch would, and waits until it is gone. */
export async function killProcess(child: ChildProcess): Promise<void> {
  running.delete(child);
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGKILL');
  await gone;
}

export function killAll(): void {
  for (const child of running) child.kill('SIGKILL');
  running.clear();
}
