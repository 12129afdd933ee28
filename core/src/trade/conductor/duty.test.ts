import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { busbar, busbarHeatPerM, busbarOhmPerM, cable, cableDuty, type BusbarInput } from '.';

const base = {
  areaMm2: 35,
  conductorDiameterMm: 8.4,
  outerDiameterMm: 12.4,
  conductorMaxC: 125,
  ambientC: 30,
  lengthM: 3.5,
  install: 'free-air',
  busVoltageV: 360,
};
function duty(change: object) {
  const parsed = cableDuty.parse({ ...base, ...change });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return cableDuty.calculate(parsed.input);
}
function steady(change: object) {
  const parsed = cable.parse({ ...base, ...change });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return cable.calculate(parsed.input).result;
}
const issuesOf = (change: object) => {
  const parsed = cableDuty.parse({ ...base, profile: [[10, 100]], repeat: 1, ...change });
  return parsed.ok ? [] : parsed.issues.map(({ path }) => path);
};

describe('a cable over its load', () => {
  test('a steady current ends where the heat balance says, from above and from below', () => {
    for (const [areaMm2, d, D, currentA, ambientC] of [
      [35, 8.4, 12.4, 200, 30],
      [0.5, 0.9, 2.1, 6, -40],
      [120, 15.6, 21, 350, 120],
    ] as const) {
      const at = {
        areaMm2,
        conductorDiameterMm: d,
        outerDiameterMm: D,
        ambientC,
        conductorMaxC: 200,
        parallel: areaMm2 === 120 ? 2 : 1,
      };
      const balance = steady({ ...at, currentA }).conductorTemperatureC!;
      for (const startC of [ambientC, 250]) {
        const { endTemperatureC } = duty({ ...at, profile: [[1e6, currentA]], repeat: 1, startC }).result;
        expect(endTemperatureC! - ambientC).toBeCloseTo(balance - ambientC, 2);
      }
    }
  });

  test('the first seconds store all heat: I²·r·t over C, within a percent', () => {
    const capacity = 35e-6 * 3.45e6 + 0.5 * (Math.PI / 4) * (12.4 ** 2 - 8.4 ** 2) * 1e-6 * 2.4e6;
    const { endTemperatureC } = duty({ profile: [[2, 300]], repeat: 1 }).result;
    const riseK = (300 ** 2 * 0.000554 * (1 + 0.00393 * 10) * 2) / capacity;
    expect((endTemperatureC! - 30) / riseK).toBeGreaterThan(0.99);
    expect((endTemperatureC! - 30) / riseK).toBeLessThan(1.01);
  });

  test('small rises cool with the time constant that the cable has there', () => {
    const { timeConstantS } = steady({ currentA: 0 });
    const { result } = duty({ profile: [[timeConstantS! * 0.2, 0]], repeat: 1, startC: 31 });
    // 1 K above ambient: e^−0.2 after a fifth of the time constant; it slows a little as the rise shrinks.
    expect(result.endTemperatureC! - 30).toBeGreaterThan(Math.exp(-0.2));
    expect(result.endTemperatureC! - 30).toBeLessThan(Math.exp(-0.2) * 1.03);
  });

  test('many periods equal one long run, and beyond the settled state nothing changes', () => {
    const profile = [
      [20, 400],
      [160, 60],
    ];
    const twelve = duty({ profile, repeat: 12 }).result;
    const long = duty({ profile: Array.from({ length: 12 }, () => profile).flat(), repeat: 1 }).result;
    expect(long.endTemperatureC).toBeCloseTo(twelve.endTemperatureC!, 9);
    const settled = duty({ profile, repeat: 400 }).result;
    const later = duty({ profile, repeat: 900_000 }).result;
    expect(later.peakTemperatureC).toBeCloseTo(settled.peakTemperatureC!, 6);
    expect(later.curve.length).toBeLessThanOrEqual(400);
    expect(later.curve.at(-1)![0]).toBeCloseTo(180 * 900_000, 0);
    const times = later.curve.map(([timeS]) => timeS);
    expect(times).toEqual([...times].sort((a, b) => a - b));
  });

  test('the peak lies on the curve that is handed out', () => {
    const { peakTemperatureC, curve } = duty({
      profile: [
        [5, 500],
        [600, 20],
      ],
      repeat: 40,
    }).result;
    expect(Math.max(...curve.map(([, t]) => t))).toBe(peakTemperatureC);
  });

  test('beyond 400 °C the run stops: no figures, only that it is over', () => {
    const { result, findings } = duty({ profile: [[600, 1500]], repeat: 2 });
    expect(result).toMatchObject({ peakTemperatureC: null, endTemperatureC: null, overLimit: true });
    expect(result.rmsA).toBe(1500);
    expect(findings.map(({ rule: { id } }) => id)).toEqual(['cable-duty.beyond-400']);
    expect(duty({ profile: [[240, 430]], repeat: 1 }).findings.map(({ rule: { id } }) => id)).toEqual([
      'cable-duty.over-limit',
    ]);
  });

  test('currents count by magnitude; parallel and grouped conductors share as in the cable', () => {
    const once = duty({ profile: [[300, -200]], repeat: 3 }).result;
    expect(duty({ profile: [[300, 400]], repeat: 3, parallel: 2 }).result.endTemperatureC).toBeCloseTo(
      once.endTemperatureC!,
      9,
    );
    expect(duty({ profile: [[300, 160]], repeat: 3, grouped: 2 }).result.endTemperatureC).toBeCloseTo(
      once.endTemperatureC!,
      9,
    );
  });

  test('a thicker cable of the same insulation is never hotter', () => {
    const insulationMm = 2;
    const sizes = [10, 16, 25, 35, 50, 70].map((areaMm2) => {
      const conductorDiameterMm = Math.sqrt(areaMm2 / 0.5 / Math.PI) * 2;
      return {
        areaMm2,
        conductorDiameterMm,
        outerDiameterMm: conductorDiameterMm + 2 * insulationMm,
      };
    });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 0, max: 130 })), {
          minLength: 1,
          maxLength: 6,
        }),
        fc.constantFrom(1, 2, 3),
        (profile, grouped) => {
          const peaks = sizes.map(
            (size) => duty({ ...size, profile, repeat: 3, grouped }).result.peakTemperatureC ?? 401,
          );
          for (let i = 1; i < peaks.length; i += 1)
            expect(peaks[i]!).toBeLessThanOrEqual(peaks[i - 1]! + 1e-6);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('work beyond the budget is refused at the field that drives it', () => {
    expect(issuesOf({ repeat: 1e9 })).toEqual(['repeat']);
    expect(issuesOf({ repeat: 1.5 })).toEqual(['repeat']);
    expect(issuesOf({ profile: Array.from({ length: 20_000 }, () => [1e7, 1]) })).toEqual(['profile']);
    expect(issuesOf({ profile: [[0, 1]] })).toEqual(['profile.0.0']);
    expect(issuesOf({})).toEqual([]);
  });
});

