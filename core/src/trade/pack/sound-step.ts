import type { CheckValue, Rule } from '../../ground/finding';
import { figureId, type Check, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import {
  everyCircuit,
  mainCircuit,
  packDefaults,
  settingsDefaults,
  type Design,
  type Id,
  type StringItem,
} from '../../model/document';
import { gapsBehind, judge, type StepDefinition } from '../../model/step';
import { interpolate } from '../../ground/math';
import { readPackLayout } from './layout';
import { soundRules } from './sound-rules';

const n = formatNumber;

/** The pack as one thing: whether what is asked of its modules is within what they are. */
export const soundStep: StepDefinition = {
  id: 'pack.sound',
  version: 1,
  subjects: () => ['pack'],
  compute(subject, read) {
    const pack = read.at('pack');
    const { layout, gaps } = readPackLayout(read);
    const data = layout?.part.data ?? null;
    const circuits = read.at('circuits');
    const devices = read.at('devices');
    // Charging flows at other times than driving does.
    const driving = everyCircuit({ circuits }).filter((id) => {
      const kind = devices[circuits[id]!.device ?? '']?.kind;
      return kind !== 'charger' && kind !== 'dc-inlet';
    });
    const loads = driving.map((id) => read.figure(figureId('network.load', id, 'rmsA')));
    const known = loads.filter(({ value }) => value !== null);
    const loadA = known.reduce((sum, { value }) => sum + value!, 0);
    const main = read.figure(figureId('network.load', mainCircuit, 'rmsA'));
    const carries = (data?.continuousA ?? 0) * (layout?.strings ?? 0);
    const peak = read.figure(figureId('network.load', mainCircuit, 'peakA'));
    const noPeak: Gap[] =
      pack.peakCurrentA === undefined
        ? [{ kind: 'not-given', path: 'pack.peakCurrentA', label: 'peak current' }]
        : [];
    const high = pack.socHighFraction;
    const topV = data === null || high === undefined ? 0 : interpolate(data.cell.ocvTable, high);
    const moduleV = data === null ? 0 : data.cellsInSeries * data.cell.maxV;
    const touchV = read.at('settings', 'touchLimitV') ?? settingsDefaults.touchLimitV;
    const warm = pack.warmResistanceFactor ?? packDefaults.warmResistanceFactor;
    const cold = pack.coldResistanceFactor ?? packDefaults.coldResistanceFactor;
    const peakAt = pack.socForPeakFraction;
    // Without a window there is no within and no outside.
    const usable = read.figure(figureId('pack.pack', 'pack', 'usableEnergyKWh'));
    const [low = 0, top = 1] = [pack.socLowFraction, high];
    const value = (label: string, is: number, unit: string): CheckValue => ({ label, value: is, unit });
    return {
      figures: [],
      checks: [
        judge(
          soundRules.continuous,
          [subject],
          [...gaps, ...(main.value === null ? gapsBehind(main) : [])],
          loadA > carries
            ? `Driving asks for ${n(loadA)} A over its period; ${n(layout?.strings ?? 0)} strings of modules carry ${n(carries)} A for long.`
            : null,
          [
            value('load, all that drives', loadA, 'A'),
            value('modules carry', carries, 'A'),
            value('strings', layout?.strings ?? 0, ''),
          ],
        ),
        judge(
          soundRules.overPeak,
          [mainCircuit],
          [...noPeak, ...(peak.value === null ? gapsBehind(peak) : [])],
          (peak.value ?? 0) > (pack.peakCurrentA ?? Infinity) * 1.001
            ? `The load rises to ${n(peak.value!)} A; the pack is judged at ${n(pack.peakCurrentA!)} A.`
            : null,
          [
            value('load, peak', peak.value ?? 0, 'A'),
            value('peak current of the pack', pack.peakCurrentA ?? 0, 'A'),
          ],
        ),
        judge(
          soundRules.cellTable,
          [subject],
          gaps,
          data !== null && topV > data.cell.maxV * 1.0001
            ? `Full to ${n((high ?? 0) * 100)} % a cell rests at ${n(topV, 4)} V; it stands ${n(data.cell.maxV, 4)} V.`
            : null,
          [
            value('top of the window', high ?? 0, 'fraction'),
            value('cell at the top of the window', topV, 'V'),
            value('highest of a cell', data?.cell.maxV ?? 0, 'V'),
          ],
        ),
        judge(
          soundRules.touch,
          [subject],
          gaps,
          moduleV > touchV ? `One module reaches ${n(moduleV)} V; the touch limit is ${n(touchV)} V.` : null,
          [value('one module', moduleV, 'V'), value('touch limit', touchV, 'V')],
        ),
        judge(
          soundRules.warmOverCold,
          [subject],
          gaps,
          warm > cold ? `Warm ${n(warm)} times, cold ${n(cold)} times the resistance given.` : null,
          [value('warm', warm, ''), value('cold', cold, '')],
        ),
        judge(
          soundRules.peakOutside,
          [subject],
          [...gaps, ...(usable.value === null ? gapsBehind(usable) : [])],
          peakAt !== undefined && (peakAt < low || peakAt > top)
            ? `The peak is judged at ${n(peakAt * 100)} %; the window goes from ${n(low * 100)} to ${n(top * 100)} %.`
            : null,
          [
            value('judged at', peakAt ?? 0, 'fraction'),
            value('bottom', low, 'fraction'),
            value('top', top, 'fraction'),
          ],
        ),
      ],
    };
  },
};

/** Each string: alike in itself, and not empty. */
export const alikeStep: StepDefinition = {
  id: 'pack.alike',
  version: 1,
  subjects: () => ['strings'],
  compute(_subject, read): { figures: []; checks: Check[] } {
    const strings = Object.entries(read.at('strings'));
    const modules = read.at('modules');
    const parts = read.at('parts');
    return {
      figures: [],
      checks: [
        ...strings.flatMap(([id, string]) => alikeChecks(id, string, modules, parts)),
        ...(strings.length === 0 ? [] : [typicalCheck(modules, parts)]),
      ],
    };
  },
};

function alikeChecks(
  subject: Id,
  string: StringItem,
  modules: Design['modules'],
  parts: Design['parts'],
): Check[] {
  const kinds = new Map(
    string.modules.flatMap((id) => {
      const part = parts[modules[id]?.part ?? ''];
      return part?.kind === 'module' ? [[modules[id]!.part, part] as const] : [];
    }),
  );
  const all = [...kinds.values()];
  const words = (of: (part: (typeof all)[number]) => string) => [...new Set(all.map(of))];
  const differ = [
    words(({ data }) => data.chemistry),
    words(({ data }) => `${n(data.cell.capacityAh * data.cellsInParallel)} Ah`),
    words(({ data }) => `cells up to ${n(data.cell.maxV, 4)} V`),
  ].filter((one) => one.length > 1);
  return [
    judge(
      soundRules.unlike,
      [subject],
      [],
      differ.length > 0 ? `${string.tag} mixes ${differ.map((one) => one.join(' and ')).join('; ')}.` : null,
      all.flatMap(({ data }, i): CheckValue[] => [
        {
          label: `capacity, kind ${i + 1}`,
          value: data.cell.capacityAh * data.cellsInParallel,
          unit: 'Ah',
        },
        { label: `highest of a cell, kind ${i + 1}`, value: data.cell.maxV, unit: 'V' },
      ]),
    ),
    judge(
      soundRules.empty,
      [subject],
      [],
      string.modules.length === 0 ? `${string.tag} has 0 modules.` : null,
      [{ label: 'modules', value: string.modules.length, unit: '' }],
    ),
  ];
}

/** Kinds of which no more than the label is known, and how many modules are of them. */
function typicalCheck(modules: Design['modules'], parts: Design['parts']): Check {
  const of = Object.entries(modules).map(([id, { tag, part }]) => ({ id, tag, key: part, own: parts[part] }));
  const known = of.filter(({ own }) => own?.kind === 'module' && own.data.typical === true);
  const labels = [...new Set(known.map(({ own }) => own!.label))];
  const unsaid = of.flatMap(({ id, tag, own }): Gap[] =>
    own?.kind === 'module'
      ? []
      : [{ kind: 'not-given', path: `modules.${id}.part`, label: `kind of ${tag}` }],
  );
  return judge(
    soundRules.typical,
    ['pack'],
    known.length > 0 ? [] : unsaid,
    known.length > 0
      ? `Of ${labels.join(' and ')} only the label is known, and ${known.length} ${known.length === 1 ? 'module is' : 'modules are'} of that.`
      : null,
    [{ label: 'modules known by their label', value: known.length, unit: '' }],
    { parts: [...new Set(known.map(({ key }) => key))] },
  );
}

/** Modules that stand nowhere; nothing of it while there are no strings yet. */
export const standingStep: StepDefinition = {
  id: 'pack.standing',
  version: 1,
  subjects: (design) => (Object.keys(design.strings).length > 0 ? ['modules'] : []),
  compute(_subject, read): { figures: []; checks: Check[] } {
    const modules = Object.entries(read.at('modules'));
    const strung = new Set(Object.values(read.at('strings')).flatMap((string) => string.modules));
    const boxes = Object.keys(read.at('boxes')).length;
    const loose = modules.filter(([id]) => !strung.has(id));
    const boxless = boxes === 0 ? [] : modules.filter(([, { box }]) => box === undefined);
    const all = { label: 'modules', value: modules.length, unit: '' };
    const places = { label: 'boxes', value: boxes, unit: '' };
    return {
      figures: [],
      checks: [
        ...each(
          soundRules.loose,
          loose,
          all,
          (tag) => `${tag}, of ${modules.length} modules, stands in no string.`,
        ),
        ...each(soundRules.boxless, boxless, places, (tag) => `${tag} lies in none of the ${boxes} boxes.`),
      ],
    };
  },
};

/** A finding for each of these, or one that is clear for all. */
function each(
  of: Rule,
  those: [string, { tag: string }][],
  value: CheckValue,
  say: (tag: string) => string,
): Check[] {
  if (those.length === 0) return [judge(of, ['pack'], [], null, [value])];
  return those.map(([id, { tag }]) => judge(of, [id], [], say(tag), [value]));
}
