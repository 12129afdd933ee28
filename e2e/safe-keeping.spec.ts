import { Secret, TOTP } from 'otpauth';
import { demoJob, expect, test } from './fixtures';

test('a printed head fits the chain it is of, and an altered one does not; a backup here is proved', async ({
  page,
  server,
  signIn,
}) => {
  await signIn('owner');
  await page.goto(`${server.url}/jobs/${demoJob}/book`);
  const { text } = (await (await page.request.get(`${server.url}/api/jobs/${demoJob}/anchor`)).json()) as {
    text: string;
  };
  const paper = page.getByLabel('Hold a paper against the chain');
  await paper.fill(text.replaceAll(' ', '\n'));
  await page.getByRole('button', { name: 'Does it fit?' }).click();
  await expect(page.locator('[data-paper]')).toContainText(
    'Fits: the chain of Ashmarch County mobile library',
  );
  await expect(page.locator('[data-paper]')).toContainText('signed by this shop');
  await paper.fill(text.replace(/ [0-9a-f]{64} /, ` ${'a'.repeat(64)} `));
  await page.getByRole('button', { name: 'Does it fit?' }).click();
  await expect(page.locator('[data-paper]')).toContainText('DOES NOT FIT');
  await paper.fill('a shopping list');
  await page.getByRole('button', { name: 'Does it fit?' }).click();
  await expect(page.locator('.paper').getByRole('alert')).toContainText('no printed head');
  await page.goto(`${server.url}/shop`);
  await page.getByRole('button', { name: 'Back up here now' }).click();
  await expect(page.locator('[data-nightly]')).toContainText(/Last good one: .*2 jobs/, { timeout: 30_000 });
});

test('a second factor is set up, asked for, and a recovery code replaces it once', async ({
  page,
  server,
  signIn,
}) => {
  await signIn('owner');
  const person = {
    id: 'person-edda',
    name: 'Edda Quill',
    roles: ['designer'],
    password: 'a long enough one',
  };
  await page.request.post(`${server.url}/api/people`, { data: person });
  await page.goto(server.url);
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();
  const enter = async () => {
    await page.getByLabel('Name').fill(person.name);
    await page.getByLabel('Password').fill(person.password);
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  };
  await enter();
  await page.getByRole('button', { name: 'Set it up …' }).click();
  await page.getByLabel('Your password').fill('not the one');
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByRole('alert')).toContainText('is not your password');
  await page.getByLabel('Your password').fill(person.password);
  await page.getByRole('button', { name: 'Go on' }).click();
  await expect(page.getByAltText('Code for the authenticator')).toBeVisible();
  const key = ((await page.locator('[data-second] .key').textContent()) ?? '').replaceAll(' ', '');
  const totp = new TOTP({ secret: Secret.fromBase32(key), algorithm: 'SHA1', digits: 6, period: 30 });
  await page.getByLabel('The code it shows now').fill(totp.generate());
  await page.getByRole('button', { name: 'Switch it on' }).click();
  const recovery = (await page.locator('.codes code').first().textContent()) ?? '';
  await page.getByRole('button', { name: 'I have written them down' }).click();
  await page.getByRole('button', { name: 'Sign out', exact: true }).click();

  await enter();
  const code = page.getByLabel('Code of your second factor');
  await expect(code).toBeVisible();
  await code.fill('000000');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('does not belong to this account');
  await code.fill(recovery);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(page.locator('[data-second]')).toContainText('on; 9 recovery codes left');
});
