import { Worker } from 'node:worker_threads';

/** Starts one of the server's threads, by the name of its file in `threads/`; from source the thread reads source too. */
export function startThread(name: string, workerData: unknown): Worker {
  // Much short-lived reading: with a small nursery half the time would go into clearing it.
  const resourceLimits = { maxYoungGenerationSizeMb: 128 };
  if (!import.meta.url.endsWith('.ts'))
    return new Worker(new URL(`./${name}.js`, import.meta.url), { workerData, resourceLimits });
  const url = new URL(`./threads/${name}.ts`, import.meta.url).href;
  const readSource = `import('tsx/esm/api').then(({ register }) => { register(); return import(${JSON.stringify(url)}); })`;
  return new Worker(readSource, { eval: true, workerData, resourceLimits });
}
