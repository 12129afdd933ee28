import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { demoJob, expect, test } from './fixtures';

/** Serious barriers of a view. The themes differ in colours alone: all else is looked at once. */
async function barriers(page: Page, view: string, theme: string, colours = true): Promise<string[]> {
  // What a closed choice offers is the browser’s own; a hundred of them take longer to look at than all else.
  // There are no frames of other origins to be joined in a page of its own.
  // Rows of a table are made by one pattern: the first ones stand for all.
  const axe = new AxeBuilder({ page })
    .options({ resultTypes: ['violations'] })
    .exclude('option')
    .exclude('tr:nth-child(n+6)')
    .exclude('[data-entry] ~ [data-entry] ~ [data-entry] ~ [data-entry]')
    .setLegacyMode(true);
  const { violations } = await (
    theme === 'dark'
      ? axe.withRules(['color-contrast'])
      : colours
        ? axe
        : axe.disableRules(['color-contrast'])
  ).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${view}: ${id} at ${nodes[0]?.target.join(' ')}`);
}

test('no serious barrier outside a job and at its last stations', async ({ page, open, server, signIn }) => {
  test.slow();
  const found: string[] = [];
  const check = async (view: string) => found.push(...(await barriers(page, view, 'light')));
  await page.goto(server.url);
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await check('sign-in');
  await signIn('owner');
  await page.goto(server.url);
  await expect(page.locator('[data-live]')).toHaveCount(2);
  await check('jobs');
  await page.goto(`${server.url}/shop`);
  await expect(page.getByRole('heading', { name: 'Instruments' })).toBeVisible();
  await check('shop');
  await page.goto(`${server.url}/library`);
  await expect(page.locator('[data-open-part]')).toBeVisible();
  await check('parts');
  for (const station of ['prove', 'book']) {
    await open(station);
    await page.waitForLoadState('networkidle');
    await check(station);
  }
  expect(found).toEqual([]);
});

for (const theme of ['light', 'dark']) {
  test.describe(`no serious barrier in the ${theme} theme`, () => {
    test.beforeEach(({ page }) =>
      page.addInitScript((name) => localStorage.setItem('torvek.theme', name), theme),
    );

    // Looking at every element of every view takes a while.
    test.slow();

    test('at the stations of the design', async ({ page, open, signIn }) => {
      const found: string[] = [];
      const check = async (view: string, colours = true) =>
        found.push(...(await barriers(page, view, theme, colours)));
      await signIn('owner');
      await open('brief');
      // From view to view as by a link: the page is not loaded anew.
      const goOn = async (way: string) => {
        await page.evaluate((path) => {
          history.pushState({}, '', path);
          window.dispatchEvent(new PopStateEvent('popstate', { state: {} }));
        }, `/jobs/${demoJob}/${way}`);
        await expect(page.locator(`main[data-station="${way.split('?')[0]}"]`)).toBeVisible();
        await page.waitForLoadState('networkidle');
        // What comes in while the browser has nothing to do.
        await page.evaluate(() => new Promise((done) => requestIdleCallback(done, { timeout: 1000 })));
      };
      for (const station of theme === 'light'
        ? [
            'brief',
            'pack',
            'network',
            'protect',
            'protect?panel=start',
            'protect?panel=bonds',
            'cool?panel=fill',
            'charge',
            'charge?panel=looms',
            'sense?panel=limits',
          ]
        : [
            'network',
            'route',
            'route?panel=cuts',
            'cool',
            'cool?panel=cold',
            'prove',
            'protect?panel=joints',
          ]) {
        await goOn(station);
        await check(station);
      }
      for (const panel of theme === 'light' ? ['arrange', 'intake', 'links'] : ['arrange']) {
        await goOn(`pack?panel=${panel}`);
        await expect(page.locator(`[data-${panel}]`)).toBeVisible();
        // Panels of a station have its colours.
        await check(panel, theme === 'dark');
      }
      expect(found).toEqual([]);
    });
  });
}
