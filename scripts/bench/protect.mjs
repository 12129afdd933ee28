/**
 * Opens circuit after circuit of demo A in Protect.
 *
 * @returns for each click the circuit and the ms from the click until the coordination plot and the duty plot have told that
 * they are finished
 */
export async function measureProtect(page, url, rounds = 4) {
  await page.goto(`${url}jobs/job-demo-library-bus/protect`);
  await page.locator('.duty canvas').waitFor();
  await page.waitForTimeout(1500);
  const times = await page.evaluate(async (turns) => {
    const names = [...document.querySelectorAll('[data-circuits] button.open')].map((one) =>
      one.textContent.trim(),
    );
    const plots = () => [...document.querySelectorAll('#fuse-plot figure, figure.duty')];
    const found = [];
    for (let turn = 0; turn < turns; turn += 1)
      for (const name of names) {
        const button = [...document.querySelectorAll('[data-circuits] button.open')].find(
          (one) => one.textContent.trim() === name,
        );
        if (button.getAttribute('aria-pressed') === 'true') continue;
        const start = performance.now();
        button.click();
        const done = await new Promise((resolve) => {
          const look = () => {
            const at = plots().map((one) => Number(one.dataset.drawnMs ?? 0));
            if (at.length === 2 && at.every((one) => one > start)) resolve(Math.max(...at) - start);
            else if (performance.now() - start > 5000) resolve(null);
            else setTimeout(look, 5);
          };
          look();
        });
        found.push([name, done]);
        await new Promise((resolve) => setTimeout(resolve, 700));
      }
    return found;
  }, rounds);
  return times;
}
