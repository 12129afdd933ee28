import { expect, test } from '@jest/globals';
import { emptyHold, holdText, readHold } from './hold';

const typed = {
  ...emptyHold,
  startKPaGauge: '150',
  startC: '24',
  endKPaGauge: '147,2',
  endC: '21.5',
  minutes: '30',
};

test('a hold is read field by field; the barometer may be left out', () => {
  expect(readHold(typed)).toEqual({
    ok: true,
    measured: {
      kind: 'hold',
      startKPaGauge: 150,
      startC: 24,
      endKPaGauge: 147.2,
      endC: 21.5,
      minutes: 30,
      unit: 'kPa',
    },
  });
  expect(readHold({ ...typed, startKPaGauge: '1.5 bar', endAtmosphereKPa: '99.8' })).toMatchObject({
    measured: { startKPaGauge: 150, minutes: 30, endAtmosphereKPa: 99.8 },
  });
});
test('what cannot be read is named by its field and end', () => {
  expect(readHold({ ...typed, endC: 'warm' })).toMatchObject({
    ok: false,
    message: expect.stringMatching(/^Temperature then \(at the end\): /),
  });
  expect(readHold({ ...typed, startKPaGauge: '' })).toMatchObject({
    ok: false,
    message: expect.stringMatching(/^Gauge at the beginning/),
  });
  expect(readHold({ ...typed, minutes: '0' })).toEqual({ ok: false, message: 'Held for: above 0 minutes.' });
});
test('a reading of an instrument stands as it would be typed', () => {
  const read = readHold(typed);
  expect(read.ok && holdText(read.measured)).toEqual({ ...typed, endKPaGauge: '147.2' });
});
