import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp, redactedPaths } from './app';
import { readConfig } from './config';
import { demoIsDue, seedDemo } from './demo/seed';
import { serveLive } from './live/socket';
import { takeFolder } from './lock';
import { Refused } from './refused';
import { scrub } from './journal/scrub';
import { plainError } from './http/plain-error';
import { openRooms } from './rooms';
import { openStore } from './store';

/**
 * Starts the server; `--demo` fills an empty data folder with the demo jobs first, `--await-build`
 * listens only when the parent process says that the web app is built.
 */
async function start(): Promise<void> {
  const built = process.argv.includes('--await-build') ? wordOfParent() : null;
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel, redact: redactedPaths });
  const release = await takeFolder(config.dataFolder);
  const store = await openStore(config.dataFolder, config.databaseUrl);
  for (const note of store.notes) logger.warn(note);
  const demoMode = process.argv.includes('--demo');
  const rooms = openRooms(store, { demoMode, nightlyBackups: config.nightlyBackups && !demoMode });
  if (demoMode && (await demoIsDue(rooms))) await seedDemo(store);
  await built;

  const webFolder = fileURLToPath(new URL('../../web/dist', import.meta.url));
  const app = createApp({ ...config, rooms, logger, webFolder });
  const server = app.listen(config.port, config.host, (error?: Error) => {
    if (error) return fail(error);
    const address = server.address();
    const port = typeof address === 'object' && address !== null ? address.port : config.port;
    console.log(`Torvek is ready at http://${config.host}:${port}/`);
  });
  const live = serveLive(server, rooms, config.allowedHosts);
  setTimeout(() => {
    scrub(rooms).then(
      (notes) => notes.forEach((note) => logger.warn(note)),
      (error: unknown) =>
        logger.error({ error: plainError(error) }, 'the journals could not be read through'),
    );
  }, scrubAfterMs).unref();
  rooms.nightly.start((error) => logger.error({ error: plainError(error) }, 'the backup failed'));
  let stopping = false;
  const stop = (code: number) => {
    if (stopping) return;
    stopping = true;
    live.close();
    rooms.nightly.stop();
    server.close();
    server.closeAllConnections();
    const end = () => {
      release();
      process.exit(code);
    };
    rooms.writer
      .note()
      .then(() => rooms.writer.idle())
      .then(() => store.close())
      .then(end, end);
    // What keeps the database from closing must not keep the end from coming.
    setTimeout(end, longestEndMs).unref();
  };
  process.once('SIGTERM', () => stop(0));
  process.once('SIGINT', () => stop(0));
  // Nobody foresaw it, so nobody knows what still holds: end in order; whoever started this starts it anew.
  process.on('uncaughtException', (error: unknown) => {
    logger.fatal({ error: plainError(error) }, 'ended by an error that nobody foresaw');
    stop(unforeseen);
  });
}

/** The journals are read through when whoever started it is at work. */
const scrubAfterMs = 60_000;

/** What an orderly end may take. */
const longestEndMs = 10_000;

/** The exit code after which the starter starts the server again; see `serve` in scripts/lib.mjs. */
const unforeseen = 70;

/** Resolves at the parent process's message; when the parent goes without one, so does this process. */
function wordOfParent(): Promise<void> {
  return new Promise((resolve) => {
    const orphaned = () => process.exit(1);
    process.once('disconnect', orphaned);
    process.once('message', () => {
      process.off('disconnect', orphaned);
      resolve();
    });
  });
}

function fail(error: unknown): void {
  console.error(error instanceof Refused ? `Torvek: ${error.message}` : plainError(error));
  process.exit(1);
}

start().catch(fail);
