/**
 * Opens Pack of demo A with an empty browser, then goes between stations.
 *
 * @returns what came over the wire, kB, and how long stations take to open the second time, ms
 */
export async function measureOpening(browser, url) {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.request.post(`${url}api/session/demo`, {
    data: { person: 'person-demo-designer' },
    headers: { origin: new URL(url).origin },
  });
  const network = await context.newCDPSession(page);
  await network.send('Network.enable');
  let bytes = 0;
  network.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
  await page.goto(`${url}jobs/job-demo-library-bus/pack`);
  await page.waitForLoadState('networkidle');
  await page.waitForTimeout(500);
  const wireKB = bytes / 1000;
  const stations = ['brief', 'pack', 'network', 'protect', 'prove', 'book'];
  const times = [];
  for (const turn of [1, 2]) {
    for (const station of stations) {
      const ms = await page.evaluate(
        (name) =>
          new Promise((resolve) => {
            const began = performance.now();
            document.querySelector(`a[href$="/${name}"]`).click();
            const look = () => {
              if (document.querySelector(`main[data-station="${name}"]`) === null) return setTimeout(look, 2);
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)));
            };
            look();
          }),
        station,
      );
      if (turn === 2) times.push([station, ms]);
      await page.waitForTimeout(800);
    }
  }
  await context.close();
  return { wireKB, times };
}
