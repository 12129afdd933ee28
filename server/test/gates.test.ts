import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { procedureFor } from '@torvek/core/commissioning';
import { assess, evaluate } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import { standing } from '@torvek/core/record';
import request from 'supertest';
import { makeBus, openBench, signIn, testPassword, type Bench } from './bench-room';

let bench: Bench;
let job: string;
let design: Design;
let count = 0;
beforeAll(async () => {
  bench = await openBench();
  await signIn(bench.rooms, 'Wilma', ['witness']);
  await signIn(bench.rooms, 'Theo', ['technician']);
});
afterAll(() => bench.close());
beforeEach(async () => {
  count += 1;
  job = `job-${count}`;
  design = await makeBus(bench, job);
});

let made = 0;
const send = (body: object) =>
  request(bench.app)
    .post(`/api/jobs/${job}/entries`)
    .send({ id: `${job}-${(made += 1)}`, takenAt: '2026-11-25T08:00:00Z', ...body });
const measure = (step: string, value: number, unit: string, more: object = {}) =>
  send({
    kind: 'result',
    step,
    measured: { kind: 'value', value, unit },
    entered: 'typed',
    instrument: { kind: 'meter', name: 'Bench meter', standIn: false },
    ...more,
  });
const byWitness = (gate: string, name = 'Wilma', password = testPassword) =>
  send({ kind: 'gate', gate, witness: { name, password } });
const alone = (gate: string, how = 'Remote watch by telephone, camera on the bench.') =>
  send({ kind: 'gate', gate, alone: { replacedBy: ['remote watch'], how } });

async function passParts(): Promise<void> {
  for (const { gate, id, expected, optional } of procedureFor(design, evaluate(design))) {
    if (gate !== 'parts' || optional === true || expected?.kind !== 'range') continue;
    const { body } = await measure(
      id,
      expected.nominal ?? (expected.min! + expected.max!) / 2,
      expected.unit,
    );
    expect([id, body.body.verdict]).toEqual([id, 'pass']);
  }
}

const assessed = async () => {
  const evaluation = evaluate(design);
  return assess(evaluation, procedureFor(design, evaluation), await bench.rooms.ledger.standing(job));
};

describe('an HV gate', () => {
  test('stays shut for results until a second person confirms, who then stands in each of them', async () => {
    await passParts();
    const tested = () => measure('insulation-negative:pack', 5, 'MΩ');
    expect((await tested()).body.error.code).toBe('not-confirmed');
    const opened = await byWitness('insulation');
    expect(opened.body).toMatchObject({ witness: 'Wilma', by: 'Test', body: { kind: 'gate', alone: null } });
    const { body } = await tested();
    expect(body).toMatchObject({ witness: 'Wilma', body: { verdict: 'pass', confirmedBy: opened.body.seq } });
  });

  test('is not opened before what it depends on, nor where no high voltage is', async () => {
    expect((await byWitness('insulation')).body.error.code).toBe('gate-closed');
    expect((await byWitness('parts')).body.error.issues[0].path).toBe('gate');
  });

  test('takes another person’s own word only: not one’s own, not a technician’s, not a wrong password', async () => {
    await passParts();
    const pathOf = async (answer: ReturnType<typeof byWitness>) => {
      const { status, body } = await answer;
      return [status, body.error.issues[0].path];
    };
    expect(await pathOf(byWitness('insulation', 'Test'))).toEqual([422, 'witness.name']);
    expect(await pathOf(byWitness('insulation', 'Theo'))).toEqual([422, 'witness.name']);
    expect(await pathOf(byWitness('insulation', 'Wilma', 'not hers at all'))).toEqual([
      422,
      'witness.password',
    ]);
    expect((await assessed()).gates.find(({ id }) => id === 'insulation')?.open).toBe(true);
    expect((await measure('insulation-negative:pack', 5, 'MΩ')).body.error.code).toBe('not-confirmed');
  });

  test('the witness’s password stands nowhere in the record', async () => {
    await passParts();
    const { body } = await byWitness('insulation');
    expect(JSON.stringify(body)).not.toContain(testPassword);
    const rows = await bench.database.query<{ content: string }>('SELECT content FROM entries');
    expect(rows.filter(({ content }) => content.includes(testPassword))).toEqual([]);
  });

  test('is opened alone only with what replaces the witness; the results then carry no witness', async () => {
    await passParts();
    expect((await alone('insulation', 'short')).body.error.issues[0].path).toBe('alone.how');
    expect((await send({ kind: 'gate', gate: 'insulation' })).body.error.issues[0].path).toBe('witness');
    const opened = await alone('insulation');
    const { body } = await measure('insulation-negative:pack', 5, 'MΩ');
    expect([body.witness, body.body.confirmedBy]).toEqual([null, opened.body.seq]);
  });

  test('holds for the person who asked, and not for another', async () => {
    await passParts();
    await byWitness('insulation');
    const cookie = await signIn(bench.rooms, `Uma ${count}`, ['technician']);
    const { body } = await request(bench.bare)
      .post(`/api/jobs/${job}/entries`)
      .set('Cookie', cookie)
      .send({
        id: `${job}-uma`,
        takenAt: '2026-11-25T08:00:00Z',
        kind: 'result',
        step: 'insulation-negative:pack',
        measured: { kind: 'value', value: 5, unit: 'MΩ' },
        entered: 'typed',
        instrument: { kind: 'insulation-tester', name: 'Tester', standIn: false },
      });
    expect(body.error.code).toBe('not-confirmed');
  });

  test('closes again when its confirmation is corrected', async () => {
    await passParts();
    const { body } = await byWitness('insulation');
    await send({ kind: 'correction', of: body.seq, reason: 'The witness had to leave.' });
    expect((await measure('insulation-negative:pack', 5, 'MΩ')).body.error.code).toBe('not-confirmed');
  });
});

