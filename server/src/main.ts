import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './app';
import { readConfig } from './config';
import { openDatabase } from './database';
import { demoIsDue, seedDemo } from './demo/seed';
import { FolderTaken, takeFolder } from './lock';
import { openRooms } from './rooms';

/** Starts the server; `--demo` fills an empty data folder with the demo jobs first, `--seed-only` then ends. */
async function start(): Promise<void> {
  const config = readConfig(process.env);
  const logger = pino({ level: config.logLevel });
  const release = await takeFolder(config.dataFolder);
  const database = await openDatabase(config.dataFolder, config.databaseUrl);
  const rooms = openRooms(database, config.dataFolder);
  const restored = await rooms.ledger.reconcile();
  if (restored > 0) logger.warn({ restored }, 'entries brought back from the journal');
  if (process.argv.includes('--demo') && (await demoIsDue(rooms)))
    await seedDemo(database, config.dataFolder);
  if (process.argv.includes('--seed-only')) {
    await database.close();
    return release();
  }

  const webFolder = fileURLToPath(new URL('../../web/dist', import.meta.url));
  const app = createApp({ rooms, logger, allowedHosts: config.allowedHosts, webFolder });
  const server = app.listen(config.port, config.host, (error?: Error) => {
    if (error) return fail(error);
    const address = server.address();
    const port = typeof address === 'object' && address !== null ? address.port : config.port;
    console.log(`Torvek is ready at http://${config.host}:${port}/`);
  });
  const stop = () => {
    server.close();
    server.closeAllConnections();
    void database.close().then(() => {
      release();
      process.exit(0);
    });
  };
  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
}

function fail(error: unknown): void {
  console.error(error instanceof FolderTaken ? `Torvek: ${error.message}` : error);
  process.exit(1);
}

start().catch(fail);
