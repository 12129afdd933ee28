import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { catalogueOf, type ContactorData } from '../../model/parts';
import { problemsOf } from '../../model/step';
import { contactorNeeds, contactorCriteria, rankContactors, type ContactorPlace } from '.';

const all = catalogueOf('contactor');
const problems = (data: ContactorData, one: ContactorPlace) => problemsOf(contactorCriteria(data, one));
const fuse = catalogueOf('fuse').find(({ id }) => id === 'calderside-f160')!.data;
const place: ContactorPlace = {
  busVoltageV: 400,
  loadA: 120,
  inrushA: 150,
  filled: true,
  faultMinA: 2000,
  faultMaxA: 9000,
  fuse,
  startLowV: 9,
  coilC: 60,
};
const anyPlace = fc.record({
  busVoltageV: fc.double({ min: 12, max: 1000, noNaN: true }),
  loadA: fc.double({ min: 0, max: 600, noNaN: true }),
  inrushA: fc.option(fc.double({ min: 0, max: 2000, noNaN: true })),
  filled: fc.boolean(),
  faultMinA: fc.constant(2000),
  faultMaxA: fc.constant(9000),
  fuse: fc.constantFrom(fuse, null),
  startLowV: fc.double({ min: 6, max: 12, noNaN: true }),
  coilC: fc.double({ min: -20, max: 110, noNaN: true }),
});

describe('contactors ranked for a place', () => {
  test('those that hold come first, the smallest of them first', () => {
    const ranked = rankContactors(all, place);
    const held = ranked.filter(({ fits }) => fits);
    expect(held.length).toBeGreaterThan(1);
    expect(ranked.slice(0, held.length)).toEqual(held);
    const ratings = held.map((one) => all.find(({ label }) => label === one.label)!.data.continuousA);
    expect(ratings).toEqual([...ratings].sort((a, b) => a - b));
    expect(ratings[0]).toBeGreaterThanOrEqual(120);
  });

  test('each reason names what the contactors do and what is asked', () => {
    const { data } = all.find(({ id }) => id === 'hollin-k50')!;
    expect(problems(data, { ...place, busVoltageV: 600, startLowV: 6 })).toEqual([
      'is made for 450 V, the pack reaches 600 V',
      'carries 50 A of the 120 A asked',
      'makes 80 A where 150 A rush in after pre-charge',
      'stands 2000 A for 40.5 ms, the fuse takes 113 ms',
      expect.stringMatching(/^pulls in at .* V when its coil is at 60 °C, a start may leave 6 V$/),
    ]);
  });

  test('what is not known is not held against them', () => {
    const { data } = all.find(({ id }) => id === 'hollin-k50')!;
    const open = { ...place, loadA: 10, inrushA: null, fuse: null, faultMinA: null, faultMaxA: null };
    expect(problems(data, open)).toEqual([]);
  });

  test('a harder place never has fewer faults', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...all),
        anyPlace,
        fc.double({ min: 1, max: 3, noNaN: true }),
        ({ data }, one, k) => {
          const harder = {
            ...one,
            busVoltageV: one.busVoltageV * k,
            loadA: one.loadA * k,
            inrushA: one.inrushA === null ? null : one.inrushA * k,
            startLowV: one.startLowV / k,
          };
          expect(problems(data, harder).length).toBeGreaterThanOrEqual(problems(data, one).length);
        },
      ),
    );
  });

  test('what a fitting one needs is said in numbers', () => {
    expect(contactorNeeds(place)).toEqual([
      '400 V DC or more',
      'to carry 120 A',
      'to make 150 A',
      'to stand 9000 A until the fuse has cleared',
      'to pull in at 9 V with coils of 60 °C',
    ]);
  });
});
