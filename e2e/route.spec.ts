import type { Page } from '@playwright/test';
import { cell, expect, figure, saved, test, typeCell } from './fixtures';

const cut = 'routing.run:run-dcdc:cutLengthM';
const metres = async (page: Page) =>
  Number(/([\d.]+)\s*m/.exec((await figure(page, cut).textContent()) ?? '')?.[1]);

test('a run is laid by mouse and by keyboard; length and drop follow; a box that moves leaves its end behind', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('route?run=run-dcdc');
  const before = await metres(page);
  expect(before).toBeCloseTo(1.84, 1);

  // By mouse: the corner is drawn back, away from the box.
  const corner = page
    .locator('[data-view="plan"]')
    .getByRole('button', { name: /^Point 2 of Across to the DC-DC/ });
  const at = (await corner.boundingBox())!;
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
  await page.mouse.down();
  await page.mouse.move(at.x + 70, at.y + at.height / 2, { steps: 6 });
  await page.mouse.up();
  await saved(page);
  const wide = await metres(page);
  expect(wide).toBeGreaterThan(before + 0.2);
  await page.keyboard.press('Control+z');
  await expect(figure(page, cut)).toContainText(String(before));

  // By keyboard: a decimetre up in the side view.
  await page
    .locator('[data-view="side"]')
    .getByRole('button', { name: /^Point 2 of Across/ })
    .focus();
  await page.keyboard.press('Shift+ArrowUp');
  await expect(cell(page, 'runs.run-dcdc.points.1.zM')).toHaveText('0.82');
  // By number: too near to the ground.
  await cell(page, 'runs.run-dcdc.points.1.zM').click();
  await page.keyboard.type('0,1');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Findings and working')).toContainText('Across to the DC-DC hangs');
  await page.keyboard.press('Control+z');

  // A point more, and away again.
  const points = page.locator('[data-points]').getByRole('row');
  const count = await points.count();
  await page.getByRole('button', { name: 'Another point' }).click();
  await expect(points).toHaveCount(count + 1);
  await page.getByRole('button', { name: /Remove point 4/ }).click();
  await expect(points).toHaveCount(count);

  // The circuit says that it is routed; its length follows.
  await open('protect?circuit=circuit-dcdc');
  await expect(page.locator('[data-routed]')).toContainText('by Across to the DC-DC');
});

test('a bend card and its twin, cables through the tube, and a PDF for the bender', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('route?panel=card');
  const card = page.locator('[data-card]');
  await expect(card.getByRole('row', { name: /^3 / })).toContainText('94.5° clockwise');
  await card.getByLabel('mirrored twin').check();
  await expect(card.getByRole('row', { name: /^3 / })).toContainText('94.5° anticlockwise');
  await card.getByLabel('Allowance at the start').fill('25');
  await expect(card.getByText('Cut 3102.7 mm')).toBeVisible();
  await card.getByLabel('Allowance at the start').fill('x');
  await expect(card).toContainText('An allowance cannot be read');
  await card.getByLabel('Allowance at the start').fill('');
  await expect(page.locator('[data-pull]')).toContainText('Feed in at its end');

  // The first bend came out two degrees too far: the rest follows.
  await card.getByLabel('mirrored twin').uncheck();
  const bent = card.locator('[data-as-bent]');
  await bent.locator('summary').click();
  await bent.getByLabel('Bend 1 came out at').fill('38.87');
  await expect(bent.locator('[data-rest]').getByRole('row')).toHaveCount(4);
  await bent.getByLabel('Bend 1 came out at').fill('36.87');
  await expect(bent.locator('[data-rest]')).toContainText('978.7');
  await bent.getByLabel('Bend 4 came out at').fill('43.62');
  await expect(bent.locator('[data-miss]')).toContainText(
    'It ends 0.0 mm off, with a last straight of 420.0 mm',
  );
  await bent.getByLabel('Trial bend set to').fill('46.8');
  await bent.getByLabel('Trial bend came out at').fill('45');
  await bent.getByRole('button', { name: 'Use 4 % spring-back' }).click();
  await expect(card.getByRole('row', { name: /^1 / }).first()).toContainText('38.34');
  const file = page.waitForEvent('download');
  await card.getByRole('button', { name: 'Card as PDF' }).click();
  expect((await file).suggestedFilename()).toMatch(/bend-card\.pdf$/);
});

test('a reel arrives, a cable is cut off it, and no more than it has', async ({ page, signIn, open }) => {
  await signIn('technician');
  await open('route?panel=cuts');
  const cuts = page.locator('[data-cuts]');
  const reels = page.locator('[data-reels]');
  await expect(reels).toContainText('1.81 m left of 8.4 m');
  await reels.getByLabel('Cable of the reel').selectOption('marl-x35@1');
  await reels.getByLabel('Name of the reel').fill('Drum 9');
  await reels.getByLabel('Length of the reel').fill('6,7');
  await reels.getByRole('button', { name: 'Record' }).click();
  // Both pieces fit on it: the longer drum stays whole.
  await expect(reels).toContainText('8.4 m left of 8.4 m');
  await cuts.getByLabel('As cut, Over the axle').fill('3.4');
  await cuts.getByLabel('Reel for Over the axle').selectOption({ label: 'Drum 9, 6.7 m' });
  await cuts.getByLabel('Record the cut of Over the axle').click();
  await expect(page.getByText('is more than Drum 9 has left')).toBeVisible();
  await cuts.getByLabel('As cut, Over the axle').fill('3.31');
  await cuts.getByLabel('Record the cut of Over the axle').click();
  await expect(cuts.getByRole('row', { name: /Over the axle/ })).toContainText('3.31');
  await expect(reels).toContainText('Nothing is to be cut now.');
  await expect(reels).toContainText('Drum 9 0.08 m');
});

