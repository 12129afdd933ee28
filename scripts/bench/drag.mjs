/**
 * Five seconds of dragging a module over the boxes of demo A.
 *
 * @returns the longest task in ms (0: none above 50) and the scripting per frame in ms
 */
export async function measureDrag(page) {
  const devtools = await page.context().newCDPSession(page);
  await devtools.send('Performance.enable');
  const scripting = async () =>
    (await devtools.send('Performance.getMetrics')).metrics.find(({ name }) => name === 'ScriptDuration')
      .value * 1000;
  const middle = async (selector) => {
    const { x, y, width, height } = await page.locator(selector).boundingBox();
    return [x + width / 2, y + height / 2];
  };
  const from = await middle('[data-module="module-105"]');
  const stops = [];
  for (const box of ['tail', 'nose', 'collector']) stops.push(await middle(`[data-box="box-${box}"]`));
  await page.evaluate(() => {
    window.tasks = [];
    window.frames = 0;
    new PerformanceObserver((list) =>
      list.getEntries().forEach(({ duration }) => window.tasks.push(duration)),
    ).observe({ entryTypes: ['longtask'] });
    const tick = () => {
      window.frames += 1;
      requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  const frames = () => page.evaluate(() => window.frames);
  await page.mouse.move(...from);
  await page.mouse.down();
  const [scriptBefore, framesBefore] = [await scripting(), await frames()];
  const until = Date.now() + 5000;
  for (let i = 0; Date.now() < until; i += 1) await page.mouse.move(...stops[i % 3], { steps: 40 });
  const [scriptAfter, framesAfter] = [await scripting(), await frames()];
  await page.mouse.move(...from);
  await page.mouse.up();
  const tasks = await page.evaluate(() => window.tasks);
  return {
    longestTaskMs: Math.max(0, ...tasks),
    scriptPerFrameMs: (scriptAfter - scriptBefore) / Math.max(framesAfter - framesBefore, 1),
  };
}
