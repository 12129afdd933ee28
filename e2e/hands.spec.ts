import type { Locator, Page } from '@playwright/test';
import { cell, demoPassword, expect, field, saved, test, typeCell } from './fixtures';

const mass = (id: string, what = 'massKg') => `masses.mass-${id}.${what}`;

/** Puts text on the clipboard of a paste, as a table program would. */
async function paste(page: Page, text: string): Promise<void> {
  await page.evaluate((block) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text/plain', block);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }),
    );
  }, text);
}

test('the grid: move, edit, paste a block, fill down, empty; each gesture is one change', async ({
  page,
  open,
}) => {
  await open('brief');
  await cell(page, mass('motor')).click();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type('50');
  await page.keyboard.press('Tab');
  await page.keyboard.type('-2,4');
  await page.keyboard.press('Enter');
  await expect(cell(page, mass('inverter'))).toHaveText('50');
  await expect(cell(page, mass('inverter', 'xM'))).toHaveText('-2.4');
  await saved(page);

  // A block of two rows and two columns; one cell of it cannot be read, the rest is one change.
  await cell(page, mass('motor')).click();
  await paste(page, '170\t-3.1\n52\tfar back\n');
  await expect(cell(page, mass('motor'))).toHaveText('170');
  await expect(cell(page, mass('motor', 'xM'))).toHaveText('-3.1');
  await expect(cell(page, mass('inverter'))).toHaveText('52');
  await expect(cell(page, mass('inverter', 'xM'))).toHaveText('far back');
  await expect(page.getByText('1 could not be read and are marked')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(cell(page, mass('motor'))).toHaveText('165');
  await expect(cell(page, mass('inverter'))).toHaveText('50');
  await page.keyboard.press('Control+Shift+z');
  await expect(cell(page, mass('motor'))).toHaveText('170');

  // Fill down over three rows; Delete empties; Esc while typing takes back.
  await cell(page, mass('motor', 'zM')).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await expect(cell(page, mass('charger', 'zM'))).toHaveText('0.55');
  await page.keyboard.press('Delete');
  await expect(cell(page, mass('charger', 'zM'))).toHaveText('');
  await page.keyboard.press('Control+z');
  await expect(cell(page, mass('charger', 'zM'))).toHaveText('0.55');
  await cell(page, mass('charger')).click();
  await page.keyboard.type('99');
  await expect(page.getByLabel('Nameplate')).toContainText(/mass61\d\d/);
  await page.keyboard.press('Escape');
  await expect(cell(page, mass('charger'))).toHaveText('27');
  await saved(page);
});

test('what the grid copies is what it shows, by tab and line', async ({ page, open }) => {
  await open('brief');
  await cell(page, mass('motor')).click();
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  const copied = await page.evaluate(() => {
    const clipboardData = new DataTransfer();
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('copy', { clipboardData, bubbles: true, cancelable: true }),
    );
    return clipboardData.getData('text/plain');
  });
  expect(copied).toBe('165\t-3.2\n34\t-2.5');
});

test('finder and keys reach everything without a mouse', async ({ page, open }) => {
  await open('brief');
  await page.keyboard.press('g');
  await page.keyboard.press('t');
  await expect(page.locator('main[data-station="protect"]')).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('usable energy');
  await page.keyboard.press('Enter');
  await expect(page.locator('[data-working="pack.pack:pack:usableEnergyKWh"]')).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('tail box opened');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/book\?entry=85/);
  await expect(page.locator('[data-entry="85"]')).toHaveClass(/picked/);
  await page.keyboard.press('/');
  await page.keyboard.type('no such thing');
  await expect(page.getByText('Nothing in this job has these words.')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.keyboard.press('g');
  await page.keyboard.press('b');
  await page.keyboard.press('n');
  await expect(page.locator('[data-rule="vehicle.axle-shift"] button').first()).toBeFocused();
  await page.keyboard.press('n');
  await expect(page.locator('main[data-station="pack"]')).toBeVisible();
  // Inside a field a letter is a letter; with Alt it is a key.
  await field(page, 'pack.peakCurrentA').focus();
  await page.keyboard.press('n');
  await expect(field(page, 'pack.peakCurrentA')).toHaveValue(/n/);
  await page.keyboard.press('Escape');
  await page.keyboard.press('Alt+/');
  await expect(page.getByLabel('Find', { exact: true })).toBeFocused();
  await page.keyboard.press('Escape');
  await page.locator('main').click({ position: { x: 3, y: 3 } });
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('find anything in this job');
});