const bar: BusbarInput = {
  widthMm: 25,
  thicknessMm: 3,
  lengthMm: 140,
  currentA: 240,
  ambientC: 35,
  emissivity: 0.3,
  holeDiameterMm: 0,
  material: 'copper',
};
function solve(change: Partial<BusbarInput>) {
  const parsed = busbar.parse({ ...bar, ...change });
  if (!parsed.ok) throw new Error(JSON.stringify(parsed.issues));
  return busbar.calculate(parsed.input);
}

describe('a bus bar', () => {
  test('over 2000 bars what is lost is what leaves, to a millionth', () => {
    fc.assert(
      fc.property(
        fc.record({
          widthMm: fc.double({ min: 8, max: 120, noNaN: true }),
          thicknessMm: fc.double({ min: 1, max: 12, noNaN: true }),
          currentA: fc.double({ min: 1, max: 1500, noNaN: true }),
          ambientC: fc.double({ min: -40, max: 120, noNaN: true }),
          emissivity: fc.double({ min: 0.03, max: 0.95, noNaN: true }),
          material: fc.constantFrom('copper' as const, 'aluminium' as const),
        }),
        (made) => {
          const { temperatureC, resistanceOhm } = solve(made).result;
          const input = { ...bar, ...made };
          if (temperatureC === null) {
            expect(input.currentA ** 2 * busbarOhmPerM(input, 400)).toBeGreaterThan(
              busbarHeatPerM(input, 400),
            );
            return;
          }
          const lossW = input.currentA ** 2 * busbarOhmPerM(input, temperatureC);
          expect(Math.abs(busbarHeatPerM(input, temperatureC) - lossW)).toBeLessThan(1e-6 * lossW);
          expect(resistanceOhm!).toBeCloseTo(busbarOhmPerM(input, temperatureC) * 0.14, 15);
        },
      ),
      { numRuns: 2000 },
    );
  });
  test('no current: at ambient, with its resistance there', () => {
    expect(solve({ currentA: 0 }).result).toMatchObject({ temperatureC: 35, lossW: 0 });
  });
  test('a hole that takes more than a third is said; one as wide as the bar is refused', () => {
    expect(solve({ holeDiameterMm: 8.4 }).findings.map(({ rule: { id } }) => id)).toEqual([
      'busbar.hole-takes-section',
    ]);
    expect(solve({ holeDiameterMm: 8.3 }).findings).toEqual([]);
    expect(busbar.parse({ ...bar, holeDiameterMm: 25 })).toMatchObject({
      ok: false,
      issues: [{ path: 'holeDiameterMm' }],
    });
  });
  test('too much current: no temperature, no resistance, no loss, a finding', () => {
    const { result, findings } = solve({ currentA: 5000 });
    expect(result).toMatchObject({ temperatureC: null, resistanceOhm: null, lossW: null });
    expect(findings.map(({ rule: { id } }) => id)).toEqual(['busbar.no-balance']);
  });
});
