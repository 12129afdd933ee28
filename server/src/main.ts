import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp, redactedPaths } from './app';
import { readConfig } from './config';
import { openDatabase } from './database';
import { demoIsDue, seedDemo } from './demo/seed';
import { serveLive } from './live/socket';
import { takeFolder } from './lock';
import { Refused, refuseLostDatabase } from './refused';
import { plainError } from './http/plain-error';
import { openRooms } from './rooms';

/**
 * Starts the server; `--demo` fills an empty data folder with the demo jobs first, `--await-build`
 * listens only when the parent process says that the web app is built.
 */
async function start(): Promise<void> {
  const built = process.argv.includes('--await-build') ? wordOfParent() : null;
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel, redact: redactedPaths });
  const release = await takeFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder, config.databaseUrl);
  const demoMode = process.argv.includes('--demo');
  const rooms = openRooms(database, config.dataFolder, { demoMode });
  await refuseLostDatabase(rooms);
  const restored = await rooms.ledger.reconcile();
  if (restored > 0) logger.warn({ restored }, 'entries brought back from the journal');
  if (demoMode && (await demoIsDue(rooms))) await seedDemo(database, config.dataFolder);
  await built;

  const webFolder = fileURLToPath(new URL('../../web/dist', import.meta.url));
  const app = createApp({ rooms, logger, allowedHosts: config.allowedHosts, webFolder });
  const server = app.listen(config.port, config.host, (error?: Error) => {
    if (error) return fail(error);
    const address = server.address();
    const port = typeof address === 'object' && address !== null ? address.port : config.port;
    console.log(`Torvek is ready at http://${config.host}:${port}/`);
  });
  const live = serveLive(server, rooms, config.allowedHosts);
  let stopping = false;
  const stop = (code: number) => {
    if (stopping) return;
    stopping = true;
    live.close();
    server.close();
    server.closeAllConnections();
    const end = () => {
      release();
      process.exit(code);
    };
    database.close().then(end, end);
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
