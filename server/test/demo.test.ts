import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { assess } from '@torvek/core/design';
import { libraryBus } from '../../demo/library-bus';
import { shopPeople } from '../../demo/shop';
import { demoIsDue, seedDemo } from '../src/demo/seed';
import type { Court } from '../src/entries/court';
import { judgeRequest } from '../src/entries/judge';
import type { EntryRequest } from '../src/entries/judges';
import { evaluated } from '../src/jobs/evaluated';
import { openRooms, type Rooms } from '../src/rooms';
import { storeOf, type Store } from '../src/store';
import { freshDatabase } from './bench-room';

let store: Store;
let folder: string;
let rooms: Rooms;
const open: Store[] = [];
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'torvek-demo-'));
  store = await storeOf(freshDatabase, folder);
  rooms = openRooms(store, { demoMode: true });
});
afterAll(async () => {
  await store.close();
  for (const one of open) await one.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('the demo is told', () => {
  test('into an empty folder, once; the record verifies', async () => {
    expect(await demoIsDue(rooms)).toBe(true);
    await seedDemo(store);
    expect(await demoIsDue(rooms)).toBe(false);
    const job = (await rooms.jobs.list()).find(({ id }) => id === libraryBus.id);
    expect(job).toMatchObject({ id: libraryBus.id, demo: true });
    expect(job!.version + job!.entries).toBe(libraryBus.story(new Date()).length);
    expect(await rooms.verifier.job(libraryBus.id)).toMatchObject({ ok: true, problems: [] });
  });

  test('again without doubling anything, as after an interruption', async () => {
    const before = await rooms.ledger.all(libraryBus.id);
    await seedDemo(store);
    expect(await rooms.ledger.all(libraryBus.id)).toEqual(before);
    expect((await rooms.jobs.get(libraryBus.id)).version).toBe(5);
  });

  test('a folder with another edition of it keeps that one', async () => {
    const older = await storeOf(freshDatabase, join(folder, 'older'));
    open.push(older);
    const there = openRooms(older, { demoMode: true });
    await there.jobs.create(libraryBus.id, 'An older one', 'Test', { design: libraryBus.design, demo: true });
    expect(await demoIsDue(there)).toBe(true);
    const change = { id: `${libraryBus.id}-1`, base: 0, label: 'x', at: '2026-10-26T08:00:00Z' };
    const path = '/vehicle/year';
    await there.changes.save(
      libraryBus.id,
      {
        ...change,
        forward: [{ op: 'replace', path, value: 1975 }],
        inverse: [{ op: 'replace', path, value: 1974 }],
      },
      'Maren Oskarby',
    );
    expect(await demoIsDue(there)).toBe(false);
    await seedDemo(older);
    expect(await there.jobs.get(libraryBus.id)).toMatchObject({
      name: 'An older one',
      version: 1,
    });
  });

  test('with its own times, some weeks long', async () => {
    const entries = await rooms.ledger.all(libraryBus.id);
    const times = entries.map(({ recordedAt }) => recordedAt);
    expect(times).toEqual([...times].sort());
    expect((Date.parse(times.at(-1)!) - Date.parse(times[0]!)) / 86_400_000).toBeGreaterThan(20);
  });

  test('so that three results are stale by what moved, three failed on the way, one acceptance stands and only charging is due', async () => {
    const job = await rooms.jobs.get(libraryBus.id);
    const entries = await rooms.ledger.all(libraryBus.id);
    const { evaluation, procedure } = evaluated(job);
    const { steps, findings, position, corrected } = assess(evaluation, procedure, entries);
    const count = (state: string) => steps.filter((status) => status.state === state).length;
    const due = steps.filter(({ state }) => state === 'due').map(({ step }) => step.gate);
    expect([count('stale'), new Set(due), count('failed'), count('passed')]).toEqual([
      3,
      new Set(['charging']),
      0,
      82,
    ]);
    const stale = steps.filter(({ state }) => state === 'stale');
    expect(stale.map(({ step, moved }) => [step.id, moved[0]?.label])).toEqual([
      // A timer closes the main since: what was timed was the voltage check.
      ['precharge-time:circuit-main', 'Time to threshold'],
      ['precharge-curve:circuit-main', 'Bus capacitance'],
      ['stop-discharge:circuit-main', 'Time to below the touch limit'],
    ]);
    expect(stale[1]!.wouldStillPass).toBe(true);
    expect(entries.filter(({ body }) => body.kind === 'result' && body.verdict === 'fail')).toHaveLength(3);
    expect(corrected.size).toBe(1);
    expect(findings.filter(({ accepted }) => accepted !== null).map(({ check }) => check.rule.id)).toEqual([
      'vehicle.range-short',
    ]);
    expect(position?.body.serviceDisconnect).toBe('out');
  });

  test('in which nothing is charged beside a box whose lid is off', async () => {
    const court = { by: shopPeople[0]!, now: '2026-11-28T08:00:00Z', witness: null, ...rooms } as Court;
    const ask = (id: string, asked: object) =>
      rooms.ledger.append(libraryBus.id, id, (bench) =>
        judgeRequest({ id, takenAt: court.now, ...asked } as EntryRequest, bench, court),
      );
    const job = await rooms.jobs.get(libraryBus.id);
    const { procedure } = evaluated(job);
    const live = procedure.find(({ gate, hazard }) => gate === 'charging' && hazard === 'live')!;
    const low = procedure.find(({ gate, hazard }) => gate === 'charging' && hazard === 'low-voltage')!;
    const measured = { kind: 'value', value: 1, unit: 'A' };
    const result = ({ id, instrument }: typeof live) => ({
      ...{ kind: 'result', step: id, entered: 'typed', measured },
      instrument: { kind: instrument, name: 'Bench', standIn: false },
    });
    const position = { kind: 'position', linksOut: 0, serviceDisconnect: 'in', mains: 'open' };
    await ask('lid-1', { ...position, lidsOff: ['box-left', 'box-left'] });
    await expect(ask('lid-2', result(live))).rejects.toMatchObject({
      code: 'lid-off',
      message: expect.stringContaining(`the lid of ${job.design.boxes['box-left']!.tag} is off`),
    });
    // A step at the 12 V side is none beside a live vehicle; and what nobody said again stays said.
    await expect(ask('lid-3', result(low))).rejects.not.toMatchObject({ code: 'lid-off' });
    await ask('lid-4', position);
    await expect(ask('lid-5', result(live))).rejects.toMatchObject({ code: 'lid-off' });
    await ask('lid-6', { ...position, lidsOff: [] });
    await expect(ask('lid-7', result(live))).rejects.not.toMatchObject({ code: 'lid-off' });
    await expect(ask('lid-8', { ...position, lidsOff: ['box-nowhere'] })).rejects.toMatchObject({
      issues: [{ path: 'lidsOff.0', message: 'is no box of this design' }],
    });
  });

  test('with three mistakes of its last days that the findings catch: a fuse too large, a bare timer, a run along the brake line', async () => {
    const { evaluation } = evaluated(await rooms.jobs.get(libraryBus.id));
    const raised = evaluation.checks.flatMap((check) =>
      check.state === 'raised' && check.grade !== 'note' ? [`${check.rule.id} ${check.subjects.join()}`] : [],
    );
    expect(raised.filter((one) => !one.startsWith('vehicle.'))).toEqual([
      'fuse.cable-unprotected circuit-heater',
      'precharge.bare-timer circuit-main',
      // It closes before the bus is up: the contacts meet more than they make.
      'precharge.timer-welds circuit-main',
      'route.separation run-compressor,hazard-brake',
    ]);
  });
});
