import { once } from 'node:events';
import { connect } from 'node:net';
import { seeded } from './fuzz';

export interface ResetsReport {
  hungUp: number;
  /** Of them while the request was being sent, and while the answer came. */
  sending: number;
  reading: number;
}

/** A request, to the byte. */
export interface Raw {
  head: string;
  body: Buffer;
}

/** A request of somebody who is signed in. */
export function rawRequest(host: string, cookie: string, method: string, path: string, body?: Buffer): Raw {
  const length = body === undefined ? '' : `Content-Length: ${body.length}\r\n`;
  return {
    head: `${method} ${path} HTTP/1.1\r\nHost: ${host}\r\nCookie: ${cookie}\r\n${length}\r\n`,
    body: body ?? Buffer.alloc(0),
  };
}

/** An upgrade of the same, with frames after it that say what job is watched, and one that is none. */
export function rawUpgrade(host: string, cookie: string, job: string): Raw {
  const upgrade =
    'Connection: Upgrade\r\nUpgrade: websocket\r\nSec-WebSocket-Version: 13\r\nSec-WebSocket-Key: dGhlIHNhbXBsZSBub25jZQ==\r\n';
  const text = Buffer.from(JSON.stringify({ watch: job }));
  const frame = Buffer.concat([Buffer.from([0x81, 0x80 | text.length, 0, 0, 0, 0]), text]);
  return {
    head: `GET /api/live HTTP/1.1\r\nHost: ${host}\r\nOrigin: http://${host}\r\nCookie: ${cookie}\r\n${upgrade}\r\n`,
    body: Buffer.concat([frame, frame, Buffer.from([0xff, 0xff, 0xff, 0x00])]),
  };
}

/** Sends requests and hangs up in the middle: after some bytes of the request, or after some of the answer. */
export async function runResets(
  host: string,
  requests: readonly Raw[],
  count: number,
  seed: number,
): Promise<ResetsReport> {
  const random = seeded(seed);
  const [name, port] = host.split(':') as [string, string];
  const report: ResetsReport = { hungUp: 0, sending: 0, reading: 0 };
  for (let i = 0; i < count; i += 1) {
    const { head, body } = requests[i % requests.length]!;
    const bytes = Buffer.concat([Buffer.from(head, 'latin1'), body]);
    const line = connect(Number(port), name);
    line.on('error', () => undefined);
    await once(line, 'connect');
    if (random() < 0.5) {
      report.sending += 1;
      // The head is where most decisions are made: half of these end in it, or right behind it.
      const within = random() < 0.5 ? head.length + 1 : bytes.length;
      line.write(bytes.subarray(0, Math.floor(random() * within)));
      if (random() < 0.5) await new Promise((resolve) => setTimeout(resolve, random() * 10));
    } else {
      report.reading += 1;
      const enough = Math.floor(random() ** 4 * 100_000);
      line.write(bytes);
      await new Promise<void>((resolve) => {
        let had = 0;
        const timer = setTimeout(resolve, 300);
        line.on('close', () => resolve());
        line.on('data', (chunk: Buffer) => {
          had += chunk.length;
          if (had < enough) return;
          clearTimeout(timer);
          resolve();
        });
      });
    }
    line.resetAndDestroy();
    report.hungUp += 1;
  }
  return report;
}
