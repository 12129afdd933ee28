/**
 * A job of 400 resting cells with 30 readings each, opened at its Balance panel.
 *
 * @returns ms from the click until the panel's table is drawn, and until every fit is shown
 */
export async function measureBalance(page, url) {
  const origin = new URL(url).origin;
  const post = async (path, data) => {
    const answer = await page.request.post(`${url}api${path}`, { data, headers: { origin } });
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
    return answer.json();
  };
  const job = 'job-bench-balance';
  await post('/jobs', { id: job, name: 'Four hundred cells' });
  const { design } = await (await page.request.get(`${url}api/jobs/job-demo-orchard-truck`)).json();
  const ids = Array.from({ length: 400 }, (_, i) => `module-b${i + 1}`);
  const part = Object.values(design.modules)[0].part;
  const values = {
    parts: design.parts,
    pack: { balance: { ...design.pack.balance, restHours: 400 } },
    modules: Object.fromEntries(ids.map((id, i) => [id, { tag: `B${i + 1}`, part }])),
    strings: { 'string-b': { tag: 'S', modules: ids } },
  };
  await post(`/jobs/${job}/changes`, {
    id: 'change-bench-balance',
    base: 0,
    label: 'Cells',
    at: new Date().toISOString(),
    forward: Object.entries(values).map(([key, value]) => ({ op: 'replace', path: `/${key}`, value })),
    inverse: Object.keys(values).map((key) => ({ op: 'replace', path: `/${key}`, value: {} })),
  });
  const cells = ids.map((id) => `${id}/cell-1`);
  const began = Date.now() - 60 * 3.6e6;
  const at = (hours) => new Date(began + hours * 3.6e6).toISOString();
  const entry = (id, takenAt, body) =>
    post(`/jobs/${job}/entries`, { id: `entry-bb-${id}`, takenAt, ...body });
  await entry('on', at(-4), { kind: 'balance', act: 'on', gear: 'load', cells });
  await entry('off', at(0), { kind: 'balance', act: 'off', gear: 'load', cells });
  for (let i = 0; i < 30; i += 1) {
    const hours = 0.25 + i * 1.9;
    await entry(i, at(hours), {
      kind: 'cell-voltages',
      entered: 'typed',
      instrument: { kind: 'meter', name: 'Bench meter', standIn: false },
      cells: cells.map((cell, k) => ({
        cell,
        samples: [
          [0, 2.9 - 0.2 * Math.exp(-Math.sqrt(hours / (2 + (k % 7)))) + 0.0003 * Math.sin(k * 31 + i * 17)],
        ],
      })),
    });
  }
  await page.goto(`${url}jobs/${job}/pack?panel=intake`);
  await page.waitForLoadState('networkidle');
  return page.evaluate(async () => {
    const link = [...document.querySelectorAll('nav a')].find((one) => one.textContent?.trim() === 'Balance');
    const start = performance.now();
    link.click();
    const until = (test) =>
      new Promise((resolve) => {
        const look = () => (test() ? resolve(performance.now() - start) : requestAnimationFrame(look));
        look();
      });
    const openMs = await until(() =>
      document.querySelector('[data-balance-cells] [role=row][aria-rowindex]'),
    );
    const fitsMs = await until(() => {
      const text = document.querySelector('[data-counts]')?.textContent ?? '';
      return /(^|\D)0 too early/.test(text) && !text.includes('fitting');
    });
    return { openMs, fitsMs };
  });
}
