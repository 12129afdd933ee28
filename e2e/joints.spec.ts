import { cell, expect, saved, test, typeCell } from './fixtures';

const lug = (circuit: string, role: string) => `drop.circuit-${circuit}/${role}`;
const heater = ['source-plus', 'source-minus', 'device-plus', 'device-minus'].map((role) =>
  lug('heater', role),
);

test('a walk along the lugs asks about an odd drop, wants the current, and finds the joint that differs', async ({
  page,
  open,
}) => {
  await open('protect?panel=joints');
  await cell(page, 'joints.joint-m5.tag').click();
  const walk = page.locator('[data-joint-walk]');
  await expect(walk.getByRole('heading')).toHaveText('Walk: Lugs on M5');
  for (const [i, path] of heater.entries()) await typeCell(page, path, i === 2 ? '21' : `${2 + i / 10}`);
  const record = walk.getByRole('button', { name: 'Record 4' });
  await expect(record).toBeDisabled();
  await expect(walk).toContainText('Say which current flowed.');
  await walk.getByLabel('Current that flowed').fill('20 A');
  await expect(walk).toContainText('Heater + at the device: 0.021 V is far from what is usual.');
  await expect(record).toBeDisabled();
  await walk.getByRole('button', { name: 'Yes' }).click();
  await record.click();
  await expect(walk.getByRole('status')).toHaveText('4 recorded.');
  await expect(walk).toContainText('4 of 20 joints are read');
  // With that of the posts it is one line of two.
  const group = page.locator('[data-group="joints.outlier"]');
  await expect(group).toContainText('× 2: Posts of the modules, Lugs on M5');
  await group.getByRole('button').first().click();
  const finding = page.locator('.finding', { hasText: 'Heater + at the device lies far above the rest' });
  await expect(finding).toContainText('at 1.05 mΩ');
  // It was loose: made anew and read again, the finding is gone.
  await typeCell(page, heater[2]!, '2.1');
  await walk.getByRole('button', { name: 'Yes' }).click();
  await walk.getByRole('button', { name: 'Record 1' }).click();
  await expect(finding).toHaveCount(0);
  await page.getByLabel('Stations').getByRole('link', { name: 'Book' }).click();
  await expect(page.getByText('Drops read at Heater + at the device').first()).toBeVisible();
});

test('a torque that stretches the thread, a washer between the faces, a kind of its own', async ({
  page,
  open,
}) => {
  await open('protect?panel=joints');
  await typeCell(page, 'joints.joint-posts.torqueNm', '26');
  const findings = page.getByLabel('Findings and working');
  await expect(findings).toContainText('26 N·m pull an M8 of A2-70 with 16.3 kN, 98.7 % of its proof stress');
  await page.keyboard.press('Control+z');
  await expect(findings).not.toContainText('of its proof stress');
  const detail = page.locator('[data-joint-detail]');
  await cell(page, 'joints.joint-m10.tag').click();
  // From the bottom: bar, lug, washer; the lug goes one up.
  await detail.getByRole('button', { name: 'lug one up' }).click();
  await expect(findings).toContainText('a washer lies between the faces');
  await expect(detail.locator('li.wrong', { hasText: 'washer' })).toBeVisible();
  await page.getByRole('button', { name: 'Add a kind' }).click();
  await expect(page.getByRole('gridcell', { name: 'Name of cable lugs 7' })).toBeVisible();
  await saved(page);
});

test('bonds: a body without one is a finding; a measurement below 0.2 A shows nothing', async ({
  page,
  open,
}) => {
  await open('protect?panel=bonds');
  const findings = page.getByLabel('Findings and working');
  await page.getByLabel('Bonded by of Tail box').selectOption('none');
  await expect(findings).toContainText('Tail box has no bond to the chassis');
  await page.getByLabel('Bonded by of Tail box').selectOption('strap');
  await expect(findings).not.toContainText('Tail box has no bond');
  await page.getByText('Measure bonds').click();
  await typeCell(page, 'bond.box-tail', '0.2');
  const bonds = page.locator('[data-bonds]');
  await bonds.getByLabel('Current that flowed').fill('100 mA');
  await bonds.getByRole('button', { name: 'Record 1' }).click();
  await expect(findings).toContainText('Tail box was measured at 0.1 A; 0.2 A or more are asked.');
  await page.getByLabel('Sheath of Main').selectOption('other');
  await expect(findings).toContainText('The cable of Main, of up to 403 V, is neither orange');
  await page.getByLabel('Mains and pack of Charger, three-phase').selectOption('none');
  await expect(findings).toContainText('has no isolation between the mains and the pack');
  await page.getByRole('button', { name: 'Add a body' }).click();
  await page.getByLabel('Bonded by of Bracket 16').selectOption('bolted');
  await saved(page);
  await expect(cell(page, 'bonds.box-tail.areaMm2')).toHaveText('16');
});

test('somebody who only looks can record nothing', async ({ page, signIn, server }) => {
  await signIn('witness');
  await page.goto(`${server.url}/jobs/job-demo-library-bus/protect?panel=joints`);
  await expect(page.locator('[data-joint-walk]')).toContainText('32 of 32 joints are read');
  await expect(page.getByRole('button', { name: 'Record' })).toBeDisabled();
  await expect(page.getByRole('button', { name: 'Add a kind' })).toBeDisabled();
});
