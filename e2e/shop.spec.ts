import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { confirmGate, demoJob, expect, field, saved, test, told } from './fixtures';
import { TestServer } from './server';

test('signing in: wrong password, roles, signing out everywhere', async ({
  page,
  open,
  server,
  signIn,
  browser,
}) => {
  await page.goto(`${server.url}/jobs/${demoJob}/pack`);
  await page.getByLabel('Name').fill('Tobin Halloway');
  await page.getByLabel('Password').fill('something else');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('does not belong to this name');
  await expect(page.getByLabel('Name')).toHaveValue('Tobin Halloway');
  await page.getByRole('button', { name: /Tobin Halloway/ }).click();
  await expect(page.locator('main[data-station="pack"]')).toBeVisible();

  // A technician reads the design and cannot change it, by field or by hand.
  await expect(page.getByText('You read this design.')).toBeVisible();
  await expect(field(page, 'pack.peakCurrentA')).toHaveAttribute('readonly', '');
  const refused = await page.request.post(`${server.url}/api/jobs/${demoJob}/changes`, { data: {} });
  expect(refused.status()).toBe(403);

  const elsewhere = await browser.newContext();
  const other = await elsewhere.newPage();
  await signIn('technician', other);
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await other.goto(server.url);
  await expect(other.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await elsewhere.close();
  await open('pack');
  await expect(field(page, 'pack.peakCurrentA')).not.toHaveAttribute('readonly', '');
});

test('a failed step opens a deviation; what was tried and cured it stands in order; a snag shuts a gate', async ({
  page,
  open,
}) => {
  await open('prove');
  const bench = page.locator('.bench');
  await page.locator('[data-step="insulation-positive:pack"]').click();
  await confirmGate(page);
  await expect(bench.getByText('Its calibration ran out on 2026-11-14')).toBeVisible();
  await bench.locator('[data-measured]').fill('0.05');
  await bench.locator('[data-measured]').press('Enter');
  const deviation = bench.locator('[data-deviation]').first();
  await expect(deviation).toContainText('Suspected, ranked from the design');
  await deviation.getByRole('listitem').filter({ hasText: 'Tail box' }).getByRole('button').click();
  await deviation.getByLabel('What was touched').selectOption({ label: 'Tail box' });
  await deviation.getByLabel('It cured what was seen').check();
  await deviation.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(deviation).toContainText('cured, re-test due');
  await bench.locator('[data-measured]').fill('14');
  await bench.locator('[data-measured]').press('Enter');
  await expect(bench.locator('[data-deviation]').first()).toContainText('closed');
  await expect(bench.locator('[data-last-result]')).toContainText('Passed');

  const snags = page.getByRole('region', { name: 'Snags' });
  await snags.getByRole('button', { name: 'Tag one' }).click();
  await snags.getByLabel('What is provisional').fill('Bench supply on the 12 V');
  await snags.getByLabel('Must be gone by').selectOption('first-hv');
  await snags.getByRole('button', { name: 'Record' }).click();
  await page.locator('[data-step="polarity:pack"]').click();
  await expect(
    bench.getByText(
      /it waits for Joints, bonds and wiring; Coolant: leaks, filling, flow; Insulation; snag \d+ \(Bench supply on the 12 V\)/,
    ),
  ).toBeVisible();
});

test('an entry made while the server is away reads waiting, with its time, and is recorded when it is back', async ({
  page,
  open,
  server,
  context,
}) => {
  await open('prove');
  await page.locator('[data-step="intake-voltage:module-101"]').click();
  await server.stop();
  const measured = page.locator('[data-measured]');
  await measured.fill('44.6');
  await measured.press('Enter');
  const waiting = page.locator('[data-waiting]');
  await expect(waiting).toContainText(/waiting \d\d:\d\d, Intake voltage of S1-M01: 44.6 V/);
  await page.close();
  await server.start();
  const next = await context.newPage();
  await next.goto(`${server.url}/jobs/${demoJob}/book`);
  await expect(next.locator(`[data-entry="${told() + 1}"]`)).toContainText('44.6 V, passed');
  await expect(next.locator('[data-waiting]')).toHaveCount(0);
});

test('a job is taken away with a photo and comes back in an empty shop, verified; an altered file is refused', async ({
  page,
  open,
  browser,
}, info) => {
  await open('book');
  await page.getByRole('button', { name: 'Add a note' }).click();
  await page.getByRole('textbox', { name: 'Note' }).fill('Gland of the tail box');
  const png = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
    'base64',
  );
  await page
    .getByLabel('Files to attach')
    .setInputFiles({ name: 'gland.png', mimeType: 'image/png', buffer: png });
  await expect(page.getByText('gland.png')).toBeVisible();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await page
    .locator(`[data-entry="${told() + 1}"]`)
    .getByRole('button')
    .click();
  await expect(page.getByRole('img', { name: 'gland.png' })).toBeVisible();
  await page.getByRole('button', { name: 'Release this version' }).click();
  await page.getByLabel('Released for').fill('the inspection');
  await page.getByRole('button', { name: 'Freeze version 5' }).click();
  await expect(page.locator('[data-release="1"]')).toContainText('the inspection');
  const download = page.waitForEvent('download');
  await page.getByText('Take away').click();
  const file = info.outputPath('job.zip');
  await (await download).saveAs(file);
  const broken = info.outputPath('broken.zip');
  const bytes = readFileSync(file);
  bytes[2000]! ^= 1;
  writeFileSync(broken, bytes);

  const folder = mkdtempSync(join(tmpdir(), 'torvek-e2e-empty-'));
  const empty = new TestServer(folder, []);
  await empty.start();
  const there = await (await browser.newContext()).newPage();
  await there.goto(empty.url);
  await expect(there.getByRole('heading', { name: 'The owner of this shop' })).toBeVisible();
  await there.getByLabel('Name').fill('Nils Aurvang');
  await there.getByLabel('Password').fill('short');
  await there.getByRole('button', { name: 'Make the account' }).click();
  await expect(there.getByRole('alert').first()).toContainText('at least 10 characters');
  await there.getByLabel('Password').fill('a long enough one');
  await there.getByLabel('Once more').fill('a long enough one');
  await there.getByRole('button', { name: 'Make the account' }).click();
  await expect(there.getByText('No job yet.')).toBeVisible();
  await there.locator('[data-import]').setInputFiles(broken);
  await expect(there.locator('[data-import-report]')).toContainText('was altered after it was made');
  await there.locator('[data-import]').setInputFiles(file);
  await expect(there.locator('[data-import-report]')).toContainText(
    `${told() + 1} entries whose chain verifies, 1 releases, 1 files`,
  );
  await there.getByRole('button', { name: 'Bring it in' }).click();
  await there.getByRole('link', { name: /Ashmarch/ }).click();
  await there.getByLabel('Stations').getByRole('link', { name: 'Book' }).click();
  await there.getByRole('button', { name: 'Verify the chain' }).click();
  await expect(there.locator('[data-verification]')).toContainText(`The chain fits: ${told() + 1} entries`);
  await there.context().close();
  await empty.stop();
  rmSync(folder, { recursive: true, force: true });
});

