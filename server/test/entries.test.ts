import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { procedureFor } from '@torvek/core/commissioning';
import { assess, evaluate } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import { canonicalText, hashText } from '@torvek/core/record';
import request from 'supertest';
import { changeOf, makeBus, openBench, positionRequest, type Bench } from './bench-room';

let bench: Bench;
let job: string;
let design: Design;
let count = 0;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());
beforeEach(async () => {
  count += 1;
  job = `job-${count}`;
  design = await makeBus(bench, job);
});

const post = (body: object) => request(bench.app).post(`/api/jobs/${job}/entries`).send(body);
const meter = { kind: 'meter', name: 'Bench meter', standIn: false };
const resultOf = (id: string, step: string, value: number, unit: string) => ({
  id,
  kind: 'result',
  takenAt: '2026-11-25T08:00:00Z',
  step,
  measured: { kind: 'value', value, unit },
  entered: 'typed',
  instrument: meter,
});

/** Opens an HV gate as somebody alone does. */
const openAlone = (gate: string) =>
  post({
    id: `${job}-open-${gate}`,
    kind: 'gate',
    takenAt: '2026-11-25T08:00:00Z',
    gate,
    alone: { replacedBy: ['delay'], how: 'Nobody else in the shop; ten minutes between steps.' },
  });

/** Torques every joint and measures every bond as the design asks. */
async function walkAll(): Promise<void> {
  for (const { id, walk, expected } of procedureFor(design, evaluate(design))) {
    // No gate waits for a cable as cut.
    if (walk === undefined || walk.work === 'cut' || expected?.kind !== 'range') continue;
    const torque = walk.work === 'torque';
    const { status } = await post({
      id: `${job}-walk-${id}`,
      kind: 'joints',
      takenAt: '2026-11-25T08:00:00Z',
      work: walk.work,
      ...(!torque && { currentA: 2 }),
      instrument: { ...meter, kind: torque ? 'torque-wrench' : 'meter' },
      joints: walk.items.map((one) => ({ joint: one.id, value: torque ? expected.nominal! : 0.004 })),
    });
    expect([id, status]).toEqual([id, 200]);
  }
}

/** Passes every step of a gate with a value in the middle of what is expected. */
async function passGate(gate: string): Promise<void> {
  for (const step of procedureFor(design, evaluate(design)).filter(
    (one) => one.gate === gate && one.optional !== true && one.walk === undefined,
  )) {
    if (step.expected?.kind === 'hold') {
      const { testKPa, minutes } = step.expected;
      const measured = {
        kind: 'hold',
        startKPaGauge: testKPa,
        endKPaGauge: testKPa,
        startC: 20,
        endC: 20,
        minutes,
        unit: 'kPa',
      };
      const { body } = await post({ ...resultOf(`${job}-${step.id}`, step.id, 0, 'kPa'), measured });
      expect(body.body.verdict).toBe('pass');
    }
    if (step.expected?.kind === 'list') {
      const { items, min, max, unit } = step.expected;
      const values = items.map(() => ((min ?? 0) + (max ?? 0)) / 2);
      const measured = { kind: 'list', values, unit };
      const { body } = await post({ ...resultOf(`${job}-${step.id}`, step.id, 0, unit), measured });
      expect(body.body.verdict).toBe('pass');
    }
    if (step.expected?.kind !== 'range') continue;
    const { min, max, unit } = step.expected;
    const value = ((min ?? max! * 0.5) + (max ?? min! * 10)) / 2;
    const { body } = await post(resultOf(`${job}-${step.id}`, step.id, value, unit));
    expect(body.body.verdict).toBe('pass');
  }
}

