/** Fields whose every character moves a good part of a station. */
const fields = {
  pack: [
    '[data-series]',
    '[data-path="pack.peakCurrentA"] input',
    '[data-path="pack.socHighFraction"] input',
  ],
  protect: [
    '[data-path$=".timeoutS"] input',
    '[data-path$=".contactOhm"] input',
    '[data-path$=".ambientC"] input',
  ],
};

/**
 * Types a character and takes it back, in fields of Pack and Protect of demo A.
 *
 * @returns for each station the ms from each keydown until the browser has painted, and how often a field was there
 */
export async function measureKeys(page, url, turns = 10) {
  const measured = {};
  for (const [station, selectors] of Object.entries(fields)) {
    await page.goto(`${url}jobs/job-demo-library-bus/${station}`);
    await page.waitForLoadState('networkidle');
    const times = [];
    for (const selector of selectors) {
      const field = page.locator(selector).first();
      if ((await field.count()) === 0) continue;
      await field.click();
      await field.press('End');
      for (let i = 0; i < turns; i += 1) {
        await page.waitForTimeout(180);
        await page.evaluate(() => {
          window.painted = new Promise((resolve) => {
            const typed = () => {
              const began = performance.now();
              requestAnimationFrame(() => {
                const after = new MessageChannel();
                after.port1.onmessage = () => resolve(performance.now() - began);
                after.port2.postMessage(null);
              });
            };
            document.activeElement.addEventListener('keydown', typed, { once: true, capture: true });
          });
        });
        await page.keyboard.press(i % 2 === 0 ? '1' : 'Backspace');
        times.push(await page.evaluate(() => window.painted));
      }
      await field.press('Escape');
    }
    measured[station] = times.sort((a, b) => a - b);
  }
  return measured;
}