test('owner: a person, an instrument, a backup and back', async ({ page, server, signIn }, info) => {
  await signIn('owner');
  await page.goto(`${server.url}/shop`);
  await page.getByLabel('Name', { exact: true }).fill('Ylva Brandt');
  await page.getByLabel('First password').fill('ylva is new here');
  await page.getByRole('button', { name: 'Add' }).first().click();
  await expect(page.getByText('Ylva Brandt can sign in now.')).toBeVisible();
  await page.getByLabel('Make and number').fill('Milliohm meter');
  await page.getByLabel('Serial').fill('MO 7');
  await page.getByRole('button', { name: 'Add' }).last().click();
  await expect(page.getByRole('row', { name: /Milliohm meter/ })).toContainText('no calibration kept');
  const download = page.waitForEvent('download');
  await page.getByText('Back up everything').click();
  const file = info.outputPath('backup.zip');
  await (await download).saveAs(file);
  await page
    .getByRole('row', { name: /Milliohm meter/ })
    .getByRole('button', { name: 'Retire' })
    .click();
  await expect(page.getByRole('row', { name: /Milliohm meter/ })).toContainText('Bring back');
  await page.getByLabel('Backup file').setInputFiles(file);
  await page.getByRole('button', { name: 'Restore it' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  await page.getByLabel('Name').fill('Ylva Brandt');
  await page.getByLabel('Password').fill('ylva is new here');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('row', { name: /Milliohm meter/ })).toContainText('no calibration kept');
  await page.goto(`${server.url}/jobs/${demoJob}/pack`);
  await saved(page);
});

test('where codes on labels lead is set by the owner; what cannot be an address stays typed, with the reason', async ({
  page,
  signIn,
  server,
}) => {
  await signIn('owner');
  await page.goto(`${server.url}/shop`);
  const field = page.getByLabel('Codes on labels lead to');
  await field.fill('torvek');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByRole('alert')).toContainText('must be an address such as');
  await expect(field).toHaveValue('torvek');
  await field.fill('https://torvek.example:8443/');
  await page.getByRole('button', { name: 'Set it' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(field).toHaveValue('https://torvek.example:8443');
});
