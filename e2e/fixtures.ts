import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, expect, type BrowserContext, type Page } from '@playwright/test';
import { TestServer, templateBackup, templateFolder } from './server';

interface Fixtures {
  server: TestServer;
  /** Signs in as one of the demo's people, in a page's context. */
  signIn(who?: DemoPerson, page?: Page): Promise<void>;
  /** Opens a station of the demo bus, or of another job, as the designer unless somebody is signed in. */
  open(station: string, job?: string): Promise<void>;
  guarded: void;
}

export type DemoPerson = 'designer' | 'technician' | 'witness' | 'owner';
/** Everyone's password in the demo. */
export const demoPassword = 'torvek-demo';

export const demoJob = 'job-demo-library-bus';

/**
 * Every test begins with the seeded data: when the one before it changed anything, the server of its worker is put back to it from a
 * backup, as an owner would, which takes a sixth of a start. A worker keeps its browser's cache of the program's files, and nothing else
 * of one test for the next. A request to another host, an error in the page or an answer of 500 fails a test.
 */
export const test = base.extend<Fixtures, { shared: TestServer; cached: BrowserContext }>({
  shared: [
    // eslint-disable-next-line no-empty-pattern -- Playwright wants the object pattern
    async ({}, use) => {
      const folder = mkdtempSync(join(tmpdir(), 'torvek-e2e-'));
      cpSync(templateFolder, folder, { recursive: true });
      const server = new TestServer(folder);
      await server.start();
      await use(server);
      await server.stop();
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker' },
  ],
  cached: [
    async ({ browser }, use) => {
      const context = await browser.newContext({
        reducedMotion: 'reduce',
        viewport: { width: 1280, height: 800 },
      });
      await use(context);
      await context.close();
    },
    { scope: 'worker' },
  ],
  context: async ({ cached, shared }, use) => {
    await use(cached);
    await Promise.all(cached.pages().map((page) => page.close()));
    await cached.clearCookies();
    const page = await cached.newPage();
    const session = await cached.newCDPSession(page);
    await session.send('Storage.clearDataForOrigin', {
      origin: shared.url,
      storageTypes: 'local_storage,indexeddb,service_workers',
    });
    await page.close();
  },
  server: async ({ shared }, use) => {
    if (!shared.isAsRestored()) await shared.restore(readFileSync(templateBackup));
    await use(shared);
  },
  signIn: async ({ page: own, server }, use) => {
    await use(async (who = 'designer', page = own) => {
      const answer = await page.request.post(`${server.url}/api/session/demo`, {
        data: { person: `person-demo-${who}` },
        headers: { origin: server.url },
        // A kept connection that the server closes just now.
        maxRetries: 1,
      });
      expect(answer.ok()).toBe(true);
    });
  },
  open: async ({ page, server, signIn }, use) => {
    await use(async (station, job = demoJob) => {
      if ((await page.context().cookies()).length === 0) await signIn();
      await page.goto(`${server.url}/jobs/${job}/${station}`);
      // With or without the name of a panel behind it.
      await expect(page.locator(`main[data-station="${station.split('?')[0]}"]`)).toBeVisible({
        timeout: 20_000,
      });
      await page.waitForFunction(() => document.fonts.status === 'loaded');
    });
  },
  guarded: [
    async ({ page, server }, use) => {
      const wrong: string[] = [];
      page.on('request', (request) => {
        const url = new URL(request.url());
        const own =
          request.url().startsWith(server.url) || url.protocol === 'data:' || url.protocol === 'blob:';
        if (!own) wrong.push(`request to ${request.url()}`);
      });
      page.on('pageerror', (error) => wrong.push(`error in the page: ${error.message}`));
      page.on('response', (response) => {
        if (response.status() >= 500) wrong.push(`${response.status()} from ${response.url()}`);
      });
      page.on('console', (message) => {
        if (
          message.type() === 'error' &&
          !/Failed to load resource|WebSocket connection/.test(message.text())
        )
          wrong.push(`console: ${message.text()}`);
      });
      await use();
      expect(wrong).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Entries in the record of the bus before a test adds one. */
export const told = (): number =>
  readFileSync(join(templateFolder, 'journal', `${demoJob}.jsonl`), 'utf8')
    .split('\n')
    .filter((line) => /^\w+ \{"n":\d+,"previous":"\w+","at":"[^"]+","kind":"entry"/.test(line)).length;

/** Waits until the nameplate says that everything is saved. */
export async function saved(page: Page): Promise<void> {
  await expect(page.locator('[data-save-state]')).toHaveAttribute('data-state', 'saved');
}

/** The text of a figure on the sheet or the nameplate. */
export const figure = (page: Page, id: string) => page.locator(`[data-figure="${id}"]`).first();

/** The input of a number field by its place in the design. */
export const field = (page: Page, path: string) => page.locator(`[data-path="${path}"] input`);

/** Confirms the HV gate of the step at the bench by the second person, on the same screen. */
export async function confirmGate(page: Page): Promise<void> {
  const bench = page.locator('.bench');
  await bench.getByLabel('Second person').selectOption('Ruan Pellory');
  await bench.getByLabel('Their password').fill(demoPassword);
  await bench.getByRole('button', { name: 'Confirm and open the gate' }).click();
  await expect(bench.locator('[data-gate-open]')).toContainText('Ruan Pellory');
}

/** The cell of an editing grid by its place in the design. */
export const cell = (page: Page, path: string) => page.locator(`[role="gridcell"][data-path="${path}"]`);

/** Types into a cell as at the keyboard: what was there is replaced, Enter takes it. */
export async function typeCell(page: Page, path: string, text: string): Promise<void> {
  const place = cell(page, path);
  // While fonts and plots arrive the rows may still move under the pointer.
  await expect(async () => {
    await place.click();
    await expect(place).toHaveClass(/active/, { timeout: 500 });
  }).toPass();
  await page.keyboard.press('F2');
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}