describe('the server judges', () => {
  test('a result carries the server’s expectation, verdict, basis and the hash of its own text', async () => {
    const { status, body } = await post(resultOf(`${job}-1`, 'intake-voltage:module-101', 44.7, 'V'));
    expect(status).toBe(200);
    expect(body.body).toMatchObject({
      verdict: 'pass',
      expected: '36 V to 50.4 V',
      title: 'Intake voltage of S1-M01',
    });
    expect(body).toMatchObject({ seq: 1, previous: null, subjects: [{ id: 'module-101', tag: 'S1-M01' }] });
    expect(body.basis.map(({ value }: { value: number }) => value)).toEqual([36, 12 * 4.2]);
    const { sha256, ...entry } = body;
    expect(hashText(canonicalText(entry))).toBe(sha256);
  });

  test('limits met exactly pass, a hair beyond fails with the reason', async () => {
    expect((await post(resultOf(`${job}-1`, 'intake-voltage:module-101', 36, 'V'))).body.body.verdict).toBe(
      'pass',
    );
    const { body } = await post(resultOf(`${job}-2`, 'intake-voltage:module-101', 35.99, 'V'));
    expect([body.body.verdict, body.body.reasons]).toEqual(['fail', ['35.99 V is below 36 V']]);
  });

  test('a client cannot send a verdict, nor another unit, nor a step that is not there', async () => {
    const good = resultOf(`${job}-1`, 'intake-voltage:module-101', 44.7, 'V');
    expect((await post({ ...good, verdict: 'pass' })).body.error.issues[0].path).toBe('verdict');
    expect((await post({ ...good, measured: { kind: 'value', value: 44.7, unit: 'mV' } })).status).toBe(422);
    expect((await post({ ...good, step: 'intake-voltage:nobody' })).body.error.issues[0].path).toBe('step');
    expect((await post({ ...good, measured: { kind: 'value', value: 1e300, unit: 'V' } })).status).toBe(422);
    expect((await request(bench.app).get(`/api/jobs/${job}/entries`)).body).toEqual({
      total: 0,
      entries: [],
    });
  });

  test('a gate opens only when what it depends on has passed', async () => {
    const early = await post(resultOf(`${job}-1`, 'polarity:pack', 358, 'V'));
    expect([early.status, early.body.error.code]).toEqual([409, 'gate-closed']);
    expect(early.body.error.message).toContain(
      'Parts; Joints, bonds and wiring; Contactors without high voltage; Coolant: leaks, filling, flow; Insulation',
    );
    await passGate('parts');
    await passGate('coils');
    await passGate('coolant');
    await passGate('wiring');
    await openAlone('insulation');
    await passGate('insulation');
    // Everything has passed but the walks along joints and bonds.
    expect((await openAlone('first-hv')).body.error.message).toContain('waits for Joints, bonds and wiring');
    await walkAll();
    await openAlone('first-hv');
    expect((await post(resultOf(`${job}-2`, 'polarity:pack', 358, 'V'))).body.body.verdict).toBe('pass');
    expect((await post(resultOf(`${job}-3`, 'polarity:pack', -358, 'V'))).body.body.verdict).toBe('fail');
  });

  test('a step of walks takes no single value; a reading beyond a range is one', async () => {
    const torque = await post(resultOf(`${job}-1`, 'torque:joint-m10', 38, 'N·m'));
    expect([torque.status, torque.body.error.code]).toEqual([409, 'by-walk']);
    await passGate('parts');
    await openAlone('insulation');
    const measured = (value: number, over: unknown) => ({ kind: 'value', value, unit: 'MΩ', over });
    const read = (id: string, value: number, over: unknown) =>
      post({
        ...resultOf(`${job}-${id}`, 'insulation-negative:pack', 0, 'MΩ'),
        measured: measured(value, over),
      });
    expect((await read('2', 2000, true)).body.body).toMatchObject({
      verdict: 'pass',
      measured: { value: 2000, over: true },
    });
    expect((await read('3', 0.1, true)).body.error.issues[0].path).toBe('measured');
    expect((await read('4', 2000, 'yes')).body.error.issues[0].path).toBe('measured.over');
  });

  test('a reading by a stand-in opens no gate of a real job', async () => {
    for (const { id, gate, optional } of procedureFor(design, evaluate(design))) {
      if (gate !== 'parts' || optional === true) continue;
      const { body: taken } = await request(bench.app)
        .post(`/api/jobs/${job}/stand-ins`)
        .send({ step: id, behaviour: 'true', seed: 7 });
      const { body } = await post({ ...resultOf(`${job}-${id}`, id, 0, 'V'), ...taken });
      expect([id, body.body.verdict, body.instrument.standIn]).toEqual([id, 'pass', true]);
    }
    const { status, body } = await openAlone('insulation');
    expect([status, body.error.code]).toEqual([409, 'gate-closed']);
    expect(body.error.message).toMatch(/Parts \(18 readings by a stand-in: no vehicle was measured\)/);
  });

  test('an expectation that is not computed cannot be judged', async () => {
    await bench.rooms.changes.save(
      job,
      changeOf(design, 0, `${job}-c`, (draft) => {
        delete draft.circuits['circuit-main']!.resistor;
      }),
      'Test',
    );
    const { status, body } = await post(resultOf(`${job}-1`, 'precharge-resistor:circuit-main', 82, 'Ω'));
    expect([status, body.error.code]).toEqual([409, 'not-computed']);
  });

  test('a stand-in reading is recorded as one, and misbehaves as told', async () => {
    const read = (behaviour: string) =>
      request(bench.app)
        .post(`/api/jobs/${job}/stand-ins`)
        .send({ step: 'intake-voltage:module-101', behaviour, seed: 7 });
    const { body: taken } = await read('true');
    expect(taken.measured.value).toBeGreaterThan(43);
    expect((await read('swapped-leads')).body.measured.value).toBe(-taken.measured.value);
    const { body } = await post({
      ...resultOf(`${job}-1`, 'intake-voltage:module-101', 0, 'V'),
      measured: taken.measured,
      instrument: taken.instrument,
    });
    expect([body.body.entered, body.instrument.standIn]).toEqual(['stand-in', true]);
    expect((await read('levitate')).body.error.issues[0].path).toBe('behaviour');
  });
});

