import { figureId, type Check, type Figure, type Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { coolingDefaults, occupied } from '../../model/document';
import { gapsBehind, Inputs, judge, type StepDefinition } from '../../model/step';
import { readPackLayout } from '../pack';
import { packLowest } from '../pack';
import { heatersOf, massOf, type HeaterIn } from './box-heaters';
import { wallsOf } from './box-walls';
import { cellLimits } from '../charging';
import { heaterAtVoltage, heaterRules, type HeaterAtVoltageResult } from './heater-at-voltage';
import { coolingRules } from './rules';
import { warmUp, warmUpRules } from './warm-up';

const n = formatNumber;
/** What a 12 V or mains heater gets, V. */
const otherBusV = { '12 V': 13.8, mains: 230 };

/** How a box of modules keeps its warmth, and what warms it on the coldest night. */
export const boxStep: StepDefinition = {
  id: 'cooling.box',
  version: 1,
  subjects: (design) => (design.cooling === undefined ? [] : occupied(design)),
  compute(subject, read) {
    const box = read.at('boxes', subject)!;
    const { tag } = box;
    const at = `boxes.${subject}`;
    const cooling = read.at('cooling') ?? {};
    const coldC = cooling.coldC ?? coolingDefaults.coldC;
    const { layout, gaps: noLayout } = readPackLayout(read);
    const { chargeMinC, maxC } = cellLimits(cooling, layout?.part.data.chemistry);
    const modules = read.at('modules');
    const inside = Object.keys(modules).filter((id) => modules[id]!.box === subject);
    const massKg = massOf({ modules, parts: read.at('parts') }, inside);

    const ua = wallsOf(subject, read);

    const heaters = heatersOf(subject, inside, maxC, read);
    const low = read.figure(packLowest);
    const high = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const heaterGaps: Gap[] = [];
    const atVoltage = (heater: HeaterIn, busV: number | null): HeaterAtVoltageResult | null => {
      if (busV === null) return null;
      const { ratedW, ratedMinV, ratedMaxV, element } = heater.data;
      const parsed = heaterAtVoltage.parse({ ratedW, ratedMinV, ratedMaxV, busV, kind: element });
      if (parsed.ok) return heaterAtVoltage.calculate(parsed.input).result;
      heaterGaps.push({
        kind: 'invalid',
        path: `${at}.heater`,
        label: `heater of ${tag}`,
        message: parsed.issues[0]!.message,
      });
      return null;
    };
    let heaterW: number | null = 0;
    const stops: { text: string; minV: number }[] = [];
    const over: { tag: string; busV: number; maxV: number }[] = [];
    for (const heater of heaters) {
      const isPack = heater.fed === 'pack';
      const lowV = heater.fed === 'pack' ? low.value : otherBusV[heater.fed];
      const highV = heater.fed === 'pack' ? high.value : otherBusV[heater.fed];
      if (isPack && (lowV === null || highV === null))
        heaterGaps.push(
          ...(low.value === null ? gapsBehind(low) : []),
          ...(high.value === null ? gapsBehind(high) : []),
        );
      const least = atVoltage(heater, lowV);
      const top = atVoltage(heater, highV);
      if (top !== null && !top.allowed)
        over.push({ tag: heater.tag, busV: highV!, maxV: heater.data.ratedMaxV });
      const isStopped = heater.data.stopsBelow && lowV !== null && lowV < heater.data.ratedMinV;
      if (isStopped)
        stops.push({
          text: `the heater of ${heater.tag} stops below ${n(heater.data.ratedMinV)} V; the pack goes down to ${n(lowV)} V`,
          minV: heater.data.ratedMinV,
        });
      const gives =
        heater.measuredW ?? (isStopped ? 0 : (least?.lowW ?? (top !== null && !top.allowed ? 0 : null)));
      const passes = passing(heater);
      heaterW =
        heaterW === null || gives === null || passes === null
          ? null
          : heaterW + Math.min(gives, passes) * heater.share;
    }

    /** What a heater in the coolant brings to cells that are as warm as is asked, coolant at its ceiling, W. */
    function passing({ through }: HeaterIn): number | null {
      if (through === null) return Infinity;
      if (through.wPerK.value === null) {
        heaterGaps.push(...gapsBehind(through.wPerK));
        return null;
      }
      return Math.max(0, through.wPerK.value * (through.ceilingC - chargeMinC));
    }

    const warm = new Inputs(read);
    if (ua.result !== null)
      warm.set('uaToAmbientWPerK', ua.result.uaWPerK, {
        kind: 'figure',
        id: figureId('cooling.box', subject, 'uaWPerK'),
      });
    else warm.missing(...ua.gaps);
    warm.missing(...noLayout, ...heaterGaps);
    warm.set('massKg', massKg, { kind: 'constant', source: `modules in ${tag}` });
    warm.orDefault(
      'specificHeatJPerKgK',
      cooling.cellHeatJPerKgK,
      coolingDefaults.cellHeatJPerKgK,
      'cooling.cellHeatJPerKgK',
      'specific heat of modules',
    );
    const night = {
      kind: cooling.coldC === undefined ? ('default' as const) : ('document' as const),
      path: 'cooling.coldC',
    };
    warm.set('startC', coldC, night, 'coldest night');
    warm.set('ambientC', coldC, night, 'coldest night');
    warm.set(
      'targetC',
      chargeMinC,
      { kind: cooling.cellChargeMinC === undefined ? 'default' : 'document', path: 'cooling.cellChargeMinC' },
      'charged from',
    );
    if (heaterW !== null)
      warm.set('heaterW', heaterW, { kind: 'constant', source: 'heaters at the lowest voltage' }, 'heater');
    const run = warm.run(warmUp);
    const result = run.result;

    const heater: Figure = {
      id: figureId('cooling.box', subject, 'heaterW'),
      label: 'Heaters give at the least',
      unit: 'W',
      value: heaterGaps.length > 0 ? null : heaterW,
      gaps: heaterGaps,
      working: [],
    };
    const isCold = coldC < chargeMinC;
    const temperatures = [
      { label: 'coldest night', value: coldC, unit: '°C' },
      { label: 'charged from', value: chargeMinC, unit: '°C' },
    ];
    const checks: Check[] = [
      judge(
        coolingRules.coldCharge,
        [subject],
        noLayout,
        isCold && heaters.length === 0
          ? `${tag}: ${formatQuantity(coldC, '°C')} in the coldest night, charged from ${formatQuantity(chargeMinC, '°C')}, and no heater.`
          : null,
        [...temperatures, { label: 'heaters', value: heaters.length, unit: '' }],
      ),
      ...(heaters.length === 0
        ? []
        : [
            judge(
              warmUpRules.never,
              [subject],
              run.gaps,
              isCold && result !== null && result.timeS === null
                ? `${tag} ends at ${formatQuantity(result.finalC ?? coldC, '°C')} with ${n(heaterW ?? 0)} W; ${formatQuantity(chargeMinC, '°C')} is asked.`
                : null,
              [
                ...temperatures,
                { label: 'ends at', value: result?.finalC ?? coldC, unit: '°C' },
                { label: 'heaters give', value: heaterW ?? 0, unit: 'W' },
              ],
            ),
            judge(
              heaterRules.over,
              [subject],
              heaterGaps,
              over.length > 0
                ? over
                    .map((one) => `Heater of ${one.tag}: up to ${n(one.busV)} V; made for ${n(one.maxV)} V.`)
                    .join(' ')
                : null,
              over.flatMap((one) => [
                { label: `highest at ${one.tag}`, value: one.busV, unit: 'V' },
                { label: `heater of ${one.tag} made for`, value: one.maxV, unit: 'V' },
              ]),
            ),
            judge(
              coolingRules.heaterStops,
              [subject],
              heaterGaps,
              stops.length > 0 ? `In ${tag} ${stops.map(({ text }) => text).join('; ')}.` : null,
              [
                { label: 'pack at its lowest', value: low.value ?? 0, unit: 'V' },
                ...stops.map(({ minV }) => ({ label: 'stops below', value: minV, unit: 'V' })),
              ],
            ),
          ]),
      judge(
        coolingRules.ventCabin,
        [subject],
        box.ventTo === undefined
          ? [{ kind: 'not-given', path: `${at}.ventTo`, label: `where gas of ${tag} goes` }]
          : [],
        box.ventTo === 'cabin' ? `${tag} with ${n(inside.length)} modules opens into the cabin.` : null,
        [
          { label: 'opens into the cabin', value: box.ventTo === 'cabin' ? 1 : 0, unit: '' },
          { label: 'modules in it', value: inside.length, unit: '' },
        ],
      ),
      ...(box.fan === undefined
        ? []
        : [
            judge(
              coolingRules.fanSealed,
              [subject],
              box.vent === undefined
                ? [{ kind: 'not-given', path: `${at}.vent`, label: `vent of ${tag}` }]
                : [],
              box.vent === undefined || box.vent === 'filtered'
                ? null
                : `${tag} with ${n(inside.length)} modules ${box.vent === 'none' ? 'has no vent' : 'has a vent without a filter'}.`,
              [
                { label: 'filtered vents', value: box.vent === 'filtered' ? 1 : 0, unit: '' },
                { label: 'modules in it', value: inside.length, unit: '' },
              ],
            ),
          ]),
    ];
    return run.output(
      [
        ...ua.figures('cooling.box', subject, [
          { name: 'uaWPerK', symbol: 'UA', label: 'Heat through the walls', unit: 'W/K' },
        ]),
        heater,
        ...run.figures('cooling.box', subject, [
          { name: 'holdW', symbol: 'P_hold', label: 'To hold it warm enough to charge', unit: 'W' },
          { name: 'finalC', symbol: 'T_∞', label: 'It would end at', unit: '°C' },
          { name: 'energyKWh', label: 'Energy to warm it', unit: 'kWh' },
        ]),
        ...run.figures('cooling.box', subject, []).concat(warmFigure()),
      ],
      checks,
    );

    function warmFigure(): Figure {
      const timeS = result === null ? null : result.timeS;
      return {
        id: figureId('cooling.box', subject, 'warmS'),
        label: 'Time to warm it',
        unit: 's',
        value: timeS,
        gaps:
          timeS !== null
            ? []
            : result === null
              ? run.gaps
              : [{ kind: 'never', label: 'Time to warm it: never' }],
        working: timeS === null ? [] : run.working('t'),
      };
    }
  },
};