test('a procedure by keyboard alone: step, second person, value, next', async ({ page, open }) => {
  await open('prove');
  await page.keyboard.press('/');
  await page.keyboard.type('stop time below');
  await page.keyboard.press('Enter');
  const bench = page.locator('.bench');
  await expect(bench.getByRole('heading', { name: /^Stop: time/ })).toBeVisible();
  const tabTo = async (what: Locator) => {
    for (let i = 0; i < 140; i += 1) {
      if (await what.evaluate((element) => element === document.activeElement)) return;
      await page.keyboard.press('Tab');
    }
    throw new Error('Tab does not lead there');
  };
  await tabTo(bench.getByLabel('Second person'));
  await page.keyboard.type('Ruan');
  await page.keyboard.press('Tab');
  await page.keyboard.type('not the password');
  await page.keyboard.press('Enter');
  await expect(bench.getByRole('alert')).toContainText('The password does not belong to this name');
  await tabTo(bench.getByLabel('Their password'));
  await page.keyboard.type(demoPassword);
  await page.keyboard.press('Enter');
  await expect(bench.locator('[data-gate-open]')).toContainText('Ruan Pellory');
  await tabTo(bench.locator('[data-measured]'));
  await page.keyboard.type('4,6');
  await page.keyboard.press('Enter');
  await expect(bench.locator('[data-last-result]')).toContainText('Passed 4.6 s');
  await expect(bench.locator('[data-measured]')).toBeFocused();
});

test('units by choice are shown and read; the design keeps its own', async ({
  page,
  open,
  server,
  signIn,
}) => {
  await signIn();
  await page.goto(server.url);
  await page.getByLabel('Lengths').selectOption('inch');
  await page.getByLabel('Conductor areas').selectOption('AWG');
  await page.getByLabel('Temperatures').selectOption('°F');
  await open('brief');
  await expect(cell(page, mass('motor', 'lengthM'))).toHaveText('2.62467');
  await typeCell(page, mass('motor', 'lengthM'), '3');
  await expect(cell(page, mass('motor', 'lengthM'))).toHaveText('3');
  await typeCell(page, mass('inverter', 'lengthM'), '500 mm');
  await expect(cell(page, mass('inverter', 'lengthM'))).toHaveText('1.64042');
  await saved(page);
  const design = (await (await page.request.get(`${server.url}/api/jobs/job-demo-library-bus`)).json()) as {
    design: { masses: Record<string, { lengthM: number }> };
  };
  expect(design.design.masses['mass-motor']!.lengthM).toBeCloseTo(0.9144, 9);
  expect(design.design.masses['mass-inverter']!.lengthM).toBeCloseTo(0.5, 9);
  await open('protect');
  await expect(page.getByText('≈ 2/0 AWG')).toBeVisible();
  await expect(
    page.locator('[data-figure="conductor.cable:circuit-main:conductorTemperatureC"]').first(),
  ).toContainText('°F');
});

test('ten values in a row: value, Enter, Enter; no tab, no mouse', async ({ page, server, signIn, open }) => {
  await signIn('technician');
  await open('prove?step=intake-voltage:module-c07', 'job-demo-orchard-truck');
  const entries = async () => {
    const answer = await page.request.get(
      `${server.url}/api/jobs/job-demo-orchard-truck/entries?kind=result&limit=1`,
    );
    return ((await answer.json()) as { total: number }).total;
  };
  const before = await entries();
  const heading = page.locator('.bench h2').first();
  await expect(heading).toHaveText('Intake voltage of C07');
  await expect(page.locator('[data-measured]')).toBeFocused();
  for (let i = 1; i <= 10; i += 1) {
    const title = await heading.textContent();
    await page.keyboard.type('3,3');
    await page.keyboard.press('Enter');
    await expect(page.locator('[data-last-result]')).toContainText('Passed');
    await page.keyboard.press('Enter');
    await expect(heading).not.toHaveText(title!);
    await expect(page.locator('[data-measured]')).toBeFocused();
  }
  expect((await entries()) - before).toBe(10);
});

test('a wrong value is set right in Book by a correction that carries the right one', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('prove?step=intake-voltage:module-c07', 'job-demo-orchard-truck');
  await page.locator('[data-measured]').fill('33');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Record it as it stands' }).click();
  await expect(page.locator('[data-last-result]')).toContainText('Failed');
  await page.getByLabel('Stations').getByRole('link', { name: 'Book' }).click();
  const row = page.locator('tr', { hasText: 'Intake voltage of C07' }).first();
  await row.getByRole('button').click();
  await page.getByRole('button', { name: 'Correct it by a new entry' }).click();
  await page.getByLabel('Reason of the correction').fill('Decimal point.');
  await page.locator('[data-right]').fill('three');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('The right value');
  await page.locator('[data-right]').fill('3.3');
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.locator('tr', { hasText: 'corrected: the right value follows' })).toContainText(
    'Decimal point.',
  );
  await expect(page.locator('tr', { hasText: 'Intake voltage of C07' }).first()).toContainText('passed');
});

