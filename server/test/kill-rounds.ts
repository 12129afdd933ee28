import { blankDesign, edit, type Design } from '@torvek/core/document';
import { positionRequest } from './bench-room';
import { killProcess, startProcess } from './real-process';

interface Sent {
  path: string;
  body: object;
}

const idOf = ({ body }: Sent) => (body as { id: string }).id;

/** So many pairs of a change and an entry are acknowledged in each round before a kill is due. */
const fewBatches = 5;

export interface KillReport {
  rounds: number;
  acknowledged: number;
  found: number;
  /** Acknowledged and not there. */
  missing: string[];
  doubled: number;
  chainFits: boolean;
  /** Of the starts on data that was there. */
  slowestStartMs: number;
  /** Starts over 5 s, with what the server said of them. */
  slow: { round: number; tookMs: number; said: string }[];
}

/**
 * Writes changes and entries without pause, kills the process in the middle, starts it again and repeats what was not
 * answered; round after round on the same data. Then counts what is there.
 */
export async function runKillRounds(
  folder: string,
  rounds: number,
  built?: boolean,
  /** What happens to the folder after a kill: a power cut leaves another one than a mere kill. */
  after: (folder: string, round: number) => void = () => undefined,
): Promise<KillReport> {
  let cookie = '';
  const post = async (url: string, { path, body }: Sent) => {
    const response = await fetch(url + path, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { cookie },
    });
    // Each start has another port, and cookies are named by it; one without a port holds at all of them.
    const token = /^[\w-]+=([\w-]+)/.exec(response.headers.get('set-cookie') ?? '')?.[1];
    if (token !== undefined) cookie = `torvek_session=${token}`;
    return { status: response.status, body: (await response.json()) as Record<string, unknown> };
  };
  const acknowledged = new Set<string>();
  let unanswered: Sent[] = [];
  let design: Design = blankDesign();
  let version = 0;
  let slowestStartMs = 0;
  const slow: KillReport['slow'] = [];

  const start = async (at: number) => {
    const began = Date.now();
    const real = await startProcess(folder, built);
    if (cookie !== '') {
      const tookMs = Date.now() - began;
      slowestStartMs = Math.max(slowestStartMs, tookMs);
      if (tookMs > 5000) slow.push({ round: at, tookMs, said: real.said() });
      // A database that was built anew knows no sessions.
      await post(real.url, { path: '/api/session', body: { name: 'Test', password: 'a long enough one' } });
    } else {
      const owner = { id: 'person-kill', name: 'Test', password: 'a long enough one' };
      await post(real.url, { path: '/api/owner', body: owner });
    }
    await post(real.url, { path: '/api/jobs', body: { id: 'job-kill', name: 'Kill' } });
    for (const sent of unanswered) {
      const answer = await post(real.url, sent);
      if (answer.status !== 200)
        throw new Error(`a repeated request was answered ${answer.status}: ${JSON.stringify(answer.body)}`);
      acknowledged.add(idOf(sent));
      if (sent.path.endsWith('changes')) version = answer.body.version as number;
    }
    unanswered = [];
    return real;
  };

  for (let round = 0; round < rounds; round += 1) {
    const { child, url } = await start(round);
    // Killed some time after the first few were acknowledged, however slow the machine is.
    let timer: ReturnType<typeof setTimeout> | undefined;
    for (let i = 0; unanswered.length === 0; i += 1) {
      if (i === fewBatches) timer = setTimeout(() => child.kill('SIGKILL'), 40 + (round % 7) * 90);
      const edited = edit(design, (draft) => void (draft.vehicle.speedKmH = round * 1000 + i + 1))!;
      const { forward, inverse } = edited;
      const change = {
        id: `c-${round}-${i}`,
        base: version,
        label: 'speed',
        at: '2026-11-25T08:00:00Z',
        forward,
        inverse,
      };
      const batch: Sent[] = [
        { path: '/api/jobs/job-kill/changes', body: change },
        { path: '/api/jobs/job-kill/entries', body: positionRequest(`e-${round}-${i}`) },
      ];
      design = edited.design;
      const answers = await Promise.allSettled(batch.map((sent) => post(url, sent)));
      answers.forEach((answer, j) => {
        if (answer.status === 'rejected') unanswered.push(batch[j]!);
        else if (answer.value.status === 200) acknowledged.add(idOf(batch[j]!));
        else throw new Error(`answered ${answer.value.status}: ${JSON.stringify(answer.value.body)}`);
      });
      const [changed] = answers;
      if (changed?.status === 'fulfilled') version = changed.value.body.version as number;
    }
    clearTimeout(timer);
    await killProcess(child);
    after(folder, round);
  }

  const { child, url } = await start(rounds);
  const get = async <T>(path: string) =>
    (await (await fetch(url + path, { headers: { cookie } })).json()) as T;
  const ids: string[] = [];
  for (let before = ''; ;) {
    const changes = await get<{ id: string; version: number }[]>(
      `/api/jobs/job-kill/changes?limit=1000${before}`,
    );
    if (changes.length === 0) break;
    ids.push(...changes.map(({ id }) => id));
    before = `&before=${changes.at(-1)!.version}`;
  }
  for (let before = ''; ;) {
    const { entries } = await get<{ entries: { id: string; seq: number }[] }>(
      `/api/jobs/job-kill/entries?limit=1000${before}`,
    );
    if (entries.length === 0) break;
    ids.push(...entries.map(({ id }) => id));
    before = `&before=${entries.at(-1)!.seq}`;
  }
  const { ok } = await get<{ ok: boolean }>('/api/jobs/job-kill/verify');
  const shop = await get<{ ok: boolean }>('/api/shop/verify');
  await killProcess(child);
  const there = new Set(ids);
  return {
    rounds,
    acknowledged: acknowledged.size,
    found: ids.length,
    missing: [...acknowledged].filter((id) => !there.has(id)),
    doubled: ids.length - there.size,
    chainFits: ok && shop.ok,
    slowestStartMs,
    slow,
  };
}
