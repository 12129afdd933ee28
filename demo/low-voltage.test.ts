import { describe, expect, test } from '@jest/globals';
import { evaluate } from '@torvek/core/design';
import type { Design } from '@torvek/core/document';
import {
  everyTagged,
  mainCircuit,
  removeColour,
  removeLoad,
  removeLoomEnd,
  removeWire,
} from '@torvek/core/document';
import type { FigureId } from '@torvek/core/figure';
import { cable } from '@torvek/core/conductor';
import { catalogueOf } from '@torvek/core/parts';
import { pin } from '@torvek/core/pack';
import { continuitySheet, feedGroups, lowVoltageSystem, sameColour } from '@torvek/core/low-voltage';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';
import { changed } from './rule-cases';

const bus = libraryBus.design;
const evaluated = evaluate(bus);
const value = (design: Design, id: string) =>
  (design === bus ? evaluated : evaluate(design)).figures[id as FigureId]?.value ?? null;
const loads = Object.values(bus.loads!);
/** The charge controller: 15 mA asleep, 360 mA awake, and nobody types it. */
const controller = [
  { when: 'always' as const, powerW: 0.015 * 27.6 },
  { when: 'charging' as const, powerW: 0.345 * 27.6 },
];
const watts = (which: (load: (typeof loads)[number]) => boolean) =>
  [...loads, ...(controller as typeof loads)]
    .filter(which)
    .reduce((sum, one) => sum + one.powerW! * (one.dutyFraction ?? 1), 0);
const budget = (name: string, design = bus) => value(design, `low-voltage.budget:vehicle:${name}`);

describe('a feed beyond the table of wires', () => {
  // It keeps its power: 6 kW at 25.6 V or less are more than any wire of 35 mm² carries.
  const strong = (more: object = {}) =>
    changed((draft) => {
      Object.assign(draft.loads!['load-steering']!, { powerW: 6000, lengthM: 3, returnLengthM: 1, ...more });
      delete draft.loads!['load-steering']!.wire;
    });
  const of = (name: string, design: Design) => value(design, `low-voltage.load:load-steering:${name}`);
  const state = (rule: string, design: Design) =>
    evaluate(design).checks.find(
      ({ rule: one, subjects }) => one.id === rule && subjects.includes('load-steering'),
    )?.state;

  test('is computed as cables are: the thinnest that carries it and drops no more than allowed', () => {
    const design = strong();
    const areaMm2 = of('areaMm2', design)!;
    expect([50, 70]).toContain(areaMm2);
    const currentA = of('currentA', design)!;
    expect(currentA).toBeGreaterThan(200);
    const carries = (mm2: number) => {
      const { data } = catalogueOf('cable')
        .filter((one) => one.data.areaMm2 === mm2)
        .sort((a, b) => b.data.conductorMaxC - a.data.conductorMaxC)[0]!;
      const { massKgPerM: _mass, ...own } = data;
      const asked = { ...own, ambientC: 45, lengthM: 2, currentA, install: 'free-air' as const };
      const parsed = cable.parse({ ...asked, grouped: 2, busVoltageV: 27.6 });
      return parsed.ok ? cable.calculate(parsed.input) : null;
    };
    expect(carries(areaMm2)!.result.ampacityA).toBeGreaterThan(currentA);
    expect(of('dropV', design)).toBeCloseTo(carries(areaMm2)!.result.voltageDropV!, 1);
    expect(of('dropV', design)).toBeLessThan(0.03 * 27.6);
    expect(of('fuseA', design)).toBeGreaterThanOrEqual(currentA);
    expect(state('wire-12v.none-fits', design)).toBe('clear');
    // So far away none does: that is said.
    expect(state('wire-12v.none-fits', strong({ lengthM: 60 }))).toBe('raised');
  });

  test('a chosen cable is judged by its own heat, and by what its length drops', () => {
    const cableOf = (areaMm2: number) => (draft: Design) =>
      pin(
        draft,
        catalogueOf('cable').find(({ data }) => data.areaMm2 === areaMm2)!,
      );
    const chosen = (areaMm2: number, lengthM = 3) =>
      changed((draft) => {
        const load = draft.loads!['load-steering']!;
        Object.assign(load, { powerW: 6000, lengthM, returnLengthM: 1, cable: cableOf(areaMm2)(draft) });
      });
    expect(state('low-voltage.wire-thin', chosen(120))).toBe('clear');
    expect(state('low-voltage.wire-thin', chosen(25))).toBe('raised');
    expect(state('low-voltage.wire-thin', chosen(70, 14))).toBe('raised');
    expect(of('dropV', chosen(120))!).toBeLessThan(of('dropV', chosen(70))!);
  });

  test('a source’s cable of more than 35 mm² carries more than one of 35', () => {
    const carries = (sourceAreaMm2: number) =>
      value(
        changed((draft) => void (draft.lowVoltage!.sourceAreaMm2 = sourceAreaMm2)),
        'low-voltage.source:vehicle:carriesA',
      )!;
    expect(carries(35)).toBeCloseTo(149 * Math.sqrt(50 / 60), 9);
    expect(carries(70)).toBeGreaterThan(carries(50));
    expect(carries(60)).toBe(carries(50));
    expect(carries(120)).toBeLessThan(3 * carries(35));
  });
});

