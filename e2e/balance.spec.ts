import { readFileSync } from 'node:fs';
import { restingCells } from '../demo/resting';
import { cell, expect, field, saved, test } from './fixtures';

const truck = 'job-demo-orchard-truck';

test('readings of a later day change a verdict, and the plan moves', async ({ page, open }) => {
  await open('pack', truck);
  await page.getByRole('link', { name: 'Balance' }).click();
  const counts = page.locator('[data-counts]');
  await expect(counts).toContainText(
    '14 inside, 1 too high, 1 too low, 4 too early to tell, 4 on, 12 waiting',
  );
  await expect(page.getByText('16 cells settle between')).toContainText('outside: C07, C11.');
  // Five readings: one more and C17 can be told.
  await page.getByLabel('Cells shown').selectOption('at rest');
  const row = page.getByRole('row', { name: /of C17:/ });
  await expect(row).toContainText('too early to tell');
  await cell(page, 'volts.module-c17/cell-1').click();
  await page.keyboard.type('29,01');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('a tenth of it (2.901 V) would fit');
  const record = page.getByRole('button', { name: /^Record \d+$/ });
  await expect(record).toBeDisabled();
  await cell(page, 'volts.module-c17/cell-1').click();
  // It came off at half past twelve of the last day that was told.
  const morning = Math.floor((Date.now() - 8.75 * 3.6e6) / 86.4e6) * 86.4e6;
  const hours = (Date.now() - (morning - 86.4e6 + 12.5 * 3.6e6)) / 3.6e6;
  const volts = restingCells(36).map((at) => at(hours).toFixed(4).replace('.', ','));
  await page.keyboard.type(volts[16]!);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toHaveCount(0);
  await record.click();
  await expect(page.getByText('1 reading recorded.')).toBeVisible();
  await expect(row).toContainText('will settle inside');
  await expect(counts).toContainText('3 too early to tell');

  // A file of the day after.
  const later = new Date().toISOString();
  await page.getByLabel('File of readings').setInputFiles({
    name: 'walk.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `cell;time;V\n${[18, 19, 20].map((one) => `C${one};${later};${volts[one - 1]}`).join('\n')}\n`,
    ),
  });
  const form = page.locator('[data-log-form]');
  await expect(form.getByRole('status')).toContainText('3 readings of 3 cells');
  await form.getByRole('button', { name: 'Record 3' }).click();
  await expect(page.getByText('3 readings of 3 cells recorded from walk.csv.')).toBeVisible();
  await expect(counts).toContainText('0 too early to tell');
  await page.getByLabel('File of readings').setInputFiles({
    name: 'bad.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('cell,V\nC99,2.9\n'),
  });
  await expect(form.getByRole('alert')).toHaveText('line 2: “C99” is no cell of this design');
  await expect(form.getByRole('button', { name: 'Record 0' })).toBeDisabled();
  // As a donor’s monitor puts it out: numbers, millivolts, a column that nobody needs, a clock without a day.
  await page.getByLabel('File of readings').setInputFiles({
    name: 'monitor.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('Unit 4;v2\n\nNo.;clock;reading;T\n18;07:30;3281;21\n19;07:30;3282;21\n'),
  });
  await form.getByLabel('What reading holds').selectOption('voltage');
  await expect(form.getByRole('alert')).toHaveText('its times have no day: say when it began');
  await form.getByLabel('When the log began').fill('31.02.2026');
  await expect(form.getByRole('alert')).toHaveText('“31.02.2026” is no day and time');
  await form.getByLabel('When the log began').fill('2026-11-01');
  await expect(form.getByRole('status')).toContainText('2 readings of 2 cells');
  await form.getByRole('button', { name: 'Leave it' }).click();
  await expect(form).toHaveCount(0);

  // The cells under load come off; their rest begins.
  await page.getByRole('button', { name: 'All 4 off now' }).click();
  await expect(counts).toContainText('4 too early to tell, 0 on');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report as PDF' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Pomfrey-Hill-orchard-truck-balancing.pdf');
  expect(readFileSync(await download.path(), 'latin1').slice(0, 5)).toBe('%PDF-');
});

test('a bottom balance is planned: benches, a day too short, a load with its heat', async ({
  page,
  open,
}) => {
  await open('pack', truck);
  await page.getByRole('link', { name: 'Balance' }).click();
  await page.locator('summary', { hasText: 'Plan, load and recipe' }).click();
  const calendar = page.getByRole('region', { name: 'Calendar', exact: true });
  await expect(calendar).toContainText('bench 4');
  await field(page, 'pack.balance.benches').fill('2');
  await page.keyboard.press('Enter');
  await expect(calendar).not.toContainText('bench 4');
  await field(page, 'pack.balance.drawHours').fill('12');
  await page.keyboard.press('Enter');
  await expect(calendar).toContainText('do not fit into a day from 8 to 18 h');
  await page.getByLabel('May run with nobody there').check();
  await expect(calendar).not.toContainText('do not fit');
  await expect(page.locator('[data-load]')).toContainText('100 mΩ draw 32.8 A');
  await page
    .getByRole('row', { name: /^150 mΩ/ })
    .getByRole('button', { name: 'take' })
    .click();
  await expect(page.locator('[data-load]')).toContainText('150 mΩ draw 21.9 A');
  await field(page, 'pack.balance.bleedCurrentA').fill('0.4');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Level at empty, and the monitor bleeds 0.4 A.').first()).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.locator('[data-load]')).toHaveCount(1);
});

test('a replacement is matched: current against every limit, which way, and the record of it', async ({
  page,
  open,
}) => {
  await open('pack');
  await page.getByRole('link', { name: 'Match and group' }).click();
  await page.getByLabel('One side').selectOption({ label: 'S2-M08' });
  await page.getByLabel('The other side').selectOption({ label: 'S2-M07' });
  await page.getByLabel('Resistance between').fill('1');
  await page.getByLabel('Voltage of one').fill('43,86');
  const verdict = page.locator('[data-match] [data-verdict]');
  // 0.85 V over two modules of 9 mΩ and 1 mΩ.
  await expect(verdict).toContainText('Joining drives 44.7 A, within 180 A');
  await page.getByLabel('Voltage of one').fill('40');
  await expect(verdict).toContainText('Do not join: 248 A would flow, 180 A are allowed.');
  await expect(verdict).toContainText('Charge S2-M08 up, or discharge S2-M07 down');
  await page.getByLabel('Bench current').fill('10');
  await expect(verdict).toContainText('h with this gear');
  await page.getByLabel('One, after').fill('44.7');
  await page.getByLabel('The other, after').fill('44.71');
  await page.getByLabel('It took, hours').fill('1.5');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByText('Recorded; the modules’ voltages are due again.')).toBeVisible();

  // Taken up where it was left: both sides begin at what they were brought to.
  await expect(page.locator('[data-match] [data-before]')).toContainText('S2-M08 40 to 44.7 V');
  await expect(page.locator('[data-match]')).toContainText('as it was left on');
  await expect(verdict).toContainText('Joining drives 0.526 A, within 180 A');
  await page.getByLabel('Stations').getByRole('link', { name: 'Book' }).click();
  await expect(page.getByText('S2-M08 and S2-M07 brought level: 40 V to 44.7 V').first()).toBeVisible();
  await expect(page.getByText(/10 mV apart|0.01 V apart/).first()).toContainText(
    '0.526 A when joined, 180 A allowed',
  );
});