describe('a failed result', () => {
  const step = 'intake-voltage:module-101';

  test('opens a deviation; what was tried stands in order, a pass closes it', async () => {
    const failed = (await measure(step, 30, 'V')).body.seq as number;
    const tried = (text: string, cured: boolean, subjects: string[] = []) =>
      send({ kind: 'deviation', of: failed, tried: text, cured, subjects });
    await tried('Meter proved on a known source.', false);
    await tried('Charged to storage on the bench.', true, ['module-101']);
    const before = (await assessed()).deviations;
    expect(before).toHaveLength(1);
    expect(before[0]).toMatchObject({ state: 're-test', retests: [{ id: step }] });
    expect(before[0]!.tried.map(({ body }) => body.tried)).toEqual([
      'Meter proved on a known source.',
      'Charged to storage on the bench.',
    ]);
    const passed = (await measure(step, 44, 'V')).body.seq as number;
    expect((await assessed()).deviations[0]).toMatchObject({ state: 'closed', passedBy: { seq: passed } });
  });

  test('a repair makes the results on what it touched due again', async () => {
    await measure('precharge-resistor:circuit-main', 82, 'Ω');
    const failed = (await measure(step, 30, 'V')).body.seq as number;
    await send({
      kind: 'deviation',
      of: failed,
      tried: 'Rewired.',
      cured: false,
      subjects: ['circuit-main'],
    });
    const { steps, deviations } = await assessed();
    expect(steps.find(({ step: { id } }) => id === 'precharge-resistor:circuit-main')).toMatchObject({
      state: 'stale',
      workSince: 'Rewired.',
    });
    expect(deviations[0]!.retests.map(({ id }) => id)).toEqual([step, 'precharge-resistor:circuit-main']);
  });

  test('says what was found, how often it came, and what was exchanged; what came again is not cured', async () => {
    const failed = (await measure(step, 30, 'V')).body.seq as number;
    const tried = (more: object) =>
      send({ kind: 'deviation', of: failed, tried: 'Shaken.', cured: false, subjects: [], ...more });
    const swap = { part: 'Meter lead 7', before: '30 V', after: '44 V' };
    const { body } = await tried({ found: 'A cracked lead.', came: { times: 1, tries: 5 }, swap });
    expect(body.body).toMatchObject({ found: 'A cracked lead.', came: { times: 1, tries: 5 }, swap });
    expect((await tried({ came: { times: 6, tries: 5 } })).body.error.issues[0].path).toBe('came.times');
    expect((await tried({ cured: true, came: { times: 1, tries: 5 } })).body.error.issues[0].path).toBe(
      'cured',
    );
    expect((await tried({ cured: true, came: { times: 0, tries: 5 } })).status).toBe(200);
    expect((await tried({ swap: { part: 'x', before: '' } })).status).toBe(422);
  });

  test('only a failed result that counts has deviations', async () => {
    const passed = (await measure(step, 44, 'V')).body.seq as number;
    const deviate = (of: number) => send({ kind: 'deviation', of, tried: 'x', cured: false, subjects: [] });
    expect((await deviate(passed)).body.error.issues[0].path).toBe('of');
    const failed = (await measure(step, 3, 'V')).body.seq as number;
    await send({ kind: 'correction', of: failed, reason: 'Misread.' });
    expect((await deviate(failed)).body.error.issues[0].path).toBe('of');
  });
});