describe('the cable between source and battery', () => {
  const settings = (recipe: (one: NonNullable<Design['lowVoltage']>) => void) =>
    changed((draft) => recipe(draft.lowVoltage!));
  const said = (design: Design, rule: string) => {
    const found = evaluate(design).checks.find((check) => check.rule.id === `low-voltage.${rule}`);
    return found?.state === 'raised' ? found.message : found?.state;
  };

  test('carries by its area and ambient, and drops there and back', () => {
    expect(value(bus, 'low-voltage.source:vehicle:currentA')).toBe(70);
    // 16 mm²: 91 A at 30 °C; insulation for 90 °C at 40 °C.
    expect(value(bus, 'low-voltage.source:vehicle:carriesA')).toBeCloseTo(91 * Math.sqrt(50 / 60), 9);
    expect(value(bus, 'low-voltage.source:vehicle:dropV')).toBeCloseTo(
      (70 * 1.21 * (1 + 0.00393 * 40) * 2 * 2.4) / 1000,
      9,
    );
    expect(value(orchardTruck.design, 'low-voltage.source:vehicle:currentA')).toBe(10);
  });

  test('wants a fuse against each of its two sources', () => {
    expect(said(bus, 'source-ends')).toBe('clear');
    expect(
      said(
        settings((one) => void delete one.batteryFuseA),
        'source-ends',
      ),
    ).toBe('1 of 2 ends has a fuse; at the battery there is none.');
    const none = settings((one) => {
      delete one.batteryFuseA;
      delete one.sourceFuseA;
    });
    expect(said(none, 'source-ends')).toBe(
      '0 of 2 ends has a fuse; at the source and at the battery there is none.',
    );
    // Of a cable that nobody told of nothing is known.
    const unsaid = settings((one) => {
      for (const name of ['batteryFuseA', 'sourceFuseA', 'sourceAreaMm2', 'sourceLengthM'] as const)
        delete one[name];
    });
    expect([said(unsaid, 'source-ends'), said(unsaid, 'source-thin'), said(unsaid, 'source-fuse')]).toEqual([
      'not-checked',
      'not-checked',
      'not-checked',
    ]);
  });

  test('one cause is told once: too thin for the source, too long, or a fuse that does not go with it', () => {
    const thin = settings((one) => void (one.sourceAreaMm2 = 10));
    expect(said(thin, 'source-thin')).toBe('The converter gives 70 A; 10 mm² carry 62.1 A.');
    expect(said(thin, 'source-fuse')).toBe('clear');
    const long = settings((one) => void (one.sourceLengthM = 9));
    expect(said(long, 'source-thin')).toBe(
      'Over 9 m of 16 mm² there and back 1.76 V are lost; 0.828 V are allowed.',
    );
    const wide = settings((one) => void (one.batteryFuseA = 100));
    expect(said(wide, 'source-fuse')).toBe('100 A at the battery on a cable that carries 83.1 A.');
    const small = settings((one) => void (one.sourceFuseA = 60));
    expect(said(small, 'source-fuse')).toBe('60 A at the source for 70 A of the converter.');
    expect([said(wide, 'source-thin'), said(small, 'source-thin')]).toEqual(['clear', 'clear']);
  });

  test('the larger of two sources counts where there are both', () => {
    const both = (mainsChargerA: number) =>
      settings((one) => void Object.assign(one, { school: 'both', mainsChargerA }));
    expect(value(both(40), 'low-voltage.source:vehicle:currentA')).toBe(70);
    expect(said(both(82), 'source-fuse')).toContain('80 A at the source for 82 A of the mains charger');
    // Of one that nobody gave nothing is known, and nothing is called right.
    const half = settings((one) => void (one.school = 'both'));
    expect(value(half, 'low-voltage.source:vehicle:currentA')).toBeNull();
    expect([said(half, 'source-thin'), said(half, 'source-fuse')]).toEqual(['not-checked', 'not-checked']);
  });
});

