import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import { WebSocketServer, type WebSocket } from 'ws';
import { hostIsAllowed, originFits } from '../http/guard';
import { tokenOf } from '../people/sessions';
import type { Rooms } from '../rooms';
import type { Happening } from './hub';

/** A socket is asked whether it is still there this often. */
const beatMs = 30_000;

interface Watcher {
  socket: WebSocket;
  token: string;
  /** The job this tab shows. */
  job: string | null;
  alive: boolean;
}

/**
 * `/api/live`: one WebSocket a tab, over which other people's changes, new entries and progress arrive. It asks for
 * the same host, origin and session as every route; a session that ends closes it before it hears anything more.
 */
export function serveLive(
  server: Server,
  { hub, sessions, jobs }: Pick<Rooms, 'hub' | 'sessions' | 'jobs'>,
  allowedHosts: ReadonlySet<string>,
): { close(): void } {
  const sockets = new WebSocketServer({ noServer: true, maxPayload: 4096 });
  const watchers = new Set<Watcher>();

  server.on('upgrade', (request: IncomingMessage, stream: Duplex, head: Buffer) => {
    // From here on until it is ours: whoever dials may hang up before the answer, and nobody else would hear it.
    const hungUp = () => stream.destroy();
    stream.on('error', hungUp);
    void admit(request).then((token) => {
      if (stream.destroyed) return;
      if (token === null) return refuse(stream);
      stream.off('error', hungUp);
      sockets.handleUpgrade(request, stream, head, (socket) => welcome(socket, token));
    }, hungUp);
  });
  sockets.on('wsClientError', (_error, stream) => stream.destroy());

  async function admit({ url, headers }: IncomingMessage): Promise<string | null> {
    const { host, origin } = headers;
    if (url !== '/api/live' || !hostIsAllowed(host, allowedHosts)) return null;
    if (origin === undefined || !originFits(origin, host)) return null;
    const token = tokenOf(headers);
    const person = await sessions.person(token).catch(() => null);
    return person === null ? null : token;
  }

  function welcome(socket: WebSocket, token: string): void {
    const watcher: Watcher = { socket, token, job: null, alive: true };
    socket.on('error', () => socket.terminate());
    watchers.add(watcher);
    socket.on('pong', () => (watcher.alive = true));
    socket.on('close', () => watchers.delete(watcher));
    socket.on('message', (data: Buffer) => {
      const job = watchedJob(data);
      if (job === null) socket.close(1008, 'not understood');
      else {
        watcher.job = job;
        void here(watcher, job);
      }
    });
  }

  /** Between reading a job and watching it something may have happened: the page holds what it has against this. */
  async function here(watcher: Watcher, job: string): Promise<void> {
    const head = await jobs.head(job).catch(() => null);
    if (head !== null && watcher.job === job)
      await tell(watcher, JSON.stringify({ job, kind: 'here', ...head }));
  }

  async function tell(watcher: Watcher, text: string): Promise<void> {
    const person = await sessions.person(watcher.token).catch(() => null);
    if (person === null) watcher.socket.close(4401, 'not signed in');
    else if (watcher.socket.readyState === watcher.socket.OPEN)
      watcher.socket.send(text, (error) => error && watcher.socket.terminate());
  }

  const deaf = hub.listen((job: string, happening: Happening) => {
    const text = JSON.stringify({ job, ...happening });
    for (const watcher of watchers) if (watcher.job === job) void tell(watcher, text);
  });
  const beat = setInterval(() => {
    for (const watcher of watchers) {
      if (!watcher.alive) watcher.socket.terminate();
      watcher.alive = false;
      watcher.socket.ping();
    }
  }, beatMs);
  beat.unref();

  return {
    close() {
      deaf();
      clearInterval(beat);
      for (const { socket } of watchers) socket.terminate();
      sockets.close();
    },
  };
}

/** `{ "watch": "<job>" }`. */
function watchedJob(data: Buffer): string | null {
  try {
    const { watch } = JSON.parse(data.toString('utf8')) as { watch?: unknown };
    return typeof watch === 'string' && watch.length <= 80 ? watch : null;
  } catch {
    return null;
  }
}

function refuse(stream: Duplex): void {
  stream.on('finish', () => stream.destroy());
  stream.end('HTTP/1.1 401 Unauthorized\r\nConnection: close\r\nContent-Length: 0\r\n\r\n');
}
