// npm run bench: the timings and the endurance that the project promises. No test depends on them.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { measureBalance } from './bench/balance.mjs';
import { measureDrag } from './bench/drag.mjs';
import { measureKeys } from './bench/keys.mjs';
import { measureOpening } from './bench/opening.mjs';
import { measureProtect } from './bench/protect.mjs';
import { chromiumPath, ensureBuilt, ensureChromium, ensureInstalled, root } from './lib.mjs';

ensureInstalled();
ensureChromium();
await ensureBuilt();
let failed = false;

/** One measured figure against its limit. */
function report(name, value, limit, unit) {
  const holds = value < limit;
  failed ||= !holds;
  console.log(
    `  ${name.padEnd(46)} ${value.toFixed(1).padStart(8)} ${unit}, limit ${limit} ${unit}: ${holds ? 'holds' : 'DOES NOT HOLD'}`,
  );
}

/** Runs one of the measurements that need the sources; it prints its own figures. */
function measure(script, ...args) {
  const command = ['--import', 'tsx', join(root, 'scripts/bench', script), ...args];
  failed = spawnSync(process.execPath, command, { cwd: root, stdio: 'inherit' }).status !== 0 || failed;
}

async function start(data, script) {
  const began = performance.now();
  const child = spawn(process.execPath, [join(root, `scripts/${script}.mjs`)], {
    env: { ...process.env, TORVEK_DATA: data, PORT: '0' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise((resolve, reject) => {
    child.stdout.on('data', (chunk) => {
      const match = /http:\S+/.exec(String(chunk));
      if (match) resolve(match[0]);
    });
    child.once('exit', () => reject(new Error('the server ended')));
  });
  const seconds = (performance.now() - began) / 1000;
  const stop = () => {
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    return gone;
  };
  return { url, seconds, stop };
}

console.log('\nWarm evaluation of demo A, median of 25');
measure('evaluate.ts');

console.log('\nCoolant loops and temperatures');
measure('cooling.ts');

console.log('\nProtection of a whole car');
measure('coordination.ts');

console.log('\nNetwork and arrangement');
measure('network.ts');

console.log('\nFirst page');
const page0 = readFileSync(join(root, 'web/dist/index.html'), 'utf8');
const scripts = [...page0.matchAll(/assets\/[^"]+\.js/g)].map(([path]) =>
  readFileSync(join(root, 'web/dist', path)),
);
report('script, gzipped', scripts.reduce((sum, bytes) => sum + gzipSync(bytes).length, 0) / 1000, 250, 'kB');

console.log('\nStarting, from an installed tree');
const data = mkdtempSync(join(tmpdir(), 'torvek-bench-'));
rmSync(join(root, '.cache/built.stamp'), { force: true });
const first = await start(data, 'demo');
report('npm run demo: build, seed, ready', first.seconds, 15, 's');
await first.stop();
const second = await start(data, 'demo');
report('again, on existing data', second.seconds, 5, 's');

console.log('\nFrom keydown to changed text in the nameplate, median of 30');
const browser = await chromium.launch({ executablePath: chromiumPath });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.request.post(`${second.url}api/session/demo`, {
  data: { person: 'person-demo-designer' },
  headers: { origin: new URL(second.url).origin },
});
await page.goto(`${second.url}jobs/job-demo-library-bus/pack`);
await page.waitForLoadState('networkidle');
const times = [];
for (let i = 0; i < 30; i += 1) {
  const field = page.locator('[data-path="pack.peakCurrentA"] input');
  await field.fill('40');
  await page.evaluate(() => {
    const plate = document.querySelector('.nameplate');
    const target = document.querySelector('[data-path="pack.peakCurrentA"] input');
    window.measured = new Promise((resolve) => {
      target.addEventListener(
        'keydown',
        () => {
          const began = performance.now();
          new MutationObserver((_list, observer) => {
            observer.disconnect();
            requestAnimationFrame(() => resolve(performance.now() - began));
          }).observe(plate, { subtree: true, childList: true, characterData: true });
        },
        { once: true },
      );
    });
  });
  await field.press(String(1 + (i % 9)));
  times.push(await page.evaluate(() => window.measured));
  await field.press('Escape');
}
times.sort((a, b) => a - b);
report('keydown to nameplate', times[times.length >> 1], 100, 'ms');

console.log('\nOpening a job, and its stations the second time');
const opening = await measureOpening(browser, second.url);
report('over the wire', opening.wireKB, 600, 'kB');
for (const [station, ms] of opening.times) report(station, ms, 400, 'ms');

console.log('\nFrom a key to the next paint, nineteen of twenty');
for (const [station, keys] of Object.entries(await measureKeys(page, second.url))) {
  if (keys.length < 20) throw new Error(`too few fields of ${station} are there`);
  report(station, keys[Math.floor(keys.length * 0.95)], 50, 'ms');
}

console.log('\nA module dragged over the boxes for 5 s');
await page.goto(`${second.url}jobs/job-demo-library-bus/pack?panel=arrange`);
await page.locator('[data-module="module-105"]').waitFor();
await page.waitForLoadState('networkidle');
const drag = await measureDrag(page);
report('longest task', drag.longestTaskMs, 50, 'ms');
report('scripting per frame', drag.scriptPerFrameMs, 8, 'ms');

console.log('\nFrom a click on a circuit to its finished plots');
const clicks = (await measureProtect(page, second.url)).map(([, ms]) => ms ?? Infinity).sort((a, b) => a - b);
report('median', clicks[clicks.length >> 1], 200, 'ms');
report('slowest but one in twenty', clicks[Math.floor(clicks.length * 0.95)], 200, 'ms');

console.log('\n400 cells with 30 readings each');
const balance = await measureBalance(page, second.url);
report('Balance panel opens', balance.openMs, 500, 'ms');
report('all rests fitted', balance.fitsMs, 2000, 'ms');
await browser.close();
await second.stop();
rmSync(data, { recursive: true, force: true });

console.log('\nA record of 100 000 entries');
measure('record.ts');

console.log('\nKills during writes');
measure('kills.ts', process.argv[2] ?? '50');
process.exit(failed ? 1 : 0);