describe('a correction with the right value', () => {
  const step = 'intake-voltage:module-101';
  const right = (of: number, value: number, more: object = {}) =>
    send({
      kind: 'correction',
      of,
      reason: 'Decimal point.',
      right: { kind: 'value', value, unit: 'V' },
      ...more,
    });
  const entries = async () => (await request(bench.app).get(`/api/jobs/${job}/entries`)).body.entries;

  test('is judged anew as an entry of its own, by the same instrument at the same time; both or none', async () => {
    const failed = (await measure(step, 4.4, 'V', { takenAt: '2026-11-24T07:00:00Z' })).body.seq as number;
    const { body } = await right(failed, 44);
    expect(body.body).toEqual({ kind: 'correction', of: failed, reason: 'Decimal point.', anew: true });
    const [newest, correction, wrong] = await entries();
    expect([newest.seq, correction.seq, wrong.correctedBy]).toEqual([failed + 2, failed + 1, failed + 1]);
    expect(newest).toMatchObject({
      takenAt: '2026-11-24T07:00:00Z',
      instrument: { name: 'Bench meter' },
      body: {
        kind: 'result',
        step,
        verdict: 'pass',
        measured: { value: 44 },
        remark: `instead of entry ${failed}: Decimal point.`,
      },
    });
    const { steps, deviations } = await assessed();
    expect(steps.find(({ step: { id } }) => id === step)).toMatchObject({ state: 'passed' });
    expect(deviations).toEqual([]);
  });

  test('the same request again answers the same and adds nothing', async () => {
    const failed = (await measure(step, 4.4, 'V')).body.seq as number;
    const once = { id: `${job}-once` };
    const first = await right(failed, 44, once);
    expect((await right(failed, 44, once)).body).toEqual(first.body);
    expect(await entries()).toHaveLength(3);
  });

  test('what cannot be judged leaves the record as it was', async () => {
    const failed = (await measure(step, 4.4, 'V')).body.seq as number;
    const unit = await right(failed, 44, { right: { kind: 'value', value: 44, unit: 'A' } });
    expect([unit.status, unit.body.error.issues[0].path]).toEqual([422, 'measured']);
    const position = (await send({ kind: 'position', linksOut: 1, serviceDisconnect: 'out', mains: 'open' }))
      .body;
    const other = await right(position.seq, 44);
    expect([other.status, other.body.error.issues[0].path]).toEqual([422, 'right']);
    expect(await entries()).toHaveLength(2);
    await right(failed, 44);
    expect((await right(failed, 43)).body.error.code).toBe('not-standing');
  });

  test('behind an HV gate it keeps the witness that it was taken with', async () => {
    await passParts();
    const opened = await byWitness('insulation');
    const wrong = (await measure('insulation-negative:pack', 0.5, 'MΩ')).body.seq as number;
    await send({ kind: 'correction', of: opened.body.seq, reason: 'The witness had to leave.' });
    await right(wrong, 5, { right: { kind: 'value', value: 5, unit: 'MΩ' } });
    const [newest] = await entries();
    expect(newest).toMatchObject({
      witness: 'Wilma',
      body: { verdict: 'pass', confirmedBy: opened.body.seq },
    });
  });
});

