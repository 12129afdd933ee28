// npm run screenshots: one picture of each main view from the demo data, into docs/screenshots (or a folder given).
import { spawn } from 'node:child_process';
import { mkdtempSync, mkdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { chromiumPath, ensureBuilt, ensureChromium, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureChromium();
await ensureBuilt();

const folder = process.argv[2] ?? join(root, 'docs/screenshots');
const only = process.argv[3]?.split(',');
mkdirSync(folder, { recursive: true });
const data = mkdtempSync(join(tmpdir(), 'torvek-shots-'));
const server = spawn(process.execPath, [join(root, 'server/dist/main.js'), '--demo'], {
  env: { ...process.env, TORVEK_DATA: data, PORT: '0' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
const url = await new Promise((resolve, reject) => {
  server.stdout.on('data', (chunk) => {
    const match = /http:\S+/.exec(String(chunk));
    if (match) resolve(match[0]);
  });
  server.once('exit', () => reject(new Error('the server ended')));
});

const demo = 'jobs/job-demo-library-bus';
/** Name, path, and what to do before the picture. */
const views = [
  ['jobs', '', async (page) => page.locator('[data-live]').nth(1).waitFor()],
  ['brief', `${demo}/brief`, async () => {}],
  [
    'pack',
    `${demo}/pack`,
    async (page) => page.locator('main [data-figure="pack.pack:pack:sagAtPeakV"]').click(),
  ],
  [
    'arrange',
    `${demo}/pack?panel=arrange`,
    async (page) => page.locator('[data-module="module-105"]').click(),
  ],
  [
    'intake',
    'jobs/job-demo-orchard-truck/pack?panel=intake&module=module-c05',
    async (page) => {
      await page.locator('[role="gridcell"][data-path="rows.module-c07.voltageV"]').click();
      await page.evaluate(() => {
        const clipboardData = new DataTransfer();
        clipboardData.setData('text/plain', [3.29, 3.288, 32.87, 3.12, 3.29].join('\n'));
        document.activeElement.dispatchEvent(
          new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
        );
      });
    },
  ],
  ['balance', 'jobs/job-demo-orchard-truck/pack?panel=balance', async (page) => page.mouse.wheel(0, 330)],
  [
    'stock',
    `${demo}/pack?panel=stock`,
    async (page) => page.getByRole('button', { name: 'BW 40-1187' }).click(),
  ],
  [
    'network',
    `${demo}/network`,
    async (page) => {
      await page.locator('[data-symbol="device-heater"]').click();
      await page.getByRole('button', { name: 'Short circuit here?' }).click();
      await page.getByLabel('Stage', { exact: true }).selectOption('welded-plus');
      await page.locator('[data-symbol="hv-bus"]').evaluate((bus) => bus.scrollIntoView({ block: 'center' }));
    },
  ],
  ['protect', `${demo}/protect`, async () => {}],
  [
    'protect-fuse',
    `${demo}/protect`,
    async (page) => page.locator('#fuse-title').evaluate((title) => title.scrollIntoView()),
  ],
  [
    'parts',
    'library?kind=fuse',
    async (page) => {
      for (const number of ['F250-500', 'S250-500', 'P200-700'])
        await page.getByLabel(`Compare Calderside ${number}`).first().check();
    },
  ],
  ['route', `${demo}/route?run=run-compressor`, async () => {}],
  [
    'sense',
    'jobs/job-demo-orchard-truck/sense?panel=map',
    async (page) => page.locator('[data-map-view]').waitFor(),
  ],
  [
    'charge',
    'jobs/job-demo-orchard-truck/charge?panel=ladder',
    async (page) => page.locator('[data-ladder-view]').waitFor(),
  ],
  [
    'cool',
    `${demo}/cool`,
    async (page) => {
      await page.locator('svg.loop').waitFor();
      await page.getByRole('button', { name: 'Hill, hottest day' }).click();
      await page.locator('svg.loop [data-piece="piece-throttle-tail"]').click();
      await page.getByRole('button', { name: 'shut', exact: true }).click();
    },
  ],
  [
    'prove',
    `${demo}/prove`,
    async (page) => page.locator('[data-step="precharge-curve:circuit-main"]').click(),
  ],
  [
    'bench',
    `${demo}/prove`,
    async (page) => {
      await page.locator('[data-step="stop-discharge:circuit-main"]').click();
      const bench = page.locator('.bench');
      await bench.getByLabel('Second person').selectOption('Ruan Pellory');
      await bench.getByLabel('Their password').fill('torvek-demo');
      await bench.getByRole('button', { name: 'Confirm and open the gate' }).click();
      await bench.locator('[data-measured]').fill('19.4');
      await bench.locator('[data-measured]').press('Enter');
      await page.locator('[data-deviation]').first().scrollIntoViewIfNeeded();
    },
  ],
  ['shop', 'shop', async () => {}],
  [
    'book',
    `${demo}/book`,
    async (page) => {
      await page.getByRole('button', { name: 'Verify the chain' }).click();
      await page.locator('[data-verification]').waitFor();
    },
  ],
];

/** One of them is taken in the dark theme. */
const inTheDark = 'charge';

const browser = await chromium.launch({ executablePath: chromiumPath });
try {
  for (const theme of ['light', 'dark']) {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    await context.addInitScript((name) => localStorage.setItem('torvek.theme', name), theme);
    const page = await context.newPage();
    await page.request.post(new URL('api/session/demo', url).href, {
      data: { person: 'person-demo-designer' },
      headers: { origin: new URL(url).origin },
    });
    page.on('pageerror', (error) => console.error(String(error)));
    page.on('console', (message) => message.type() === 'error' && console.error(message.text()));
    for (const [name, path, act] of views) {
      if ((theme === 'dark') !== (name === inTheDark) || only?.includes(name) === false) continue;
      await page.goto(url + path);
      await page.waitForLoadState('networkidle');
      await act(page);
      await page.waitForTimeout(700);
      await page.screenshot({ path: join(folder, `${name}.png`) });
      console.log(name);
    }
    await context.close();
  }
} finally {
  await browser.close();
  server.kill();
  server.once('exit', () => rmSync(data, { recursive: true, force: true }));
}