describe('the budget of the low voltage', () => {
  test('is the sum of power times duty over the voltage of the converter', () => {
    expect(budget('drivingA')).toBeCloseTo(watts(({ when }) => when !== 'charging') / 27.6, 9);
    expect(budget('chargingA')).toBeCloseTo(watts(({ when }) => when !== 'driving') / 27.6, 9);
    expect(budget('parkedA')).toBeCloseTo((26 * 0.02 + 1.8) / 27.6 + 0.015, 9);
    expect(budget('marginA')).toBeCloseTo(70 * 0.8 - budget('drivingA')!, 9);
  });

  test('on the battery alone what keeps its power draws more than while it is fed', () => {
    const amps = loads
      .filter(({ when }) => when !== 'charging')
      .reduce(
        (sum, one) => sum + (one.powerW! * (one.dutyFraction ?? 1)) / (one.steadyPower === true ? 24 : 27.6),
        0.015,
      );
    expect(budget('hoursOnBatteryDriving')).toBeCloseTo((110 * 0.5) / amps, 9);
    expect(budget('daysParked')).toBeCloseTo((110 * 0.5) / ((26 * 0.02) / 24 + 1.8 / 27.6 + 0.015) / 24, 9);
    expect(budget('hoursEssentialOnly')!).toBeGreaterThan(budget('hoursOnBatteryDriving')!);
  });

  test('a charge controller draws asleep for ever and awake while it charges; without one nothing is added', () => {
    const without = changed((draft) => void delete draft.inlets!['inlet-side']!.controller);
    const added = (name: string) => budget(name)! - budget(name, without)!;
    expect(added('parkedA')).toBeCloseTo(0.015, 9);
    expect(added('drivingA')).toBeCloseTo(0.015, 9);
    expect(added('chargingA')).toBeCloseTo(0.36, 9);
    expect(budget('daysParked', without)! / budget('daysParked')!).toBeCloseTo(
      ((26 * 0.02) / 24 + 1.8 / 27.6 + 0.015) / ((26 * 0.02) / 24 + 1.8 / 27.6),
      9,
    );
  });

  test('the largest peak stands on the sum of the mode', () => {
    expect(budget('peakA')).toBeCloseTo(
      (watts(({ when }) => when !== 'charging') + 2100 - 700 * 0.2) / 27.6,
      9,
    );
  });

  test('out of the pack it takes more by the converter’s losses, and less where the mains fill the battery', () => {
    const part = bus.parts[bus.lowVoltage!.converter!]!;
    const { efficiency } = part.data as { efficiency: number };
    expect(efficiency).toBeLessThan(1);
    expect(budget('packW')).toBeCloseTo(budget('drivingW')! / efficiency, 9);
    expect(budget('packW', orchardTruck.design)).toBe(0);
  });

  const said = (design: Design, rule: string) => {
    const found = evaluate(design).checks.find((check) => check.rule.id === rule);
    return found?.state === 'raised' ? found.values : found?.state;
  };
  const peaks = (peakW: number) => changed((draft) => void (draft.loads!['load-air']!.peakW = peakW));
  const battery = bus.parts[bus.lowVoltage!.battery!]!.data as { dischargeA: number; resistanceOhm: number };

  test('of the largest peak the converter gives its share, and the battery the rest', () => {
    const share = 70 * 0.8;
    const wattsAt = (amps: number) => amps * 27.6 - watts(({ when }) => when !== 'charging') + 700 * 0.2;
    expect(said(peaks(wattsAt(battery.dischargeA + share - 1)), 'low-voltage.peak-battery')).toBe('clear');
    expect(said(peaks(wattsAt(battery.dischargeA + share + 1)), 'low-voltage.peak-battery')).toEqual(
      expect.arrayContaining([expect.objectContaining({ label: 'converter gives', value: share })]),
    );
  });

  test('at its peak the battery alone falls by its resistance, at its own voltage', () => {
    const values = said(peaks(25_000), 'low-voltage.peak-sag');
    const peakW = watts(({ when }) => when !== 'charging') + 25_000 - 700 * 0.2;
    const volts = 24 - (peakW / 24) * battery.resistanceOhm;
    expect(values).toEqual(
      expect.arrayContaining([
        expect.objectContaining({ label: 'at the peak', value: expect.closeTo(volts, 6) as unknown }),
      ]),
    );
  });

  test('behind one fuse the smallest of what is given counts', () => {
    const two = changed((draft) => {
      draft.loads!['load-tail']!.fuseA = 3;
      draft.loads!['load-plate']!.fuseA = 15;
    });
    expect(said(two, 'low-voltage.group-fuse')).toEqual(
      expect.arrayContaining([expect.objectContaining({ label: 'fuse', value: 3 })]),
    );
    expect(said(two, 'low-voltage.two-ratings')).toHaveLength(2);
    expect(said(bus, 'low-voltage.two-ratings')).toBe('clear');
  });

  test('a fuse exactly of the current is tight, one below it is too small, one a tenth above it is neither', () => {
    const amps = value(bus, 'low-voltage.load:load-headlamps:currentA')!;
    const states = (fuseA: number) => {
      const design = changed((draft) => void (draft.loads!['load-headlamps']!.fuseA = fuseA));
      const of = (rule: string) =>
        evaluate(design).checks.find(({ key }) => key === `${rule}|load-headlamps`)?.state;
      return [of('low-voltage.fuse-small'), of('low-voltage.fuse-tight')];
    };
    expect(states(amps)).toEqual(['clear', 'raised']);
    expect(states(amps * 0.99)).toEqual(['raised', 'clear']);
    expect(states(amps * 1.11)).toEqual(['clear', 'clear']);
  });

  test('the truck’s battery is filled by the mains alone: it has no converter, and hours to spare', () => {
    const truck = orchardTruck.design;
    expect(budget('marginA', truck)).toBeNull();
    expect(budget('hoursOnBatteryDriving', truck)!).toBeGreaterThan(truck.lowVoltage!.journeyH!);
    expect(
      lowVoltageSystem({ lowVoltage: truck.lowVoltage!, parts: truck.parts, settings: truck.settings }),
    ).toMatchObject({
      nominalV: 12,
      hasConverter: false,
      converterA: null,
      batteryAh: 70,
    });
    expect(
      evaluate(truck).checks.filter(
        ({ rule, state }) => rule.id === 'charging.no-low-voltage' && state === 'raised',
      ),
    ).toEqual([]);
  });

  test('nothing is computed of loads that do not say what they draw, or when', () => {
    const open = changed((draft) => void delete draft.loads!['load-wipers']!.powerW);
    expect(evaluate(open).figures['low-voltage.budget:vehicle:drivingA' as FigureId]!.gaps).toMatchObject([
      { kind: 'not-given', path: 'loads.load-wipers.powerW' },
    ]);
  });
});

