import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test as base, expect, type Page } from '@playwright/test';
import { TestServer, templateFolder } from './server';

interface Fixtures {
  server: TestServer;
  /** Opens a station of the demo bus, or of another job. */
  open(station: string, job?: string): Promise<void>;
  guarded: void;
}

export const demoJob = 'job-demo-library-bus';

/**
 * Every test has a server of its own on a copy of the seeded data. A request to another host, an error in the page or
 * an answer of 500 fails it.
 */
export const test = base.extend<Fixtures>({
  // eslint-disable-next-line no-empty-pattern -- Playwright wants the object pattern
  server: async ({}, use) => {
    const folder = mkdtempSync(join(tmpdir(), 'torvek-e2e-'));
    cpSync(templateFolder, folder, { recursive: true });
    const server = new TestServer(folder);
    await server.start();
    await use(server);
    await server.stop();
    rmSync(folder, { recursive: true, force: true });
  },
  open: async ({ page, server }, use) => {
    await use(async (station, job = demoJob) => {
      await page.goto(`${server.url}/jobs/${job}/${station}`);
      await expect(page.locator(`main[data-station="${station}"]`)).toBeVisible();
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
        if (message.type() === 'error' && !/Failed to load resource/.test(message.text()))
          wrong.push(`console: ${message.text()}`);
      });
      await use();
      expect(wrong).toEqual([]);
    },
    { auto: true },
  ],
});

export { expect };

/** Waits until the nameplate says that everything is saved. */
export async function saved(page: Page): Promise<void> {
  await expect(page.locator('[data-save-state]')).toHaveAttribute('data-state', 'saved');
}

/** The text of a figure on the sheet or the nameplate. */
export const figure = (page: Page, id: string) => page.locator(`[data-figure="${id}"]`).first();

/** The input of a number field by its place in the design. */
export const field = (page: Page, path: string) => page.locator(`[data-path="${path}"] input`);
