import { cell, expect, test } from './fixtures';

const rows = [
  'serial\tOCV\tcapacity Ah\tinsulation MΩ',
  'BX-2201\t44,71\t115,2\t900',
  'BX-2202\t44.70\t116\t880',
  'BX-2203\t447\t98\t910',
];

test('a crate is pasted, one of it takes the place of another: each keeps what was measured of it', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('pack?panel=stock');
  const stock = page.locator('[data-stock]');
  await expect(stock.getByRole('button', { name: '16 fitted' })).toBeVisible();
  await expect(stock.getByRole('row', { name: /BW 40-1187/ })).toContainText('rejected');

  await stock.getByRole('button', { name: 'A crate arrives …' }).click();
  const paste = stock.getByLabel('Rows of the crate');
  await paste.fill(rows.join('\n'));
  const record = stock.getByRole('button', { name: /^Record 3/ });
  await expect(stock.getByRole('alert')).toContainText('BX-2203: voltage 447 V?');
  await expect(record).toBeDisabled();
  await paste.fill(`${rows.join('\n').replace('447', '44.7')}\nBX-2201\t44.6`);
  await expect(stock.getByRole('alert')).toContainText('row 4: BX-2201 stands in row 1 already');
  await paste.fill(rows.join('\n').replace('447', '44.7'));
  await record.click();
  await expect(paste).toHaveCount(0, { timeout: 20_000 });
  await expect(stock.getByRole('row', { name: /BX-2202/ })).toContainText('880', { timeout: 20_000 });

  // BX-2202 goes into S1-M03.
  await stock.getByRole('button', { name: 'BX-2202' }).click();
  const card = page.locator('[data-thing-card]');
  await card.getByLabel('Why').fill('The old one sags first.');
  await card.getByLabel('Place').selectOption({ label: 'S1-M03, instead of BW 40-1173' });
  await card.getByRole('button', { name: 'Swap' }).click();
  await expect(stock.getByRole('row', { name: /BX-2202/ })).toContainText('S1-M03');
  await expect(stock.getByRole('row', { name: /BW 40-1173/ })).toContainText('shelf');
  await expect(stock.getByRole('row', { name: /BW 40-1173/ })).toContainText('44.69');
  await expect(card).toContainText('BW 40-1173 swapped for BX-2202: The old one sags first.');

  // Of all that is here the best set, by what is known.
  await stock.getByRole('button', { name: 'Choose the best set …' }).click();
  const choice = page.locator('[data-choice-of-set]');
  await expect(choice).toContainText('BW 40-1187 is rejected');
  await expect(choice).toContainText('BX-2203');
  await stock.getByRole('button', { name: 'Close the choice' }).click();

  // The place has what was measured of the new one; the old one's readings are its own.
  await page.getByRole('link', { name: 'Intake' }).click();
  await expect(cell(page, 'rows.module-103.serial')).toHaveText('BX-2202');
  await expect(cell(page, 'rows.module-103.capacityAh')).toHaveText('116');
  await expect(page.locator('[data-intake]').getByRole('row', { name: /BW 40-1173/ })).toContainText('44.69');

  // Another serial typed for a place is asked about.
  await cell(page, 'rows.module-104.serial').click();
  await page.keyboard.type('BX-2201');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText(
    'S1-M04 has BW 40-1174 by the record, BX-2201 was typed',
  );
  await page.getByRole('button', { name: 'another module is in it' }).click();
  await page.getByRole('button', { name: /^Record 1$/ }).click();
  await expect(page.getByText('1 entry recorded.')).toBeVisible();
  await expect(cell(page, 'rows.module-104.capacityAh')).toHaveText('115.2');

  // Their joints were opened.
  await page.goto(page.url().replace(/pack.*/, 'pack?panel=stock'));
  await stock.getByRole('button', { name: 'BX-2203' }).click();
  await card.getByLabel('State').selectOption('rejected');
  await card.getByRole('button', { name: 'Judge it so' }).click();
  await expect(card).toContainText('What is rejected is not fitted');
  await stock.getByRole('button', { name: 'BX-2201' }).click();
  await card.getByLabel('State').selectOption('suspect');
  await card.getByRole('button', { name: 'Judge it so' }).click();
  await expect(page.getByLabel('Findings and working')).toContainText('BX-2201 in S1-M04 is suspect.');
});

test('a module is brought to where its string stands, with a load that the cells stand', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('pack?panel=match');
  const panel = page.locator('[data-into-string]');
  await panel.getByLabel('Module', { exact: true }).selectOption({ label: 'S2-M08, S2' });
  await panel.getByLabel('Voltage at rest').fill('45.9');
  await expect(panel.locator('[data-verdict]')).toHaveText('S2-M08 is to be drawn down: type the load.');
  await panel.getByLabel('Load', { exact: true }).fill('0.1');
  await expect(panel.locator('[data-verdict]')).toContainText('Not with this gear: more current');
  await expect(panel.getByRole('button', { name: 'Load is on' })).toBeDisabled();
  await panel.getByLabel('Load', { exact: true }).fill('4.7');
  await expect(panel.getByText('stop when it reads')).toBeVisible();
  await panel.getByRole('button', { name: 'Load is on' }).click();
  await expect(panel.locator('[data-phase]')).toContainText('The load is on since');
  await panel.getByRole('button', { name: 'Load is off' }).click();
  await panel.getByLabel('Reads now').fill('44.73');
  await panel.getByRole('button', { name: 'Record the reading' }).click();
  await expect(panel.locator('[data-phase]')).toContainText('1 reading: six readings tell');
  await panel.getByLabel('Voltage at rest').fill('');
  await expect(panel.locator('[data-verdict]')).toContainText('S2-M08 stands where its neighbours stand');
});