describe('acceptances and corrections', () => {
  test('only a finding that is raised can be accepted; rule and values are the server’s', async () => {
    const accept = (check: string) =>
      post({
        id: `${job}-${check}`,
        kind: 'acceptance',
        takenAt: '2026-11-25T08:00:00Z',
        check,
        reason: 'Agreed.',
      });
    const { body } = await accept('vehicle.range-short|road-load');
    expect(body.body).toMatchObject({ rule: 'vehicle.range-short', ruleVersion: 1, grade: 'mend' });
    expect(body.body.values.map(({ label }: { label: string }) => label)).toEqual(['range', 'range wanted']);
    expect((await accept('fuse.voltage|circuit-main')).status).toBe(409);
  });

  test('of a chosen part names its key and revision, and does not outlive it', async () => {
    const save = (base: number, fuse: string) =>
      bench.rooms.changes.save(
        job,
        changeOf(
          design,
          base,
          `${job}-c${base}`,
          (draft) => void (draft.circuits['circuit-heater']!.fuse = fuse),
        ),
        'Test',
      );
    await save(0, 'calderside-f160@1');
    const check = 'fuse.cable-unprotected|circuit-heater';
    const { body } = await post({
      id: `${job}-accept`,
      kind: 'acceptance',
      takenAt: '2026-11-25T08:00:00Z',
      check,
      reason: 'Until Monday.',
    });
    expect(body).toMatchObject({ formatVersion: 2, body: { parts: ['calderside-f160@1', 'marl-x4@1'] } });
    const lapsed = async () => {
      const now = (await bench.rooms.jobs.get(job)).design;
      const evaluation = evaluate(now);
      const { findings } = assess(
        evaluation,
        procedureFor(now, evaluation),
        await bench.rooms.ledger.standing(job),
      );
      return findings.find((one) => one.check.key === check)!.lapsed;
    };
    expect(await lapsed()).toBeNull();
    const { design: saved } = await bench.rooms.jobs.get(job);
    await bench.rooms.changes.save(
      job,
      changeOf(
        saved,
        1,
        `${job}-again`,
        (draft) => void (draft.circuits['circuit-heater']!.fuse = 'calderside-f250@1'),
      ),
      'Test',
    );
    expect(await lapsed()).toBe('a part has been exchanged');
  });

  test('a correction points at an entry that is there', async () => {
    await post(positionRequest(`${job}-1`));
    const correct = (id: string, of: number) =>
      post({
        id,
        kind: 'correction',
        takenAt: '2026-11-25T08:00:00Z',
        of,
        reason: 'Wrong vehicle.',
      });
    expect((await correct(`${job}-2`, 1)).body.body).toEqual({
      kind: 'correction',
      of: 1,
      reason: 'Wrong vehicle.',
    });
    expect((await correct(`${job}-3`, 9)).body.error.issues[0].path).toBe('of');
  });
});

describe('append-only', () => {
  test('the same id again answers with the entry that is there', async () => {
    const first = await post(positionRequest(`${job}-1`));
    const again = await post(positionRequest(`${job}-1`));
    expect(again.body).toEqual(first.body);
    expect((await request(bench.app).get(`/api/jobs/${job}/entries`)).body.entries).toHaveLength(1);
  });

  test('the database refuses update, delete and truncate', async () => {
    await post(positionRequest(`${job}-1`));
    for (const sql of [
      "UPDATE entries SET kind = 'x'",
      'DELETE FROM entries',
      'TRUNCATE entries',
      'DELETE FROM changes',
    ]) {
      await expect(bench.database.query(sql)).rejects.toThrow('append-only');
    }
  });

  test('text that cannot be kept faithfully is refused at the door', async () => {
    const nul = await post({ ...positionRequest(`${job}-1`), remark: 'a\u0000b' });
    expect([nul.status, nul.body.error.issues[0].path]).toEqual([422, 'remark']);
    const lone = await request(bench.app)
      .post(`/api/jobs/${job}/entries`)
      .set('Content-Type', 'application/json')
      .send(JSON.stringify(positionRequest(`${job}-2`)).replace('"out"', '"out","remark":"\\ud800"'));
    expect([lone.status, lone.body.error.issues[0].path]).toEqual([422, 'remark']);
    expect(
      (await post({ ...positionRequest(`${job}-3`), takenAt: 'yesterday' })).body.error.issues[0].path,
    ).toBe('takenAt');
  });
});
