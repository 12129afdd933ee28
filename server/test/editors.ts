import type { Design } from '@torvek/core/document';
import { changeOf } from './bench-room';

const line = [
  { xM: -1, yM: 0.3, zM: 0.4 },
  { xM: -2, yM: 0.3, zM: 0.4 },
];

export interface EditorsReport {
  saves: number;
  medianMs: number;
  slowestMs: number;
  /** Acknowledged and not there, or there with another value than was saved last. */
  lost: string[];
  chainFits: boolean;
}

/**
 * So many people edit one job at the same time, each a thing of their own: everyone saves on the version they know of, however old it
 * is, and goes on from the answer.
 *
 * @param design the job's, at version `base`; it has no hazards of these names yet
 */
export async function runEditors(
  url: string,
  cookie: string,
  job: string,
  { design: first, base }: { design: Design; base: number },
  { editors, saves, pauseMs }: { editors: number; saves: number; pauseMs: number },
): Promise<EditorsReport> {
  const took: number[] = [];
  const last = new Map<string, string>();
  const edits = async (editor: number) => {
    const id = `hazard-of-${editor}`;
    let design = first;
    let version = base;
    for (let i = 1; i <= saves; i += 1) {
      await new Promise((resolve) => setTimeout(resolve, pauseMs * (0.5 + ((editor * 7 + i * 3) % 10) / 10)));
      const tag = `Line ${editor}, ${i}`;
      const change = changeOf(design, version, `c-${editor}-${i}`, (draft) => {
        draft.hazards ??= {};
        draft.hazards[id] = { tag, kind: 'brake', points: line };
      });
      const began = performance.now();
      const answer = await fetch(`${url}/api/jobs/${job}/changes`, {
        method: 'POST',
        body: JSON.stringify(change),
        headers: { cookie },
      });
      const body = (await answer.json()) as { version: number; design?: Design };
      if (answer.status !== 200) throw new Error(`answered ${answer.status}: ${JSON.stringify(body)}`);
      took.push(performance.now() - began);
      last.set(id, tag);
      version = body.version;
      design = body.design ?? afterwards(design, id, tag);
    }
  };
  await Promise.all(Array.from({ length: editors }, (_, editor) => edits(editor)));
  const get = async <Answer>(path: string) =>
    (await (await fetch(url + path, { headers: { cookie } })).json()) as Answer;
  const { design } = await get<{ design: Design }>(`/api/jobs/${job}`);
  const { ok } = await get<{ ok: boolean }>(`/api/jobs/${job}/verify`);
  took.sort((a, b) => a - b);
  return {
    saves: took.length,
    medianMs: took[Math.floor(took.length / 2)]!,
    slowestMs: took.at(-1)!,
    lost: [...last].filter(([id, tag]) => design.hazards?.[id]?.tag !== tag).map(([id]) => id),
    chainFits: ok,
  };
}

const afterwards = (design: Design, id: string, tag: string): Design => ({
  ...design,
  hazards: { ...design.hazards, [id]: { tag, kind: 'brake', points: line } },
});