describe('a sub-assembly on the bench', () => {
  test('passed there explains no failure in the vehicle', async () => {
    const step = 'precharge-resistor:circuit-main';
    await measure(step, 60, 'Ω');
    await measure(step, 82, 'Ω', { occasion: 'bench' });
    expect((await assessed()).deviations).toMatchObject([{ state: 'open', passedBy: null }]);
    await measure(step, 82, 'Ω');
    expect((await assessed()).deviations).toMatchObject([{ state: 'closed' }]);
  });

  test('is kept beside the test in the vehicle; no gate goes by it, and no gate keeps it out', async () => {
    const step = 'precharge-resistor:circuit-main';
    await measure(step, 82, 'Ω', { occasion: 'bench' });
    const of = async () => (await assessed()).steps.find(({ step: { id } }) => id === step)!;
    expect(await of()).toMatchObject({ state: 'due', entry: null, onBench: { body: { verdict: 'pass' } } });
    await measure(step, 60, 'Ω');
    expect(await of()).toMatchObject({ state: 'failed', onBench: { body: { verdict: 'pass' } } });
    await measure(step, 82, 'Ω');
    expect(await of()).toMatchObject({ state: 'passed', onBench: { body: { occasion: 'bench' } } });
    const negative = await measure('insulation-negative:pack', 5, 'MΩ', { occasion: 'bench' });
    expect([negative.status, negative.body.error.issues[0].path]).toEqual([422, 'occasion']);
    const thing = await measure('intake-voltage:module-101', 44, 'V', { occasion: 'bench' });
    expect([thing.status, thing.body.error.issues[0].path]).toEqual([422, 'occasion']);
    // Coils wait for the parts; a board of contactors on the bench does not.
    const coil = procedureFor(design, evaluate(design)).find(({ gate }) => gate === 'coils')!;
    const range = coil.expected as { min?: number; max?: number; unit: string };
    const value = ((range.min ?? 0) + (range.max ?? 1)) / 2;
    expect((await measure(coil.id, value, range.unit)).status).toBe(409);
    expect((await measure(coil.id, value, range.unit, { occasion: 'bench' })).status).toBe(200);
  });
});

describe('a snag', () => {
  test('keeps the gate shut by which it must be gone, and every later one', async () => {
    await passParts();
    const snag = await send({ kind: 'snag', what: 'Loose wire', gate: 'insulation', subjects: ['box-tail'] });
    const waiting = (await assessed()).gates.map(({ id, waitsFor }) => [id, waitsFor.join()]);
    expect(waiting).toEqual([
      ['parts', ''],
      ['wiring', ''],
      ['coils', ''],
      ['coolant', ''],
      ['insulation', `snag ${snag.body.seq} (Loose wire)`],
      ['sense', `snag ${snag.body.seq} (Loose wire)`],
      ['power-up', `snag ${snag.body.seq} (Loose wire)`],
      [
        'first-hv',
        `Joints, bonds and wiring,Contactors without high voltage,Coolant: leaks, filling, flow,Insulation,snag ${snag.body.seq} (Loose wire)`,
      ],
      ['charging', `First high voltage,snag ${snag.body.seq} (Loose wire)`],
      ['under-load', `First high voltage,snag ${snag.body.seq} (Loose wire)`],
    ]);
    expect((await byWitness('insulation')).body.error.code).toBe('gate-closed');
    const gone = () => send({ kind: 'snag-gone', of: snag.body.seq, how: 'Crimped and tied.' });
    expect((await gone()).status).toBe(200);
    expect((await gone()).body.error.code).toBe('already-gone');
    expect((await byWitness('insulation')).status).toBe(200);
  });

  test('due by hand-over keeps no gate shut', async () => {
    await send({ kind: 'snag', what: 'Stand-in charger', gate: 'hand-over', subjects: [] });
    const { gates, snags } = await assessed();
    expect([gates[0]!.open, snags.filter(({ gone }) => gone === null).length]).toEqual([true, 1]);
    expect((await send({ kind: 'snag-gone', of: 99, how: 'x' })).body.error.issues[0].path).toBe('of');
  });
});

