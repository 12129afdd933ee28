import { confirmGate, expect, saved, test, typeCell, told } from './fixtures';

const stop = 'stop-discharge:circuit-main';
const curve = 'precharge-curve:circuit-main';

test('a procedure is run with stand-ins and by hand; after a restart everything is found again and verifies', async ({
  page,
  open,
  server,
}) => {
  await open('prove');
  const bench = page.locator('.bench');
  const measured = bench.locator('[data-measured]');

  // The stale curve says what moved and whether it would still pass; a new capture makes it fresh.
  await page.locator(`[data-step="${curve}"]`).click();
  await expect(bench.locator('[data-last-result]')).toContainText(
    'Bus capacitance was 1.239 mF, is 1.26 mF.',
  );
  await expect(bench.locator('[data-last-result]')).toContainText('it would still pass');
  await confirmGate(page);
  await bench.locator('[data-stand-in]').click();
  await expect(measured).toHaveValue(/\t/);
  await expect(bench.getByText('this measures no vehicle')).toBeVisible();
  await bench.getByRole('button', { name: 'Record' }).click();
  await expect(bench.locator('[data-last-result]')).toContainText('Passed');
  await expect(bench.locator('[data-last-result]')).toContainText('stand-in');

  // A device left on shows as a load, not as less capacitance.
  await bench.getByLabel('What the stand-in instrument does').selectOption('load-on-bus');
  await bench.locator('[data-stand-in]').click();
  await bench.getByRole('button', { name: 'Record' }).click();
  await expect(bench.locator('[data-last-result]')).toContainText('Failed');
  await expect(bench.locator('[data-last-result]')).toContainText(/a load of about 7\d\d Ω draws on the bus/);

  // A value wrong by its decimal point asks before it is recorded.
  await page.locator(`[data-step="intake-voltage:module-101"]`).click();
  await measured.fill('4.47');
  await measured.press('Enter');
  await expect(bench.getByRole('alert')).toContainText('ten times as large (44.7 V) would fit');
  await bench.getByRole('button', { name: 'Back to the value' }).click();
  await measured.fill('44,7');
  await measured.press('Enter');
  await expect(bench.locator('[data-last-result]')).toContainText('Passed 44.7 V');

  // Typed in seconds with a unit, Enter twice records once.
  await page.locator(`[data-step="${stop}"]`).click();
  await expect(measured).toBeFocused();
  await measured.fill('4700 ms');
  // At once: an Enter after it is recorded goes on to the next step.
  await Promise.all([measured.press('Enter'), measured.press('Enter')]);
  await expect(bench.locator('[data-last-result]')).toContainText('Passed 4.7 s');

  await server.stop();
  await server.start();
  await page.reload();
  await page.locator(`[data-step="${stop}"]`).click();
  await expect(bench.locator('[data-last-result]')).toContainText('Passed 4.7 s');
  await page.getByLabel('Stations').getByRole('link', { name: 'Book' }).click();
  await expect(page.locator(`[data-entry="${told() + 5}"]`)).toContainText('4.7 s, passed');
  await expect(page.locator(`[data-entry="${told() + 6}"]`)).toHaveCount(0);
  await page.getByRole('button', { name: 'Verify the chain' }).click();
  await expect(page.locator('[data-verification]')).toContainText(`The chain fits: ${told() + 5} entries`);
});

test('a change of the design makes results stale, with the value that moved, and closes the gates behind them', async ({
  page,
  open,
}) => {
  await open('pack');
  await typeCell(page, 'devices.device-inverter.bleedOhm', '1500');
  await saved(page);
  await page.getByLabel('Stations').getByRole('link', { name: 'Prove' }).click();
  await page.locator('[data-step="bleed-resistance:bus"]').click();
  const last = page.locator('[data-last-result]');
  await expect(last).toContainText('Bleed resistance was 2 kΩ, is 1.5 kΩ.');
  await expect(last).toContainText('it would not pass');
  await page.locator(`[data-step="${stop}"]`).click();
  await expect(page.getByText('This gate is closed: it waits for Parts; Insulation')).toHaveCount(0);
  await expect(page.locator('.bench').getByText('This gate is closed: it waits for Parts.')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('.bench').getByText('This gate is closed')).toHaveCount(0);
});

