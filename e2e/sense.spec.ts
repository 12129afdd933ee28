import { readFileSync } from 'node:fs';
import { confirmGate, expect, saved, test } from './fixtures';

const truck = 'job-demo-orchard-truck';

test('schools are compared; a board is moved off the disconnect, by its edge and by the keys', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('sense', truck);
  const central = page.locator('[data-school="central"]');
  await expect(central).toContainText('49');
  await expect(page.locator('[data-school="split"] button')).toHaveText('chosen');
  await page.getByRole('link', { name: 'Map', exact: true }).click();
  const map = page.locator('[data-map]');
  const findings = page.getByLabel('Findings and working');
  await expect(findings).toContainText('Board 2 reaches over the service disconnect behind C18: 33 mV');
  // The first board’s upper end down to six cells: the second then ends at the disconnect.
  const handle = map.locator('[data-board="board-1"] .handle');
  const from = (await handle.boundingBox())!;
  const c06 = (await map.locator('[data-module="module-c06"]').boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + from.width / 2, c06.y + 3, { steps: 5 });
  await page.mouse.up();
  await saved(page);
  await expect(map.getByRole('status')).toContainText('6 cells are left');
  await expect(findings).not.toContainText('reaches over the service disconnect');
  const board = map.locator('[data-board="board-1"]');
  await expect(board).toHaveAttribute('aria-label', /cells 1 to 6/);
  await board.focus();
  await page.keyboard.press('ArrowUp');
  await saved(page);
  await expect(board).toHaveAttribute('aria-label', /cells 1 to 7/);
  await expect(findings).toContainText('reaches over the service disconnect');
  await page.keyboard.press('Control+z');
  await expect(board).toHaveAttribute('aria-label', /cells 1 to 6/);
});

test('a ladder with a swap is named while it is typed, recorded, cured and read again', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('sense?panel=ladder&board=board-2', truck);
  const panel = page.locator('[data-sense-ladder]');
  const right = Array.from({ length: 12 }, (_, i) => ((i + 1) * 3.29).toFixed(2));
  const wrong = [...right];
  [wrong[2], wrong[3]] = [wrong[3]!, wrong[2]!];
  await panel.locator('[data-taps]').fill(wrong.slice(0, 2).join('\n'));
  await expect(panel).toContainText('Next: pin 4, C15, tap 1.');
  await panel.locator('[data-taps]').fill(wrong.join('\n'));
  await expect(panel.locator('[data-verdict]')).toContainText('Do not connect.');
  await expect(panel.locator('[data-verdict]')).toContainText('pin 4 and 5: neighbours exchanged');
  await panel.getByRole('link', { name: 'Record it in Prove' }).click();
  const bench = page.locator('.bench');
  await expect(bench.getByRole('heading', { name: 'Ladder of Board 2' })).toBeVisible();
  await confirmGate(page);
  const taps = bench.locator('[data-measured]');
  await taps.fill('3.29 6.58');
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.getByRole('alert')).toContainText(
    '12 readings are expected, from pin 2 to 13; 2 are here',
  );
  await taps.fill(right.map((one) => (Number(one) / 10).toFixed(3)).join('\n'));
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.getByRole('alert')).toContainText('a tenth of what 12 cells give');
  await bench.getByRole('button', { name: 'Back to the value' }).click();
  await taps.fill(wrong.join('\n'));
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.locator('[data-last-result]')).toContainText('Failed');
  await expect(bench.locator('[data-last-result]')).toContainText('do not plug it in');
  await taps.fill(right.join('\n'));
  await bench.getByRole('button', { name: 'Record', exact: true }).click();
  await expect(bench.locator('[data-last-result]')).toContainText('Passed 12 taps up to 39.48 V');
});

test('the harness follows the map and goes out as a file; a blank job says what it takes', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('sense?panel=harness', truck);
  const panel = page.locator('[data-harness]');
  await expect(panel).toContainText('all 39 wires');
  await panel.getByLabel('Length of every wire shown, m').fill('0.6');
  await panel.getByRole('button', { name: 'Set', exact: true }).click();
  await saved(page);
  await expect(panel.getByRole('row', { name: /Board 1-2/ })).toContainText('0.6');
  const file = page.waitForEvent('download');
  await panel.getByRole('button', { name: 'Wires, CSV' }).click();
  const download = await file;
  expect(download.suggestedFilename()).toMatch(/-sense-harness\.csv$/);
  // Built with two pins of one plug exchanged.
  const rows = readFileSync(await download.path(), 'utf8').split(/\r?\n/);
  const [i, k] = ['Board 1-3', 'Board 1-4'].map((label) => rows.findIndex((row) => row.includes(label)));
  const pinOf = (row: string, pin: string) => row.replace(/,(\d+),(?=[a-z]+,)/, `,${pin},`);
  rows[i!] = pinOf(rows[i!]!, '4');
  rows[k!] = pinOf(rows[k!]!, '3');
  await panel
    .getByLabel('Harness from a file')
    .setInputFiles({ name: 'built.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
  await expect(panel.locator('[data-read]')).toContainText('Wired otherwise.');
  await expect(panel.locator('[data-read]')).toContainText('Do not plug this harness in');
  // The face of a plug: thirteen of its sixteen cavities hold a wire.
  await panel.getByRole('button', { name: 'Board 2', exact: true }).click();
  await expect(panel.getByRole('img', { name: /13 of 16 cavities/ })).toBeVisible();
  await expect(panel.locator('[data-plug] [data-pin="1"]')).toContainText('C13, tap 0');
  await open('sense?panel=harness');
  await expect(panel).toContainText('No harness yet');
});

test('first power-up: plugs in their order, the hunt that halves, and channels that wait for their gate', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('sense?panel=power', truck);
  const order = page.locator('[data-plug-order] tbody tr');
  await expect(order.nth(4)).toContainText('Ladder of Board 2, then its plug');
  await expect(order.nth(4)).toContainText('waited for the disconnect');
  const hunt = page.locator('[data-hunt]');
  await expect(hunt.locator('[data-hunt-says]')).toContainText('3 are left');
  // Typed wrong it stays; the count is asked for.
  await hunt.getByRole('button', { name: 'Record the try' }).click();
  await expect(hunt.getByRole('alert')).toContainText('Cold starts');
  await hunt.locator('[data-starts]').fill('3');
  await hunt.locator('[data-restarts]').fill('5');
  await hunt.getByRole('button', { name: 'Record the try' }).click();
  await expect(hunt.getByRole('alert')).toContainText('must be at most the 3 starts');
  await hunt.locator('[data-restarts]').fill('2');
  await hunt.getByRole('button', { name: 'Record the try' }).click();
  await expect(hunt.locator('[data-hunt-says]')).toContainText('One is left: link Board 2 to Board 3');
  await hunt.locator('[data-starts]').fill('4');
  await hunt.getByRole('button', { name: 'Record the try' }).click();
  await expect(hunt.locator('[data-hunt-says]')).toContainText('It is link Board 2 to Board 3');
  await expect(hunt.locator('[data-tries] li')).toHaveCount(5);

  await page.locator('[data-row="board-1"] a[href*="unit-channels"]').click();
  const bench = page.locator('.bench');
  await expect(bench.getByRole('heading', { name: 'Channels of Board 1' })).toBeVisible();
  // Its gate waits for the ladders of the other two boards.
  await expect(bench).toContainText('Sense harness');
});
