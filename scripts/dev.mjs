// npm run dev: the server from source with the demo jobs, restarted on change, and the web app with hot reload.
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureInstalled, root } from './lib.mjs';

ensureInstalled();
const bin = (name) => join(root, 'node_modules/.bin', name);
const port = process.env.PORT ?? '4178';
const children = [
  spawn(bin('tsx'), ['watch', 'server/src/main.ts', '--demo'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PORT: port },
  }),
  spawn(bin('vite'), ['web'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, TORVEK_API_PORT: port },
  }),
];
for (const signal of ['SIGINT', 'SIGTERM'])
  process.on(signal, () => children.forEach((child) => child.kill(signal)));
for (const child of children) child.on('exit', () => children.forEach((other) => other.kill()));