test('what cannot be read at the bench is refused beside the field and loses nothing', async ({
  page,
  open,
}) => {
  await open('prove');
  const bench = page.locator('.bench');
  await page.locator(`[data-step="${curve}"]`).click();
  await confirmGate(page);
  await bench.locator('[data-measured]').fill('0.01 5\n0.02 9\nnonsense');
  await bench.getByRole('button', { name: 'Record' }).click();
  await expect(bench.getByRole('alert')).toContainText('line 3 is not a pair of numbers');
  await expect(bench.locator('[data-measured]')).toHaveValue(/nonsense/);
  await page.locator(`[data-step="${stop}"]`).click();
  await bench.locator('[data-measured]').fill('soon');
  await bench.locator('[data-measured]').press('Enter');
  await expect(bench.getByRole('alert')).toContainText('a number is missing');
});

test('the state of the vehicle is recorded and stands on the nameplate', async ({ page, open }) => {
  await open('prove');
  await page.getByRole('button', { name: 'Record another state' }).click();
  await page.getByRole('button', { name: 'Record', exact: true }).first().click();
  await expect(page.getByRole('alert')).toContainText('Choose the state');
  await page.getByLabel('The vehicle stands').selectOption('driving');
  await page.getByRole('button', { name: 'Record', exact: true }).first().click();
  await expect(page.getByLabel('Nameplate')).toContainText('Bus live: mains closed');
  // Switched off again: what was live may still hold charge until it is proved dead.
  await page.getByRole('link', { name: 'Network' }).click();
  await page.getByLabel('Stage', { exact: true }).selectOption('closing');
  await page.getByRole('button', { name: 'Record as state' }).click();
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(page.getByLabel('Nameplate')).toContainText('HV open at 12 links, bus not proved dead');
});

test('versions of the design are listed and any two compared', async ({ page, open }) => {
  await open('book');
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(page.locator('[data-differences]')).toContainText('8 places, version 0 → version 5');
  await expect(page.locator('[data-differences]')).toContainText('Main · Length, one way');
  await page.getByRole('button', { name: 'Older', exact: true }).click();
  await page.locator('[data-entry="31"]').getByRole('button').click();
  await expect(page.locator('.detail')).toContainText('4.472 V is below 36 V');
});

test('joints of a step are walked, a range that ends is read as such, a stand-in is marked', async ({
  page,
  open,
}) => {
  await open('prove');
  const bench = page.locator('.bench');
  await page.locator('[data-step="torque:joint-m5"]').click();
  await expect(bench).toContainText('20 of 20 joints are recorded as expected.');
  await expect(bench.locator('[data-measured]')).toHaveCount(0);
  await page.locator('[data-step="insulation-positive:pack"]').click();
  await expect(bench).toContainText('Service disconnect out, locked off and tagged');
  await confirmGate(page);
  await bench.locator('[data-measured]').fill('> 0.1 MΩ');
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.getByRole('alert')).toContainText('the range ends at 0.1 MΩ');
  await bench.locator('[data-measured]').fill('> 2 GΩ');
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.locator('[data-last-result]')).toContainText('Passed more than 2000 MΩ');
  // Where high voltage has to be on, nobody is told to take the disconnect out first.
  await page.locator(`[data-step="${curve}"]`).click();
  await expect(bench).toContainText('High voltage is on during this step.');
  await expect(bench).not.toContainText('Service disconnect out, locked off and tagged before');
  await page.locator('[data-step^="coil"]').first().click();
  await bench.locator('[data-stand-in]').click();
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.locator('[data-last-result]')).toContainText('no vehicle was measured');
  await expect(page.locator('[data-step^="coil"]').first()).toContainText('stand-in');
});
