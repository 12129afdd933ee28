import type { InstrumentKind, Role } from '@torvek/core/record';

/** The invented people of the demo shop. They sign in with one click, in demo mode alone. */
export const shopPeople: { id: string; name: string; roles: Role[] }[] = [
  { id: 'person-demo-designer', name: 'Maren Oskarby', roles: ['designer', 'witness'] },
  { id: 'person-demo-technician', name: 'Tobin Halloway', roles: ['technician'] },
  { id: 'person-demo-witness', name: 'Ruan Pellory', roles: ['witness'] },
  { id: 'person-demo-owner', name: 'Sunniva Drell', roles: ['owner'] },
];

/** Everyone's password in the demo: a witness needs one. It opens nothing outside demo mode. */
export const shopPassword = 'torvek-demo';

export const designer = shopPeople[0]!.name;
export const technician = shopPeople[1]!.name;
export const witness = shopPeople[2]!.name;

export interface ShopInstrument {
  id: string;
  kind: InstrumentKind;
  name: string;
  serial: string;
  calibrationDue: string | null;
}

/** The register of instruments; the insulation tester's calibration has run out in between. */
export const shopInstruments: ShopInstrument[] = [
  {
    id: 'instrument-meter-3',
    kind: 'meter',
    name: 'Bench meter, no. 3',
    serial: 'BM 30711',
    calibrationDue: '2027-03-31',
  },
  {
    id: 'instrument-tester-1',
    kind: 'insulation-tester',
    name: 'Insulation tester, no. 1',
    serial: 'IT 0118-4',
    calibrationDue: '2026-11-14',
  },
  {
    id: 'instrument-scope-1',
    kind: 'scope',
    name: 'Two-channel scope with differential probe',
    serial: 'SC 2290',
    calibrationDue: '2027-01-15',
  },
  {
    id: 'instrument-wrench-2',
    kind: 'torque-wrench',
    name: 'Torque wrench, 4 to 50 N·m',
    serial: 'TW 5514',
    calibrationDue: '2027-02-28',
  },
  {
    id: 'instrument-leak-1',
    kind: 'leak-bench',
    name: 'Leak bench with 400 kPa gauge',
    serial: 'LB 0077',
    calibrationDue: '2027-05-31',
  },
  {
    id: 'instrument-flow-1',
    kind: 'flow-meter',
    name: 'Clamp-on flow meter',
    serial: 'FM 4410',
    calibrationDue: '2027-04-30',
  },
  {
    id: 'instrument-probes-1',
    kind: 'thermometer',
    name: 'Eight thermal probes',
    serial: 'TP 118',
    calibrationDue: null,
  },
  {
    id: 'instrument-clamp-1',
    kind: 'clamp-meter',
    name: 'Clamp meter, AC and DC',
    serial: 'CM 8061',
    calibrationDue: '2027-06-30',
  },
  {
    id: 'instrument-supply-1',
    kind: 'charge-tester',
    name: 'Supply tester with pilot and coding',
    serial: 'ST 0042',
    calibrationDue: null,
  },
  {
    id: 'instrument-rule-1',
    kind: 'rule',
    name: 'Steel rule, tape and ball gauges',
    serial: 'SR 14',
    calibrationDue: null,
  },
];

/** Lengths are read with it. */
export const rule = { id: 'instrument-rule-1' };

export const [meter, tester, scope, wrench, leakBench, flowMeter, probes] = shopInstruments.map(({ id }) => ({
  id,
})) as [
  { id: string },
  { id: string },
  { id: string },
  { id: string },
  { id: string },
  { id: string },
  { id: string },
];
