import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './fixtures';

for (const theme of ['light', 'dark']) {
  test(`no view has a serious barrier in the ${theme} theme`, async ({ page, open, server, signIn }) => {
    await page.addInitScript((name) => localStorage.setItem('torvek.theme', name), theme);
    const found: string[] = [];
    const check = async (view: string) => {
      const { violations } = await new AxeBuilder({ page }).analyze();
      for (const { id, impact, nodes } of violations) {
        if (impact === 'serious' || impact === 'critical')
          found.push(`${view}: ${id} at ${nodes[0]?.target.join(' ')}`);
      }
    };
    await page.goto(server.url);
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await check('sign-in');
    await signIn('owner');
    await page.goto(server.url);
    await expect(page.getByRole('table')).toBeVisible();
    await check('jobs');
    await page.goto(`${server.url}/shop`);
    await expect(page.getByRole('heading', { name: 'Instruments' })).toBeVisible();
    await check('shop');
    for (const station of ['brief', 'pack', 'protect', 'prove', 'book']) {
      await open(station);
      await page.waitForLoadState('networkidle');
      await check(station);
    }
    expect(found).toEqual([]);
  });
}
