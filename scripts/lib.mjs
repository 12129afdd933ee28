import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statfsSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The repository's folder. */
export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const cache = join(root, '.cache');

/** Runs a command to its end; ends this process when it fails. */
export function run(command, args, options = {}) {
  const { status, signal } = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (status !== 0) {
    console.error(`${command} ${args.join(' ')} ended with ${signal ?? status}`);
    process.exit(status ?? 1);
  }
}

/** Runs one command to its end, quietly unless it fails; false when it does. */
function quietly([command, ...args]) {
  return new Promise((resolve) => {
    const chunks = [];
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
    child.stdout.on('data', (chunk) => chunks.push(chunk));
    child.stderr.on('data', (chunk) => chunks.push(chunk));
    child.on('error', (error) => chunks.push(Buffer.from(`${error.message}\n`)));
    child.on('close', (code) => {
      if (code !== 0) process.stderr.write(Buffer.concat(chunks));
      resolve(code === 0);
    });
  });
}

/** Runs lists of commands side by side, those of one list in turn; ends this process when one fails. */
export async function runLanes(lanes) {
  const inTurn = async (commands) => {
    for (const command of commands) if (!(await quietly(command))) return false;
    return true;
  };
  const good = await Promise.all(lanes.map(inTurn));
  if (good.includes(false)) process.exit(1);
}

/**
 * A folder for what a program writes for seconds: in memory where there is room, for a slow disk would be waited for at every fsync.
 * It is gone with this process.
 */
export function scratchFolder() {
  const memory = '/dev/shm';
  const hasRoom = existsSync(memory) && statfsSync(memory).bavail * statfsSync(memory).bsize > 4e9;
  const folder = mkdtempSync(join(hasRoom ? memory : tmpdir(), 'torvek-'));
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
  return folder;
}

function stampOf(name, value) {
  const path = join(cache, `${name}.stamp`);
  return {
    fresh: existsSync(path) && readFileSync(path, 'utf8') === value,
    write() {
      mkdirSync(cache, { recursive: true });
      writeFileSync(path, value);
    },
  };
}

/** Whether what is installed is what the lock file says, package by package. */
function installedAsLocked() {
  const hidden = join(root, 'node_modules/.package-lock.json');
  if (!existsSync(hidden)) return false;
  const packagesOf = (path) => JSON.parse(readFileSync(path, 'utf8')).packages;
  const installed = packagesOf(hidden);
  return Object.entries(packagesOf(join(root, 'package-lock.json'))).every(
    ([path, { version, optional, peer, link }]) => {
      if (!path.startsWith('node_modules/') || link) return true;
      return installed[path] === undefined ? optional || peer : installed[path].version === version;
    },
  );
}

/** Installs packages when there are none, or when they are not those of the lock file. */
export function ensureInstalled() {
  if (installedAsLocked()) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
}

/** All files below a folder, but for what is installed or built there. */
export function* filesBelow(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'dist') continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path);
    else yield path;
  }
}

/** The state of all sources, as a stamp of the last build. */
function buildStamp() {
  const hash = createHash('sha256');
  for (const folder of ['core', 'server', 'web', 'demo']) {
    for (const path of [...filesBelow(join(root, folder))].sort()) {
      const { mtimeMs, size } = statSync(path);
      hash.update(`${path} ${size} ${mtimeMs}\n`);
    }
  }
  hash.update(readFileSync(join(root, 'package-lock.json')));
  const stamp = stampOf('built', hash.digest('hex'));
  const there = existsSync(serverMain) && existsSync(join(root, 'web/dist/index.html'));
  return { ...stamp, fresh: stamp.fresh && there };
}

const vite = join(root, 'node_modules/vite/bin/vite.js');
const buildServer = [process.execPath, vite, 'build', 'server', '--logLevel', 'warn'];
const buildWeb = [process.execPath, vite, 'build', 'web', '--logLevel', 'warn'];
const serverMain = join(root, 'server/dist/main.js');

/** Builds web and server when a source is newer than the last build. */
export async function ensureBuilt() {
  const stamp = buildStamp();
  if (stamp.fresh) return;
  console.log('Building …');
  await build();
  stamp.write();
}

/** Runs one of the server's commands on the data folder, with the words that were given to it. */
export async function command(name) {
  ensureInstalled();
  await ensureBuilt();
  const { status } = spawnSync(
    process.execPath,
    [join(root, `server/dist/${name}.js`), ...process.argv.slice(2)],
    {
      stdio: 'inherit',
    },
  );
  process.exit(status ?? 1);
}

/** Builds web and server. */
export function build() {
  return runLanes([[buildWeb], [buildServer]]);
}

/**
 * Builds when needed and serves with the demo jobs: the server opens (and fills) the data while the web app is still
 * being built, and listens when both are done.
 */
export async function buildAndServeDemo() {
  const stamp = buildStamp();
  if (stamp.fresh) return serve(['--demo']);
  console.log('Building …');
  await runLanes([[buildServer]]);
  const child = serve(['--demo', '--await-build'], ['inherit', 'inherit', 'inherit', 'ipc']);
  await runLanes([[buildWeb]]);
  stamp.write();
  child.send('built', () => child.disconnect());
}

/** Replaces this process's work by the server: its signals and its end are ours. */
export function serve(args = [], stdio = 'inherit') {
  let child = spawn(process.execPath, [serverMain, ...args], { cwd: root, stdio });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  let starts = [Date.now()];
  const ended = (code, signal) => {
    starts = starts.filter((at) => at > Date.now() - 60_000);
    if (code !== unforeseen || starts.length >= mostStartsAMinute) process.exit(signal ? 1 : (code ?? 0));
    starts.push(Date.now());
    console.error('Torvek ended by an error that nobody foresaw (its log says which) and is started again.');
    child = spawn(process.execPath, [serverMain, ...args.filter((one) => one !== '--await-build')], {
      cwd: root,
      stdio: 'inherit',
    });
    child.on('exit', ended);
  };
  child.on('exit', ended);
  return child;
}

/** The server's exit code after an error that nobody foresaw: it was ended in order and may be started again. */
const unforeseen = 70;
const mostStartsAMinute = 5;

/** Debian's Chromium without its windows: a page opens in two thirds of the time. */
export const chromiumPath = '/usr/bin/chromium-headless-shell';

/** Installs it when there is none (browser tests, screenshots, bench). */
export function ensureChromium() {
  if (existsSync(chromiumPath)) return;
  console.log('Installing Chromium from Debian …');
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium-headless-shell'], {
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
}