describe('wire and fuse of a load', () => {
  test('the tail lamps: 2.2 A over 13 m of 1.5 mm² lose 0.44 V', () => {
    expect(value(bus, 'low-voltage.load:load-tail:currentA')).toBeCloseTo(60 / 27.6, 9);
    expect(value(bus, 'low-voltage.load:load-tail:dropV')).toBeCloseTo(
      ((60 / 27.6) * 13.3 * 1.1572 * 13) / 1000,
      9,
    );
    expect(value(bus, 'low-voltage.load:load-tail:areaMm2')).toBe(1);
    // 1.5 mm² carry 20 A in free air at 30 °C: at 40 °C 18.6 A.
    expect(value(bus, 'low-voltage.load:load-tail:fuseA')).toBe(15);
  });

  test('a steady load draws what it does at the voltage of the battery', () => {
    expect(value(bus, 'low-voltage.load:load-steering:currentA')).toBeCloseTo(950 / 24, 9);
  });

  test('an area that is not in the table is no better than it is', () => {
    const odd = changed((draft) => {
      const part = draft.parts['marl-v1-5@1'];
      if (part?.kind === 'wire') part.data.areaMm2 = 1.4;
    });
    const dropV = value(odd, 'low-voltage.load:load-tail:dropV')!;
    expect(dropV).toBeCloseTo(((60 / 27.6) * ((19.5 * 1) / 1.4) * 1.1572 * 13) / 1000, 9);
    // It carries what 1 mm² does.
    expect(value(odd, 'low-voltage.load:load-tail:fuseA')).toBe(10);
  });
});

