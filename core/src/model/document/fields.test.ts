import { describe, expect, test } from '@jest/globals';
import {
  checkDesign,
  blankDesign,
  circuitDefaults,
  fieldAt,
  panelOfPath,
  setAt,
  stationOfPath,
  stations,
  thingOfPack,
  valueOf,
  type Field,
  type Fields,
} from '.';
import { designFields } from './design';

/** Every field there is, by its path; `x` stands for an item. */
function* everyField(fields: Fields, path = ''): Generator<[path: string, field: Field]> {
  for (const [name, field] of Object.entries(fields)) {
    const at = path === '' ? name : `${path}.${name}`;
    yield [at, field];
    if (field.inner !== undefined)
      yield* everyField(field.inner.fields, field.inner.kind === 'one' ? at : `${at}.x`);
  }
}
const all = [...everyField(designFields)];

describe('fields of the design', () => {
  test('each is found by its path, with words, at a station there is', () => {
    expect(all.length).toBeGreaterThan(180);
    for (const [path, field] of all) {
      expect([path, fieldAt(path)?.field]).toEqual([path, field]);
      expect([path, field.label.length > 1]).toEqual([path, true]);
      expect(stations).toContain(stationOfPath(path));
    }
  });

  test('each that belongs to no thing can be said first, in a design where nothing was said yet, and taken away', () => {
    const ownFields = all.filter(([path, field]) => !/\.x(\.|$)/.test(path) && field.inner === undefined);
    expect(ownFields.map(([path]) => path)).toEqual(
      expect.arrayContaining([
        'charging.marginMv',
        'limits.cutHighV',
        'pack.balance.targetV',
        'lowVoltage.converterA',
      ]),
    );
    const bare = Object.fromEntries(
      Object.entries(blankDesign()).filter(
        ([key]) => (designFields[key as keyof typeof designFields] as Field).given === true,
      ),
    );
    for (const [path] of ownFields) {
      const draft = JSON.parse(JSON.stringify(bare)) as object;
      setAt(draft, path, undefined);
      setAt(draft, path, 7);
      expect([path, valueOf(draft, path)]).toEqual([path, 7]);
    }
    const draft = JSON.parse(JSON.stringify(bare)) as object;
    setAt(draft, 'charging.marginMv', undefined);
    expect(draft).toEqual(bare);
    setAt(draft, 'bonds.body.bonded', true);
    expect(valueOf(draft, 'bonds.body.bonded')).toBe(true);
    for (const path of ['boxes.none.xM', 'cuts.none.atV', 'charging.marginMv.deep'])
      expect(() => setAt(draft, path, 1)).toThrow('not a place');
  });

  test('the name of a number ends in its unit', () => {
    const endings: Record<string, RegExp> = {
      V: /V$/,
      A: /A$/,
      Ω: /Ohm$/,
      F: /F$/,
      H: /H$/,
      m: /M$/,
      mm: /Mm$/,
      'mm²': /Mm2$/,
      kg: /Kg$/,
      s: /S$/,
      '°C': /C$/,
      W: /W$/,
      N: /N$/,
      'N·m': /Nm$/,
      fraction: /(Fraction|Efficiency)$/,
    };
    const numbers = all.filter(([, { unit }]) => unit !== undefined && endings[unit] !== undefined);
    expect(numbers.length).toBeGreaterThan(90);
    for (const [path, { unit }] of numbers) expect(path).toMatch(endings[unit!]!);
  });

  test('what is shown otherwise than stored keeps its size: 1100 µF, 5 %', () => {
    const of = (path: string) => fieldAt(path)!.field.shown!;
    expect(0.0011 / of('devices.d.busCapacitanceF').scale).toBeCloseTo(1100, 9);
    expect(0.05 / of('pack.socLowFraction').scale).toBeCloseTo(5, 9);
    expect(of('joints.j.limitOhm')).toEqual({ unit: 'µΩ', scale: 1e-6 });
  });

  test('defaults are of the fields that say so', () => {
    expect(circuitDefaults).toEqual({
      clampV: 24,
      parallel: 1,
      unevenM: 0,
      grouped: 2,
      fuseAmbientC: 25,
      contactOhm: 0.002,
      maxDropFraction: 0.02,
      maxClearS: 5,
      thresholdFraction: 0.95,
      timeoutS: 3,
      wantedTimeS: 0.3,
      attemptsPerMinute: 3,
    });
  });

  test('a field of another thing than the rest is edited elsewhere', () => {
    expect([stationOfPath('circuits.a.lengthM'), panelOfPath('circuits.a.lengthM')]).toEqual([
      'protect',
      'circuits',
    ]);
    expect(stationOfPath('circuits.a.tap')).toBe('network');
    expect(panelOfPath('boxes.a.clearanceMm')).toBe('bonds');
    expect([stationOfPath('boxes.a.xM'), panelOfPath('boxes.a.xM')]).toEqual(['pack', 'arrange']);
    expect([fieldAt('boxes.a.colour'), fieldAt('nowhere')]).toEqual([null, null]);
  });

  test('a bar or a cable of the pack is a thing of its own, its settings are not', () => {
    expect(thingOfPack('pack.leads.lead-1.lengthM')).toBe('lead-1');
    expect(thingOfPack('pack.busbars.bar-1.widthMm')).toBe('bar-1');
    expect(thingOfPack('pack.leads.lead-1')).toBeNull();
    expect(thingOfPack('pack.balance.targetV.x')).toBeNull();
    expect(thingOfPack('boxes.box-1.xM.x')).toBeNull();
    expect(thingOfPack('pack.nothing.a.b')).toBeNull();
  });

  test('a reference is refused where it names nothing, or a part of another kind', () => {
    const design = blankDesign();
    const issues = (change: (one: Record<string, never>) => void) => {
      const one = JSON.parse(JSON.stringify(design)) as Record<string, never>;
      change(one);
      const checked = checkDesign(one);
      return checked.ok ? [] : checked.issues.map(({ path, message }) => `${path} ${message}`);
    };
    expect(
      issues((one) => Object.assign(one.circuits!['circuit-main'] as object, { fuse: 'f@1', box: 'box-9' })),
    ).toEqual([
      'circuits.circuit-main.box names a box that is not there',
      'circuits.circuit-main.fuse names a part that is not there',
    ]);
    expect(issues((one) => Object.assign(one, { strings: { s: { tag: 'S', modules: ['m'] } } }))).toEqual([
      'strings.s.modules.0 names a module that is not there',
    ]);
  });
});
