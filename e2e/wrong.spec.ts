import { expect, field, saved, test } from './fixtures';

/** What people type by mistake, paste from elsewhere, or try on purpose. */
const odd = ['0', '-1', '1e9', '1e-9', '999999999', 'abc', '1,234.5', '', '1/0', '12 parsecs', '0.0001'];

const places = [
  'pack',
  'protect',
  'protect?panel=joints',
  'cool',
  'charge?panel=ladder',
  'charge?panel=budget',
];
for (const station of places) {
  test(`odd numbers in every field of ${station}: no error, no NaN, nothing refused by the server`, async ({
    page,
    open,
  }) => {
    test.slow();
    await open(station);
    const fields = page.locator('main input[inputmode]');
    const editable = page.locator('[role="gridcell"][aria-readonly="false"]');
    await expect.poll(async () => (await fields.count()) + (await editable.count())).toBeGreaterThan(5);
    for (const folded of await page.locator('main details:not([open]) > summary').all()) await folded.click();
    const count = await fields.count();
    // Every ninth: each field by itself is tried without a browser (demo/odd-numbers.test.ts).
    for (let i = 0; i < count; i += 9) {
      const input = fields.nth(i);
      if ((await input.count()) === 0) break;
      await input.fill(odd[(i / 9) % odd.length]!);
      await input.press('Tab');
    }
    // Of a grid's cells every seventeenth: rows and columns take turns all the same.
    for (let i = 0; i < (await editable.count()); i += 17) {
      await editable.nth(i).click();
      await page.keyboard.press('F2');
      await page.keyboard.press('Control+a');
      await page.keyboard.insertText(odd[(i / 17) % odd.length]!);
      await page.keyboard.press(i % 2 === 0 ? 'Enter' : 'Tab');
    }
    await saved(page);
    await expect(page.locator('.trouble')).toHaveCount(0);
    for (const name of ['Brief', 'Prove', 'Book']) {
      await page.getByLabel('Stations').getByRole('link', { name }).click();
      await expect(page.locator(`main[data-station="${name.toLowerCase()}"]`)).toBeVisible();
      const text = await page.locator('.frame').innerText();
      expect(text.match(/.{0,80}(NaN|undefined|Infinity|\[object).{0,80}/)?.[0]).toBeUndefined();
    }
    await page.reload();
    await expect(page.getByLabel('Nameplate')).toBeVisible({ timeout: 20_000 });
  });
}

test('taking everything away leaves gaps, not errors', async ({ page, open }) => {
  await open('pack');
  for (const name of [
    /^Remove Inverter/,
    /^Remove Charger/,
    /^Remove DC-DC/,
    /^Remove Cabin/,
    /^Remove Coolant/,
    /^Remove Compressor/,
    /^Remove DC inlet/,
    /^Remove Insulation/,
    /^Remove Nose/,
    /^Remove Floor/,
    /^Remove Tail/,
    /^Remove Collector/,
  ]) {
    if (name.source.includes('Nose')) await page.getByRole('link', { name: 'Boxes and arrangement' }).click();
    await page.getByRole('button', { name }).click();
  }
  await page.getByRole('link', { name: 'Cells and devices' }).click();
  await field(page, 'pack.peakCurrentA').fill('');
  await field(page, 'pack.peakCurrentA').press('Enter');
  await saved(page);
  await expect(page.getByText('Next:')).toContainText('Next:');
  await page.getByLabel('Stations').getByRole('link', { name: 'Protect' }).click();
  await page.getByRole('link', { name: 'Start and stop' }).click();
  await expect(page.getByText('The rise is drawn as soon as')).toBeVisible();
  await page.getByLabel('Stations').getByRole('link', { name: 'Prove' }).click();
  await expect(page.locator('[data-step="precharge-curve:circuit-main"]')).toContainText('not computed');
  await page.locator('[data-step="precharge-curve:circuit-main"]').click();
  await expect(page.getByRole('link', { name: 'devices on the bus is not given' })).toBeVisible();
});

test('a job that is not there, and an address that is nothing', async ({ page, server, signIn }) => {
  await signIn();
  await page.goto(`${server.url}/jobs/nobody/pack`);
  await expect(page.getByRole('alert')).toContainText('This job cannot be opened');
  await page.goto(`${server.url}/nowhere`);
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
});
