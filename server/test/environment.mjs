import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { TestEnvironment } from 'jest-environment-node';

/** Engines that wait for the next test of this worker: starting one takes longer than most tests. */
const idle = [];

/** Closes them: a run within one process ends only then. */
export const closeIdle = () => Promise.all(idle.splice(0).map((lite) => lite.close()));

/**
 * Node, with a pool of embedded database engines that outlives a test file. Who takes one gets it as the last one left it, and
 * empties it (`freshDatabase` in bench-room.ts does).
 */
export default class WithDatabases extends TestEnvironment {
  #taken = new Set();

  async setup() {
    await super.setup();
    this.global.databasePool = {
      take: async () => {
        const used = idle.pop();
        const lite =
          used ??
          (await PGlite.create({
            loadDataDir: new Blob([await readFile(join(process.cwd(), '.cache', 'template-database.tar'))]),
          }));
        this.#taken.add(lite);
        return { lite, used: used !== undefined };
      },
      giveBack: (lite) => {
        if (this.#taken.delete(lite)) idle.push(lite);
      },
    };
  }

  async teardown() {
    // What a test forgot may still be at work: it is not used again.
    for (const lite of this.#taken) await lite.close();
    await super.teardown();
  }
}
