import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { expect, saved, test } from './fixtures';

/** A data sheet’s plot as somebody would photograph it: log axes, a straight line from (100 A, 100 s) to (1000 A, 1 s). */
const picture = (page: Page) =>
  page.evaluate(async () => {
    const canvas = document.createElement('canvas');
    canvas.width = 420;
    canvas.height = 340;
    const pen = canvas.getContext('2d')!;
    pen.fillStyle = '#fff';
    pen.fillRect(0, 0, 420, 340);
    pen.strokeStyle = '#888';
    for (let i = 0; i <= 2; i += 1) pen.strokeRect(60, 20, 160 * i, 300);
    pen.strokeStyle = '#000';
    pen.beginPath();
    pen.moveTo(220, 20);
    pen.lineTo(380, 170);
    pen.stroke();
    const blob = await new Promise<Blob>((resolve) => canvas.toBlob((made) => resolve(made!)));
    return [...new Uint8Array(await blob.arrayBuffer())];
  });

test('a fuse is added with its curve read off a picture; wrong figures are named and nothing is lost', async ({
  page,
  server,
  signIn,
}) => {
  await signIn();
  await page.goto(`${server.url}/library`);
  await page.getByRole('button', { name: 'New fuse' }).click();
  const fill = (name: string, text: string) =>
    page.locator(`[data-part-field="${name}"]`).locator('input, textarea').first().fill(text);
  await fill('make', 'Corrow');
  await fill('number', 'R63');
  await fill('ratedA', '63');
  await fill('ratedVoltageV', '0.5 kV');
  await fill('breakingA', '20k?');
  await fill('minBreakingA', '0');
  await fill('currentToleranceFraction', '8');
  await fill('arcI2tFactor', '2');
  await fill('ambientDerating', '25 1');

  await page.getByRole('button', { name: 'Read it off a picture' }).first().click();
  const buffer = Buffer.from(await picture(page));
  await page
    .getByLabel('Picture of the plot')
    .setInputFiles({ name: 'sheet.png', mimeType: 'image/png', buffer });
  const surface = page.locator('[data-curve-reader] svg');
  const press = (x: number, y: number) => surface.click({ position: { x, y } });
  for (const [x, y, value] of [
    [60, 320, '10'],
    [380, 320, '1000'],
    [60, 20, '100'],
    [60, 170, '1'],
  ] as const) {
    await press(x, y);
    await page.keyboard.type(value);
  }
  await press(220, 20);
  await press(300, 95);
  await press(380, 170);
  const points = page.locator('[data-curve-reader] tbody tr');
  await expect(points).toHaveCount(3);
  await expect(points.nth(1)).toHaveText(/316\s*10/);
  await page.getByRole('button', { name: 'Take 3 points' }).click();

  await page.getByRole('button', { name: 'Save the part' }).click();
  await expect(page.locator('[data-part-field="breakingA"]')).toContainText('"20k?" is not a number');
  await fill('breakingA', '20k');
  await page.getByRole('button', { name: 'Save the part' }).click();
  const sheet = page.locator('[data-open-part="corrow-r63@1"]');
  await expect(sheet).toContainText('read off sheet.png');
  await expect(sheet).toContainText('8 %');
  await page.reload();
  await expect(page.locator('[data-part="corrow-r63@1"]')).toContainText('500 V');
});

test('parts go out as CSV, come back changed as next revisions, and a design learns of them', async ({
  page,
  server,
  open,
}) => {
  await open('protect');
  await page.goto(`${server.url}/library?kind=fuse`);
  await page.getByLabel('Compare Calderside F350-500').first().check();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  const text = readFileSync((await (await download).path())!, 'utf8');
  expect(text.split('\n')).toHaveLength(2);
  await page.getByRole('button', { name: 'Take in' }).click();
  const box = page.getByLabel('or paste it here');
  await box.fill(text.replace(',500,20000,', ',500,much,'));
  await box.blur();
  await expect(page.getByRole('alert')).toContainText('Line 2: breakingA: “much” is not a number');
  await box.fill(text.replace(',500,20000,', ',500,8000,'));
  await box.blur();
  await expect(page.getByText('Would come in: 0 new, 1 as next revision, 0 there already.')).toBeVisible();
  await page.getByRole('button', { name: 'Take them in' }).click();
  await expect(page.getByText('Taken in: 0 new, 1 as next revision')).toBeVisible();
  await box.fill(text);
  await box.blur();
  await expect(page.getByText('Would come in: 0 new, 0 as next revision, 1 there already.')).toBeVisible();

  await open('protect');
  const note = page.locator('.finding', { hasText: 'Breaking capacity 20000 A → 8000 A' });
  await note.getByRole('button', { name: 'take' }).click();
  await saved(page);
  // The corrected figure turns the fuse's verdict at once.
  await expect(page.locator('.finding', { hasText: 'Breaks 8000 A' }).first()).toBeVisible();
  await expect(note).toHaveCount(0);
});

test('somebody who only looks finds parts and can change none', async ({ page, server, signIn }) => {
  await signIn('witness');
  await page.goto(`${server.url}/library?kind=lug`);
  await expect(page.locator('[data-part]')).toHaveCount(28);
  await page.getByLabel('Search in parts').fill('m12');
  await expect(page.locator('[data-part]')).toHaveCount(1);
  await page.getByLabel('Search in parts').fill('nothing like it');
  await expect(page.getByText('No part is like that.')).toBeVisible();
  await expect(page.getByRole('button', { name: /New|Take in|Correct|Retire/ })).toHaveCount(0);
});