test('another fuse than designed: the figures as built, the finding, and into the design', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('prove?panel=built');
  const built = page.locator('[data-built]');
  const follows = page.locator('[data-follows]');
  await expect(follows).toContainText('Right rail to the compressor: cable 3.72 m, 3.67 m designed');
  await built.getByLabel('More of DC-DC: fuse').click();
  await built.getByLabel('Fitted instead of DC-DC: fuse').selectOption('calderside-f63@1');
  await built.getByLabel('Serial of DC-DC: fuse').fill('CF 63-12');
  await built.getByLabel('Record DC-DC: fuse').click();
  await expect(page.getByText('Not recorded: reason is needed')).toBeVisible();
  await built.getByLabel('Why, DC-DC: fuse').fill('Out of stock until Friday.');
  await built.getByLabel('Record DC-DC: fuse').click();
  await expect(built.getByRole('row', { name: /DC-DC: fuse/ })).toContainText('CF 63-12');
  await expect(follows).toContainText('Load over derated rating');
  await expect(page.getByLabel('Findings and working')).toContainText('Out of stock until Friday.');

  await signIn('designer');
  await open('prove?panel=built');
  const line = follows.getByRole('listitem').filter({ hasText: 'DC-DC: fuse' });
  await line.getByRole('button', { name: 'Take into the design' }).click();
  await expect(line).toHaveCount(0);
  await expect(built.getByRole('row', { name: /DC-DC: fuse/ })).toContainText('F63');
});

test('contactors arrive, one takes the place of another, what is left over goes onto the shelf of the shop', async ({
  page,
  signIn,
  open,
}) => {
  await signIn('technician');
  await open('pack?panel=stock');
  const stock = page.locator('[data-stock]');
  await stock.getByRole('button', { name: 'A crate arrives …' }).click();
  await stock.getByLabel('What arrives').selectOption('contactor');
  await stock.getByLabel('Kind of part').selectOption({ index: 0 });
  await stock.getByLabel('Rows of the crate').fill('serial\tnote\nHC 9001\tfrom the spares box\nHC 9002');
  await stock.getByRole('button', { name: 'Record 2 contactors' }).click();
  await stock.getByRole('button', { name: '4 other parts' }).click();
  await stock.getByRole('button', { name: 'HC 9001' }).click();
  const card = page.locator('[data-thing-card]');
  const place = card.getByLabel('Place');
  await expect(place.getByRole('option', { name: /^Main: contactors, instead of HC 118-3342/ })).toHaveCount(
    1,
  );
  const taken = await place.getByRole('option', { name: /^Main: contactors/ }).getAttribute('value');
  await place.selectOption(taken);
  await card.getByLabel('Why').fill('Contacts of the old ones are pitted.');
  await card.getByRole('button', { name: 'Swap' }).click();
  await expect(stock.getByRole('row', { name: /HC 9001/ })).toContainText('Main: contactors');
  const old = stock.getByRole('row', { name: /HC 118-3342/ });
  await expect(old).toContainText('shelf');

  // Out again: the place is empty, and that is found.
  await card.getByLabel('State').selectOption('rejected');
  await card.getByRole('button', { name: 'Take it out' }).click();
  await expect(page.getByLabel('Findings and working')).toContainText(
    'Nothing is fitted in Main: contactors.',
  );
  await page.goto(page.url().replace(/pack.*/, 'prove?panel=built'));
  const built = page.locator('[data-built]');
  const row = built.getByRole('row', { name: /^Main: contactors/ });
  await expect(row).toContainText('taken out');
  await built.getByLabel('More of Main: contactors').click();
  await built.getByLabel('From the stock, Main: contactors').selectOption('HC 9002');
  await built.getByLabel('Record Main: contactors').click();
  await expect(row).toContainText('HC 9002');

  // The rejected one is nobody's in this job.
  await page.goto(page.url().replace(/prove.*/, 'pack?panel=stock&list=parts'));
  await stock.getByRole('button', { name: 'HC 9001' }).click();
  await card.getByLabel('Other job').selectOption('Shelf of the shop');
  await card.getByRole('button', { name: 'Send it there' }).click();
  await expect(stock.getByRole('button', { name: '1 sent to other jobs' })).toBeVisible();
  await page.getByRole('link', { name: 'Jobs' }).click();
  await page.locator('[data-shelf]').getByRole('link').click();
  await page.locator('[data-stock]').getByRole('button', { name: 'HC 9001' }).click();
  await expect(card).toContainText('From Ashmarch County mobile library, quoted:');
  await expect(card).toContainText('HC 9001 taken out: rejected');
});
