import { expect, test } from '@jest/globals';
import { blankDesign } from '../../model/document';
import { procedureFor } from '../commissioning';
import { assess } from './assess';
import { evaluate } from './evaluate';
import { liveStateOf } from './live-state';
import { overviewOf, nextOf } from './overview';

const of = (design: ReturnType<typeof blankDesign>) => {
  const evaluation = evaluate(design);
  return { evaluation, assessment: assess(evaluation, procedureFor(design, evaluation), []) };
};

test('an empty job asks for what is not given, at the first station', () => {
  const design = blankDesign();
  const { evaluation, assessment } = of(design);
  const next = nextOf(evaluation, assessment)!;
  expect(next.station).toBe('brief');
  expect(next.at).toMatch(/^vehicle\.|^masses/);
  expect(next.text).toMatch(/is not given$/);
});

test('counts what is open and draws boxes whose place and size are known', () => {
  const design = blankDesign();
  design.vehicle = { ...design.vehicle, wheelbaseM: 3 };
  design.boxes = {
    known: { tag: 'Known', xM: -1, zM: 0.5, lengthM: 1, heightM: 0.4 },
    unknown: { tag: 'Unknown', xM: -1 },
  };
  const { evaluation, assessment } = of(design);
  const overview = overviewOf(design, evaluation, assessment, liveStateOf(design, null, []));
  expect(overview.boxes).toEqual([{ tag: 'Known', xM: -1, zM: 0.5, lengthM: 1, heightM: 0.4 }]);
  expect(overview.vehicle).toEqual({ wheelbaseM: 3 });
  expect(overview.live).toEqual({ shape: 'unknown', text: 'State not recorded', detail: 'treat as live' });
  const grades = assessment.findings.map(({ check }) => check.grade);
  expect([overview.stops, overview.mends]).toEqual(
    ['stop', 'mend'].map((grade) => grades.filter((one) => one === grade).length),
  );
});
