import { readFileSync } from 'node:fs';
import { cell, expect, test } from './fixtures';

test('a batch is pasted; a slip by ten is asked about, an outlier marked; what is recorded leads back to its module', async ({
  page,
  open,
}) => {
  await open('pack', 'job-demo-orchard-truck');
  await page.getByRole('link', { name: 'Intake' }).click();
  await cell(page, 'rows.module-c07.voltageV').click();
  await page.evaluate(() => {
    const clipboardData = new DataTransfer();
    clipboardData.setData(
      'text/plain',
      '3.29\t820\t0.46\t159\n32.88\t800\t0.44\t160\n3.12\t790\t0.45\t161\n',
    );
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
    );
  });
  const record = page.getByRole('button', { name: /^Record \d+$/ });
  await expect(record).toHaveText('Record 12');
  // A tenth would fit: nothing is recorded until somebody has looked again.
  await expect(page.getByRole('alert')).toContainText(
    'C08 32.88 V is out, but a tenth of it (3.288 V) would fit',
  );
  await expect(record).toBeDisabled();
  await cell(page, 'rows.module-c08.voltageV').click();
  await page.keyboard.type('3.288');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveCount(0);
  // Nine readings, all but one within a few millivolts.
  await expect(page.getByText('9 modules, median 3.288 V; one outlier: C09.')).toBeVisible();

  // What is typed survives the page.
  await page.reload();
  await expect(cell(page, 'rows.module-c09.voltageV')).toHaveText('3.12');
  await expect(record).toHaveText('Record 12');
  // A range that ended is a reading as well; undo takes back what was typed, after a reload too, and leaves the design alone.
  await cell(page, 'rows.module-c09.insulationMOhm').click();
  await page.keyboard.type('>2000');
  await page.keyboard.press('Enter');
  await expect(cell(page, 'rows.module-c09.insulationMOhm')).toHaveText('>2000');
  await page.keyboard.press('Control+z');
  await expect(cell(page, 'rows.module-c09.insulationMOhm')).toHaveText('790');
  await page.keyboard.press('Control+z');
  await expect(cell(page, 'rows.module-c08.voltageV')).toHaveText('32.88');
  await page.keyboard.press('Control+Shift+z');
  await expect(cell(page, 'rows.module-c08.voltageV')).toHaveText('3.288');
  await record.click();
  await expect(page.getByText('12 entries recorded.')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText('not recorded', { exact: true })).toHaveCount(0);

  await cell(page, 'rows.module-c09.serial').click();
  await page.keyboard.type('OK 4409');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Seen' }).click();
  await page.getByLabel('Look of C09').selectOption('marked');
  await page.getByLabel('terminals of C09').selectOption('worn');
  // It came with another code: nothing is recorded until somebody says which of the two it is.
  await expect(record).toBeDisabled();
  await page.getByRole('button', { name: 'it had been misread' }).click();
  await record.click();
  await expect(page.getByText('1 entry recorded.')).toBeVisible();
  await page.getByRole('button', { name: 'On arrival' }).click();
  await cell(page, 'rows.module-c09.capacityAh').click();
  const card = page.locator('[data-module-card]');
  await expect(card).toContainText('serial OK 4409');
  await expect(card).toContainText('Module received, serial OK 4409');
  await expect(card).toContainText('Intake capacity of C09');
  await expect(card.getByRole('listitem')).toHaveCount(23); // five of intake, where it was fitted, the rest of balancing

  // What was found on the bench stands where the module is fitted.
  const findings = page.getByRole('complementary');
  await expect(findings).toContainText('C09: voltage 3.12 V, the batch 3.288 V');
  await expect(findings).toContainText('C09 (OK 4409): looks marked, terminals worn.');

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Labels with QR, PDF' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Pomfrey-Hill-orchard-truck-labels.pdf');
  expect(readFileSync(await download.path(), 'latin1').slice(0, 5)).toBe('%PDF-');
});

test('at the bench: a thing of the shelf by its own number; what the meter cannot reach, and what the eye sees', async ({
  page,
  open,
}) => {
  await open('pack?panel=intake', 'job-demo-library-bus');
  const last = page.locator('[data-intake]').getByRole('row').last();
  await last.getByRole('gridcell').first().click();
  const name = await last.getByRole('gridcell').first().textContent();
  await page.getByRole('button', { name: 'Bench mode' }).click();
  const bench = page.locator('[data-intake-bench]');
  await expect(bench).toContainText('on the shelf');
  await expect(bench.getByLabel('Serial number')).toHaveCount(0);
  const insulation = bench.getByLabel(`insulation of ${name}`);
  await insulation.fill('OL');
  await insulation.press('Enter');
  await expect(bench.getByRole('alert')).toHaveText('where does its range end? Write > and that value');
  await insulation.fill('>2000');
  await insulation.press('Enter');
  await expect(bench.getByRole('alert')).toHaveCount(0);
  await bench.getByRole('radio', { name: 'not drained' }).click();
  await bench.getByRole('button', { name: 'Record and go on' }).click();
  await expect(page.getByText('2 entries recorded.')).toBeVisible();
  await expect(insulation).toHaveValue('>2000');
  await expect(bench.getByRole('radio', { name: 'not drained' })).toBeChecked();
});
