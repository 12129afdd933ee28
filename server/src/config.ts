import { resolve } from 'node:path';

/** Settings from the environment, with their defaults. */
export interface Config {
  dataFolder: string;
  port: number;
  host: string;
  databaseUrl: string | undefined;
  allowedHosts: ReadonlySet<string>;
  logLevel: string;
  /** Proxies in front of this server that are believed what they forward; 0: none. */
  trustedProxies: number;
  /** Whether backups are made by themselves. */
  nightlyBackups: boolean;
}

/** @throws Error naming the variable that cannot be read */
export function readConfig(environment: NodeJS.ProcessEnv): Config {
  const port = Number(environment.PORT ?? 4178);
  if (!Number.isInteger(port) || port < 0 || port > 65535) throw new Error('PORT must be a port number');
  const host = environment.HOST ?? '127.0.0.1';
  const more = (environment.TORVEK_HOSTS ?? '').split(',').filter((name) => name !== '');
  const trustedProxies = Number(environment.TORVEK_PROXIES ?? 0);
  if (!Number.isInteger(trustedProxies) || trustedProxies < 0 || trustedProxies > 9)
    throw new Error('TORVEK_PROXIES must be the number of proxies in front, 0 to 9');
  return {
    trustedProxies,
    nightlyBackups: environment.TORVEK_BACKUPS !== 'off',
    dataFolder: resolve(environment.TORVEK_DATA ?? 'data'),
    port,
    host,
    databaseUrl: environment.DATABASE_URL || undefined,
    allowedHosts: new Set([
      '127.0.0.1',
      'localhost',
      '[::1]',
      host.toLowerCase(),
      ...more.map((name) => name.toLowerCase()),
    ]),
    logLevel: environment.LOG_LEVEL ?? 'warn',
  };
}