test('a load is typed in the table of circuits, and comes from its device; a half typed row is not wrong', async ({
  page,
  open,
  signIn,
}) => {
  await signIn('designer');
  await open('protect?circuit=circuit-heater');
  const load = page.locator('[data-load="circuit-monitor"]');
  await load.fill('3 kW');
  await load.press('Enter');
  await saved(page);
  await expect(load).toHaveValue(/^9\.\d+$/);
  await load.fill('much');
  await load.press('Enter');
  await expect(load).toHaveAttribute('aria-invalid', 'true');
  await load.press('Escape');
  await expect(load).toHaveValue(/^9\.\d+$/);
  await page.locator('[data-circuits]').getByRole('button', { name: 'Heater', exact: true }).click();
  const profile = page.locator('[data-path="circuits.circuit-heater.loadProfile"]');
  await profile.getByRole('button', { name: 'Add a step of the load' }).click();
  await page.keyboard.type('60');
  await page.keyboard.press('Tab');
  await expect(profile).toContainText('One row is not complete yet.');
  await expect(profile.getByRole('alert')).toHaveCount(0);
  await page.keyboard.type('12');
  await page.keyboard.press('Tab');
  await saved(page);
  await profile.getByRole('button', { name: 'From its device' }).click();
  await saved(page);
  await expect(profile.locator('[data-row]')).toHaveCount(1);
});

test('five branches from nothing to judged: under sixty keys besides their numbers', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('network', 'job-demo-orchard-truck');
  let keys = 0;
  const press = async (...all: string[]) => {
    for (const key of all) {
      await page.keyboard.press(key);
      keys += 1;
    }
  };
  /** A click is counted as a key; digits of a number are not. */
  const click = async (at: Locator) => {
    await at.click();
    keys += 1;
  };
  const number = (text: string) => page.keyboard.type(text);
  const before = await page.getByRole('grid', { name: 'Circuits' }).getByRole('row').count();
  await page.getByLabel('Add a branch').focus();
  keys += 1;
  // By their first letters: heater, compressor, DC-DC, insulation monitor, device.
  for (const letters of ['h', 'c', 'd', 'i', 'h']) {
    await press(...letters);
    await page.waitForTimeout(1100);
  }
  await expect(page.getByRole('grid', { name: 'Circuits' }).getByRole('row')).toHaveCount(before + 5);
  await press('Alt+g', 'Alt+t');
  const all = page.locator('[data-circuits]');
  const loads = all.locator('[data-load]');
  await expect(loads.last()).toBeVisible();
  const count = await loads.count();
  await click(loads.nth(count - 5));
  for (const amperes of ['25', '12', '8', '1', '20']) {
    await number(amperes);
    await press('Enter');
  }
  const cell = (row: number, field: string) => all.locator(`[data-path$=".${field}"]`).nth(row);
  // The main circuit has a profile, and no field for a steady load.
  const first = count + 1 - 5;
  await click(cell(first, 'lengthM'));
  for (const metres of ['4', '3', '2', '1.5', '5']) {
    await number(metres);
    await press('Enter');
  }
  await click(cell(first, 'ambientC'));
  await number('40');
  await press('Enter', 'ArrowUp', 'ArrowRight');
  // Fuse, contactors and cable of the first by the first digits of their ratings, then down to the others with the ambient.
  await press(
    'Enter',
    '3',
    'Escape',
    'ArrowRight',
    'Enter',
    '4',
    'Escape',
    'ArrowRight',
    'Enter',
    '1',
    'Escape',
  );
  await press(
    ...Array<string>(4).fill('Shift+ArrowDown'),
    ...Array<string>(3).fill('Shift+ArrowLeft'),
    'Control+d',
  );
  // Each is judged: it says which of its limits is nearest.
  for (let row = first; row < first + 5; row += 1)
    await expect(all.getByRole('row').nth(row + 1)).toContainText(
      /(rating|clearing|drop|ampacity|hottest) .* %/,
    );
  expect(keys).toBeLessThan(60);
});

test('a part that the library does not have stays marked in its cell until another is chosen there', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('network', 'job-demo-orchard-truck');
  const fuse = page.locator('[data-path="circuits"] td[data-path$=".fuse"]').last();
  await fuse.click({ position: { x: 2, y: 2 } });
  await paste(page, 'No such fuse');
  await expect(fuse).toHaveClass(/bad/);
  await expect(page.getByText('is no fuse of the library')).toBeVisible();
  await fuse.locator('select').selectOption({ index: 3 });
  await expect(fuse).not.toHaveClass(/bad/);
  await expect(page.getByText('is no fuse of the library')).toHaveCount(0);
});
