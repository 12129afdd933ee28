import { closeIdle } from './environment.mjs';

/** After the last test: with few test files jest runs them in its own process, and the engines would keep it alive. */
export default async function closeEngines() {
  await closeIdle();
}