test('a load that says nothing of its feed goes by the wire of the looms that carries it', () => {
  const follows = changed((draft) => {
    delete draft.loads!['load-dash']!.lengthM;
    delete draft.loads!['load-dash']!.wire;
  });
  // Wire 121: 1.6 m of 1 mm², and 1.4 m back.
  expect(value(follows, 'low-voltage.load:load-dash:dropV')).toBeCloseTo(
    ((38 / 27.6) * 19.5 * 1.1572 * (1.6 + 1.4)) / 1000,
    9,
  );
  const thin = changed((draft) => {
    delete draft.loads!['load-dash']!.wire;
    draft.loads!['load-dash']!.powerW = 600;
    draft.wires!['wire-121']!.fuseA = 30;
  });
  const found = evaluate(thin).checks.filter(({ state }) => state === 'raised');
  // Too hot is said of the wire, once.
  expect(found.filter(({ rule }) => rule.id === 'looms.wire-hot').map(({ subjects }) => subjects)).toEqual([
    ['wire-121'],
  ]);
  expect(
    found.some(({ rule, subjects }) => rule.id === 'low-voltage.fuse-wide' && subjects[0] === 'load-dash'),
  ).toBe(false);
  const lost = changed((draft) => {
    delete draft.loads!['load-dash']!.lengthM;
    delete draft.bundles!['bundle-dash'];
  });
  expect(value(lost, 'low-voltage.load:load-dash:dropV')).toBeNull();
});

describe('held coils', () => {
  const holdW = (design: Design, key: string) => {
    const part = design.parts[key]!;
    if (part.kind !== 'contactor') throw new Error(`${key} is no contactor`);
    return part.data.coilHoldW;
  };
  const coils = (name: string, design = bus) => value(design, `low-voltage.coils:vehicle:${name}`);
  const said = (design: Design) =>
    evaluate(design).checks.flatMap(({ rule, ...check }) =>
      rule.id.startsWith('low-voltage.coils') && check.state === 'raised' ? [check.message] : [],
    );
  const main = bus.circuits[mainCircuit]!;

  test('are those that are closed together: mains and strings always, the inlet’s while it charges', () => {
    const own = 2 * holdW(bus, main.contactor!) + 4 * holdW(bus, 'hollin-k200@1');
    expect(coils('drivingW')).toBeCloseTo(own, 9);
    expect(coils('chargingW')).toBeCloseTo(own + 2 * holdW(bus, 'hollin-k200@1'), 9);
    const one = changed((draft) => {
      for (const string of Object.values(draft.strings)) string.contactorPoles = 'minus';
    });
    expect(coils('drivingW', one)).toBeCloseTo(own - 2 * holdW(bus, 'hollin-k200@1'), 9);
  });

  test('a load counted with exactly what they hold with is right, a watt less is not', () => {
    const needs = coils('drivingW')!;
    const counted = (powerW: number) =>
      said(changed((draft) => void (draft.loads!['load-coils']!.powerW = powerW)));
    expect(counted(needs)).toEqual([]);
    expect(counted(needs - 1)).toEqual([
      'While driving held coils draw 11 W; what feeds them is counted with 10 W.',
    ]);
  });

  test('a load that goes is named no more; with none named, or a kind unknown, nothing is judged', () => {
    const gone = changed((draft) => removeLoad(draft, 'load-coils-charge'));
    expect(gone.lowVoltage!.coilLoads).toEqual(['load-coils']);
    expect(said(gone)).toEqual(['While charging 0 of 1 loads that feed the coils is on.']);
    const none = changed((draft) => {
      removeLoad(draft, 'load-coils');
      removeLoad(draft, 'load-coils-charge');
    });
    expect(none.lowVoltage).not.toHaveProperty('coilLoads');
    expect(said(none)).toEqual([]);
    const unknown = changed((draft) => void delete draft.strings[Object.keys(draft.strings)[0]!]!.contactor);
    expect(coils('drivingW', unknown)).toBeNull();
  });
});

describe('what could share a wire', () => {
  test('lamps of one switch at one place share the feed; the sum sizes it, the longest way stays', () => {
    const groups = feedGroups({
      loads: bus.loads!,
      lowVoltage: bus.lowVoltage!,
      parts: bus.parts,
      settings: bus.settings,
    });
    const rear = groups.find(({ place, what }) => place === 'rear' && what === 'feed and return')!;
    expect(rear.loads).toEqual(['load-tail', 'load-plate']);
    expect(rear.currentA).toBeCloseTo(80 / 27.6, 9);
    expect(rear.savedM).toBeCloseTo(10.5 + 2.5, 9);
    // A return that belongs to one switch’s loads alone is not offered twice.
    expect(groups.some(({ place, what }) => place === 'rear' && what === 'return')).toBe(false);
    expect(groups.map(({ savedM }) => savedM)).toEqual(
      [...groups.map(({ savedM }) => savedM)].sort((a, b) => b - a),
    );
  });
});