test('a way is proposed, seen, taken and taken back; the finding goes with it', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('route?run=run-compressor');
  const findings = page.getByLabel('Findings and working');
  await expect(findings).toContainText('comes within 20.6 mm of Brake line, right');
  const ways = page.locator('[data-ways]');
  await ways.getByRole('button', { name: 'Propose a way' }).click();
  await expect(ways.getByRole('listitem').first()).toContainText('mm more than asked to the nearest line', {
    timeout: 20_000,
  });
  await ways.getByRole('button', { name: 'Show way 1' }).click();
  await expect(findings).not.toContainText('Brake line');
  await expect(page.getByLabel('Nameplate')).toContainText('version 5');
  await ways.getByRole('button', { name: 'Show way 1' }).click();
  await expect(findings).toContainText('Brake line');
  await ways.getByRole('button', { name: 'Take way 1' }).click();
  await saved(page);
  await expect(findings).not.toContainText('Brake line');
  await page.keyboard.press('Control+z');
  await expect(findings).toContainText('Brake line');
});

test('a point is placed by the tape from three marks, with what the tapes leave open; a mark that is wrong is told', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('route?run=run-dcdc');
  await cell(page, 'runs.run-dcdc.points.2.xM').click();
  const tape = page.locator('[data-tape]');
  await expect(tape).toContainText('Point 3 by the tape');
  const second = tape.getByLabel('Distance from mark 2, m');
  await expect(second).toHaveValue('1.074');
  await second.fill('3');
  await expect(tape).toContainText(/the tapes do not meet: they miss each other by \d+ mm/);
  await second.fill('a lot');
  await expect(tape).toContainText('the distance from Middle hole of the third cross-member is no length');
  await second.fill('1.06');
  await expect(tape).toContainText('the higher: -3.175 / 0.5927 / 0.6791 m');
  await tape.getByRole('button', { name: 'Place the point there' }).click();
  await expect(cell(page, 'runs.run-dcdc.points.2.zM')).toHaveText('0.6791');
  await expect(cell(page, 'runs.run-dcdc.points.2.tolMm')).toHaveText('14.5');
  await expect(figure(page, 'routing.run:run-dcdc:toleranceMm')).toContainText('24.7 mm');
  await saved(page);

  await open('route?panel=lines');
  await typeCell(page, 'datums.datum-floor.zM', '1.1');
  await saved(page);
  await open('route?run=run-dcdc');
  await expect(page.locator('[data-rule="run.taped-off"]')).toContainText(
    'off what was taped from Left foot',
  );
});

test('the vehicle in three dimensions, and as a file for others', async ({ page, signIn, open }) => {
  await signIn('designer');
  await open('route');
  await page.getByRole('button', { name: 'In 3D' }).click();
  const space = page.locator('[data-space]');
  await expect(space).toBeVisible();
  const canvas = space.locator('canvas');
  const missing = space.getByRole('alert');
  await expect(canvas.or(missing).first()).toBeVisible();
  if (await canvas.isVisible()) {
    const file = page.waitForEvent('download');
    await space.getByRole('button', { name: 'Save as GLB' }).click();
    expect((await file).suggestedFilename()).toMatch(/routes\.glb$/);
  }
});

test('a hose is a run: its length is the loop’s, and both views go along as files', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('designer');
  await open('cool?panel=loops&loop=loop-pack');
  const litres = figure(page, 'cooling.fill:loop-pack:volumeL');
  const row = page.locator('[data-pieces]').getByRole('row', { name: /Back from the tail/ });
  await expect(row).toContainText('4.2');
  await open('cool?panel=fill');
  const before = Number(/([\d.]+)\s*L/.exec((await litres.first().textContent()) ?? '')?.[1]);
  await open('route?run=run-hose-tail');
  await page.getByLabel('Cut to').fill('6.2');
  await page.keyboard.press('Enter');
  await saved(page);
  for (const kind of ['SVG', 'DXF']) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: kind, exact: true }).click(),
    ]);
    expect(file.suggestedFilename()).toMatch(new RegExp(`routes.*\\.${kind.toLowerCase()}$`));
  }
  await open('cool?panel=loops&loop=loop-pack');
  await expect(row).toContainText('6.2');
  await open('cool?panel=fill');
  // Two metres of a bore of 25 mm hold 0.98 L.
  await expect
    .poll(async () => Number(/([\d.]+)\s*L/.exec((await litres.first().textContent()) ?? '')?.[1]) - before)
    .toBeGreaterThan(0.9);
});

test('openings in walls are listed from the runs; a hole that stays unused is told until it has its blank', async ({
  page,
  open,
}) => {
  await open('route?panel=walls');
  await page.getByRole('button', { name: 'Across to the DC-DC, Collector box' }).click();
  const id = (await page
    .locator('[data-walls] [role="gridcell"][data-path$=".tag"]')
    .getAttribute('data-path'))!
    .split('.')
    .at(1)!;
  await expect(page.getByRole('button', { name: 'Across to the DC-DC, Collector box' })).toHaveCount(0);
  const closedBy = page.locator(`select[data-path="openings.${id}.by"]`);
  const findings = page.getByLabel('Findings and working');
  await closedBy.selectOption('open');
  await expect(findings).toContainText('1 opening that is not closed');
  await closedBy.selectOption('gland');
  await expect(findings).not.toContainText('not closed');
  await typeCell(page, `openings.${id}.holeMm`, '9');
  await expect(findings).toContainText('The hole of Across to the DC-DC in Collector box is 9 mm wide');
  // The other runs that end there have none listed.
  await expect(findings).toContainText('no opening is listed for it × 2');
});
