import { cell, expect, field, saved, test, typeCell } from './fixtures';

const inlet = 'circuit-inlet';

test('another fuse in a branch turns several verdicts at once, and a ranked one takes them back', async ({
  page,
  open,
}) => {
  await open('protect');
  const table = page.locator('[data-circuits]');
  await table.getByRole('button', { name: 'DC inlet' }).click();
  await expect(page).toHaveURL(new RegExp(`circuit=${inlet}`));
  await expect(page.getByRole('heading', { name: 'Fuse of DC inlet' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Pre-charge' })).toHaveCount(0);
  const row = table.getByRole('row', { name: /DC inlet/ });
  await expect(row).toContainText('98 / 120');
  await expect(row.getByText('fails')).toHaveCount(0);

  await row.getByLabel('Fuse of DC inlet').selectOption('calderside-f630@1');
  await expect(row.getByText('fails').first()).toBeVisible();
  const findings = page.getByLabel('Findings and working');
  await expect(findings).toContainText('may melt before Calderside F630-500');
  await expect(findings).toContainText('stands 3281 A for 241 ms, the fuse takes 1.67 s');
  await saved(page);

  await page
    .getByRole('row', { name: /Calderside F160-500/ })
    .getByRole('button', { name: 'take' })
    .click();
  await expect(row.getByText('fails')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(row.getByText('fails').first()).toBeVisible();
});

test('a long burst overheats a cable that its mean current would not', async ({ page, open }) => {
  await open('protect');
  await page.locator('[data-circuits]').getByRole('button', { name: 'DC inlet' }).click();
  const plot = page.getByText(/Over the repeated load the conductor reaches/);
  await expect(plot).toContainText('its limit is 125 °C');
  await page.getByLabel('Amperes of load step 1').fill('260');
  await page.getByLabel('Amperes of load step 1').press('Tab');
  await page.getByLabel('Seconds of load step 2').fill('20000');
  await page.getByLabel('Seconds of load step 2').press('Tab');
  await expect(page.getByLabel('Findings and working')).toContainText('over the load, its limit is 125 °C');
  await expect(page.locator('[data-circuits]').getByRole('row', { name: /DC inlet/ })).toContainText('fails');
  await field(page, `circuits.${inlet}.parallel`).fill('2');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Findings and working')).not.toContainText('over the load, its limit');
});

test('every rule stands in the register, with how it stands in this job', async ({ page, open }) => {
  await open('protect');
  await page.getByRole('link', { name: 'Every rule there is' }).click();
  const rules = page.getByRole('region', { name: 'Rules', exact: true });
  await expect(rules.locator('[data-rule="fuse.not-selective"]')).toContainText('clear 7×');
  await page.getByLabel('Rules shown').selectOption('raised');
  await expect(rules.locator('[data-rule="vehicle.axle-shift"]')).toBeVisible();
  await expect(rules.locator('[data-rule="fuse.not-selective"]')).toHaveCount(0);
  await page.getByLabel('Search in rules').fill('no such thing');
  await expect(rules).toContainText('No rule is like that.');
});

test('every figure of the job stands with its id, and opens its working', async ({ page, open }) => {
  await open('protect');
  await page.getByRole('link', { name: 'every figure' }).click();
  const all = page.getByRole('region', { name: 'Figures' });
  await expect(all.locator('[data-listed]').first()).toBeVisible();
  await all.getByRole('searchbox').fill('loop:circuit-heater');
  await expect(all.locator('[data-listed]')).toHaveCount(1);
  await expect(all.locator('[data-listed]')).toContainText('Resistance out and back');
  await expect(all.locator('[data-listed]')).toContainText('conductor.loop:circuit-heater:loopOhm');
  await all.locator('[data-listed] [data-figure]').click();
  await expect(page.locator('[data-working="conductor.loop:circuit-heater:loopOhm"]')).toBeVisible();
  await all.getByRole('searchbox').fill('');
  await all.getByRole('combobox').selectOption('out of its limit');
  await expect(all.locator('[data-listed]')).toHaveCount(2);
});

test('a bare timer is shown against the voltage check, and given up; a measured rise is read', async ({
  page,
  open,
}) => {
  await open('protect?panel=start');
  const timer = page.locator('[data-rule="precharge.bare-timer"]');
  await expect(timer).toContainText('After 0.35 s the bus as designed is at');
  const loaded = page.locator('[data-case="a load"]');
  await expect(loaded).toContainText('gives up');
  await expect(loaded).toContainText('contacts make 650 A');
  await page.getByLabel('The second main is closed by').selectOption('voltage');
  await saved(page);
  await expect(timer).toHaveCount(0);
  const ready = (school: string) => page.locator(`[data-school="${school}"] figcaption`);
  await expect(ready('one-by-one')).toContainText('chosen');
  await page.getByLabel('Order').selectOption('together');
  await saved(page);
  await expect(ready('together')).toContainText('chosen');

  await page.getByRole('button', { name: 'one device more' }).click();
  await expect(page.locator('[data-rise-fit]')).toContainText('more capacitance than designed');
  const samples = page.getByLabel('Seconds and volts, a sample a line');
  await samples.fill('0.1 10\n0.2 x');
  await samples.blur();
  await expect(page.getByRole('alert')).toContainText('line 2 is not a pair of numbers');
});

test('what is typed wrong for one circuit does not stand in the field of the next', async ({
  page,
  open,
}) => {
  await open('protect');
  const table = page.locator('[data-circuits]');
  const length = field(page, 'circuits.circuit-main.lengthM');
  await length.fill('long');
  await length.press('Tab');
  await expect(length).toHaveAttribute('aria-invalid', 'true');
  const seconds = page.getByLabel('Seconds of load step 1');
  await seconds.fill('-5');
  await seconds.press('Tab');
  await expect(page.getByText('Row 1: seconds above 0')).toBeVisible();
  await table.getByRole('button', { name: 'Heater', exact: true }).click();
  const next = field(page, 'circuits.circuit-heater.lengthM');
  await expect(next).toHaveValue('5.2');
  await expect(next).toHaveAttribute('aria-invalid', 'false');
  await expect(seconds).toHaveValue('600');
  await expect(page.getByText('Row 1: seconds above 0')).toHaveCount(0);
  await table.getByRole('button', { name: 'Main' }).click();
  await expect(length).toHaveValue('9.2');
});

test('a way in parts: the hot one governs, the table of sizes follows', async ({ page, open }) => {
  await open('protect?circuit=circuit-charger');
  const carries = page.locator('[data-figure="conductor.cable:circuit-charger:ampacityA"]').first();
  const before = (await carries.textContent())!;
  await page.getByRole('button', { name: 'Give the way in parts' }).click();
  await expect(cell(page, 'circuits.circuit-charger.stretches.0.lengthM')).toHaveText('6.4');
  await page.getByRole('button', { name: 'Another part' }).click();
  await typeCell(page, 'circuits.circuit-charger.stretches.1.lengthM', '1.5');
  await typeCell(page, 'circuits.circuit-charger.stretches.1.ambientC', '118');
  await expect(carries).not.toHaveText(before);
  await expect(page.locator('.finding', { hasText: 'Part 2: ' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Remove Part 2' }).click();
  await expect(page.locator('.finding', { hasText: 'Part 2: ' })).toHaveCount(0);
  await expect(carries).toHaveText(before);
  await saved(page);
});

test('a branch behind contactors of its own shows its inrush, and a resistor takes it away', async ({
  page,
  open,
}) => {
  await open('protect?panel=start&circuit=circuit-charger');
  await expect(page.getByText('no pre-charge of its own is asked for')).toBeVisible();
  await page.locator('[data-circuits]').getByLabel('Contactors of Charger').selectOption('hollin-k200@1');
  await expect(page.locator('[data-direct]')).toContainText('they close onto empty capacitors');
  await page.getByRole('button', { name: /more at this station/ }).click();
  const finding = page.locator('.finding', { hasText: 'rush in without pre-charge' });
  await expect(finding).toContainText('makes');
  await page
    .getByRole('row', { name: /Ember E470-100/ })
    .getByRole('button', { name: 'take' })
    .click();
  await expect(page.locator('[data-direct]')).toHaveCount(0);
  await expect(page.getByText(/The bus of 220 µF reaches 95 %/)).toBeVisible();
  await expect(finding).toHaveCount(0);
  await saved(page);
});

test('a cable of the table is taken with the lugs it needs; lugs and glands are ranked down to the thinnest', async ({
  page,
  open,
}) => {
  await open('protect?circuit=circuit-heater');
  const choice = (kind: string) => page.locator(`[data-choice="${kind}"] select`);
  await expect(choice('lug')).toHaveValue('penhallow-c4-m5@1');
  const row = page.getByRole('row', { name: /^6 mm²/ });
  await expect(row).toContainText('+ lug');
  await row.getByRole('button', { name: 'take' }).click();
  await expect(choice('cable')).toHaveValue('marl-x6@1');
  await expect(choice('lug')).toHaveValue('penhallow-c6-m5@1');
  // One step back: what was taken together goes together.
  await page.keyboard.press('Control+z');
  await expect(choice('cable')).toHaveValue('marl-x4@1');
  await expect(choice('lug')).toHaveValue('penhallow-c4-m5@1');
  await choice('cable').selectOption('marl-x0-5@1');
  await expect(page.getByRole('row', { name: /Penhallow C0.5-M5/ })).toContainText('fits');
  await expect(page.getByRole('row', { name: /Wendmoor G12/ })).toContainText(
    'stands 100 °C, the jacket reaches about',
  );
  await saved(page);
});

test('cables inside the pack: a way without one is named, and a replacement is taken where it is asked for', async ({
  page,
  open,
}) => {
  await open('protect?panel=leads');
  const leads = page.getByRole('region', { name: 'Cables inside the pack' });
  const findings = page.getByLabel('Findings and working');
  const first = leads.getByRole('row', { name: /nose to floor/ }).first();
  await first.getByLabel(/^Cable lugs/).selectOption('penhallow-c35-m10@1');
  await expect(findings).toContainText('Penhallow C35-M10, 35 mm² on M10 at S1, nose to floor is for 35 mm²');
  await findings.getByRole('button', { name: 'take' }).first().click();
  await expect(first.getByLabel(/^Cable lugs/)).toHaveValue('penhallow-c70-m10@1');
  await expect(findings).not.toContainText('is for 35 mm²');

  await first.getByRole('button', { name: /Remove/ }).click();
  await expect(findings).toContainText('1 cable is not described: S1 between S1-M02 and S1-M03.');
  await leads.getByRole('button', { name: 'A row for each' }).click();
  await expect(findings).not.toContainText('not described');
  const made = leads.getByRole('row', { name: /S1 between/ });
  const cable = made.locator('select[data-path$=".cable"]');
  await cable.selectOption({ index: 1 });
  const at = (await cable.getAttribute('data-path'))!.replace(/cable$/, 'lengthM');
  await typeCell(page, at, '0');
  await expect(findings).toContainText('must be above 0');
  await typeCell(page, at, '1.9');
  await expect(findings).not.toContainText('must be above 0');
  await saved(page);
});