describe('instruments', () => {
  const register = async (id: string, calibrationDue: string | null) =>
    request(bench.app)
      .post('/api/instruments')
      .send({ id: `${job}-${id}`, kind: 'meter', name: 'Meter', serial: 'M 1', calibrationDue });
  const read = (id: string, takenAt = '2026-11-25T08:00:00Z') =>
    measure('intake-voltage:module-101', 44, 'V', { instrument: { id: `${job}-${id}` }, takenAt });

  test('stand in the entry with serial and calibration as they were', async () => {
    await register('a', '2027-01-31');
    expect((await read('a')).body.instrument).toEqual({
      kind: 'meter',
      name: 'Meter',
      serial: 'M 1',
      calibrationDue: '2027-01-31',
      standIn: false,
      overdue: false,
    });
  });

  test('a calibration holds through its day in the job’s zone, and not a moment longer', async () => {
    await bench.rooms.changes.save(
      job,
      {
        id: `${job}-zone`,
        base: 0,
        label: 'zone',
        at: '2026-11-25T08:00:00Z',
        forward: [{ op: 'replace', path: '/settings/zone', value: 'Pacific/Auckland' }],
        inverse: [{ op: 'replace', path: '/settings/zone', value: 'UTC' }],
      },
      'Test',
    );
    await register('b', '2026-11-24');
    // Auckland is 13 hours ahead in November: its 24th ends at 11:00 UTC.
    expect((await read('b', '2026-11-24T10:59:59Z')).body.instrument.overdue).toBe(false);
    expect((await read('b', '2026-11-24T11:00:00Z')).body.instrument.overdue).toBe(true);
  });

  test('one that is not there, of another kind or retired is refused by its field', async () => {
    await register('c', null);
    const path = async (answer: ReturnType<typeof read>) => (await answer).body.error.issues[0].path;
    expect(await path(read('nobody'))).toBe('instrument.id');
    expect(
      await path(
        measure('insulation-negative:pack', 5, 'MΩ', { instrument: { id: `${job}-c` } }).then(async () => {
          await passParts();
          await byWitness('insulation');
          return measure('insulation-negative:pack', 5, 'MΩ', { instrument: { id: `${job}-c` } });
        }) as ReturnType<typeof read>,
      ),
    ).toBe('instrument.id');
    await request(bench.app).patch(`/api/instruments/${job}-c`).send({ calibrationDue: null, retired: true });
    expect(await path(read('c'))).toBe('instrument.id');
    expect((await register('d', '2026-02-30')).body.error.issues[0].path).toBe('calibrationDue');
  });
});

test('what is kept as standing is what all entries make, after every kind of entry', async () => {
  await passParts();
  await measure('intake-voltage:module-101', 4, 'V');
  await measure('intake-voltage:module-101', 44, 'V');
  const wrong = (await measure('intake-voltage:module-101', 45, 'V')).body.seq as number;
  await send({ kind: 'work', what: 'Nuts tightened', subjects: ['module-101', 'module-102'] });
  await send({ kind: 'correction', of: wrong, reason: 'Other module.' });
  await send({ kind: 'note', text: 'Rain.' });
  await alone('insulation');
  await send({ kind: 'snag', what: 'Tape', gate: 'hand-over', subjects: [] });
  const all = await bench.rooms.ledger.all(job);
  const kept = await bench.rooms.ledger.standing(job);
  expect(kept.map(({ seq }) => seq)).toEqual(standing(all).map(({ seq }) => seq));
  bench.rooms.ledger.forget();
  expect(await bench.rooms.ledger.standing(job)).toEqual(kept);
  const evaluation = evaluate(design);
  const procedure = procedureFor(design, evaluation);
  expect(assess(evaluation, procedure, kept)).toEqual({
    ...assess(evaluation, procedure, all),
    corrected: new Set(),
  });
});