describe('looms', () => {
  const lines = continuitySheet({
    ends: bus.ends!,
    bundles: bus.bundles!,
    wires: bus.wires!,
    adapters: bus.adapters!,
    colours: bus.colours!,
    parts: bus.parts,
  });

  test('each wire finds the shortest way through the bundles', () => {
    const length = (id: string) => value(bus, `looms.wire:wire-${id}:lengthM`);
    expect(length('101')).toBeCloseTo(0.7 + 1.6 + 0.1, 9);
    expect(length('113')).toBeCloseTo(0.8 + 1.6 + 0.9, 9);
    expect(length('201')).toBeCloseTo(3.4 + 0.5, 9);
    const typed = changed((draft) => void (draft.wires!['wire-101']!.lengthM = 2.9));
    expect(value(typed, 'looms.wire:wire-101:lengthM')).toBe(2.9);
    const cut = changed((draft) => void delete draft.bundles!['bundle-nose']);
    expect(value(cut, 'looms.wire:wire-101:lengthM')).toBeNull();
  });

  test('a wire carries the loads that hang on it', () => {
    expect(value(bus, 'looms.wire:wire-121:currentA')).toBeCloseTo((38 + 1.8) / 27.6, 9);
    expect(value(bus, 'looms.wire:wire-131:currentA')).toBeCloseTo(162 / 24, 9);
  });

  test('an adapter stands in the sheet pin for pin, and the colour of the code where a wire has none of its own', () => {
    const through = lines.filter(({ kind }) => kind === 'adapter');
    expect(through.map(({ from, fromPin, to, toPin }) => [from, fromPin, to, toPin])).toEqual([
      ['Dashboard', 1, 'Instruments', 4],
      ['Dashboard', 2, 'Instruments', 1],
      ['Dashboard', 3, 'Instruments', 2],
    ]);
    expect(through[1]!.apartFrom).toEqual(['Dashboard 1', 'Dashboard 3', 'Instruments 2', 'Instruments 4']);
    expect(lines.find(({ wire }) => wire === 'wire-104')!.colour).toBe('black');
    expect(lines.find(({ wire }) => wire === 'wire-101')!.colour).toBe('brown/white');
  });

  test('colours are the same however they are written, and stay when their line of the code goes', () => {
    expect(sameColour('Brown / White', 'brown-white')).toBe(true);
    expect(sameColour('brown/white', 'white/brown')).toBe(false);
    const gone = changed((draft) => removeColour(draft, 'colour-return'));
    expect(gone.wires!['wire-104']).toMatchObject({ colour: 'black' });
    expect(gone.wires!['wire-104']!.code).toBeUndefined();
    // One that differed keeps its own.
    const own = changed((draft) => {
      draft.wires!['wire-104']!.colour = 'brown';
      removeColour(draft, 'colour-return');
    });
    expect(own.wires!['wire-104']!.colour).toBe('brown');
  });

  test('the sheet names both pins and the neighbours that must be parted', () => {
    const feed = lines.find(({ wire }) => wire === 'wire-121')!;
    expect(feed).toMatchObject({ from: 'Fuse box', fromPin: 3, to: 'Dashboard', toPin: 2, areaMm2: 1 });
    expect(feed.lengthM).toBeCloseTo(1.6, 9);
    expect(feed.apartFrom).toEqual(['Dashboard 1', 'Dashboard 3']);
    expect(lines.filter(({ kind }) => kind === 'wire')).toHaveLength(Object.keys(bus.wires!).length);
  });

  test('what goes takes along what named it', () => {
    const gone = changed((draft) => {
      removeLoomEnd(draft, 'end-nose');
      removeLoad(draft, 'load-wipers');
      removeWire(draft, 'wire-201');
    });
    expect(
      Object.values(gone.bundles!).some(({ from, to }) => from === 'end-nose' || to === 'end-nose'),
    ).toBe(false);
    expect(gone.wires!['wire-111']!.carries).toBeUndefined();
    expect(gone.wires!['wire-202']!.twistedWith).toBeUndefined();
    const names = everyTagged(gone);
    expect([names['end-nose'], names['wire-111']?.tag]).toEqual([undefined, '111 Wiper, feed']);
  });
});
