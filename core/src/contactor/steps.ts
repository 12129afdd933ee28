import { switchedCircuits, type Id } from '../document';
import { figureId, type Check, type Figure, type Gap } from '../figure';
import { partKey, type PartOf } from '../parts';
import { mainBus, busOf } from '../precharge';
import { formatNumber } from '../quantity';
import { gapsBehind, judge, type Reader, type StepDefinition } from '../step';
import { contactorNeeds, contactorProblems, rankContactors, type ContactorPlace } from './choose';
import { coilDefaults, coilStep } from './coil';
import { contactorRules as rules } from './rules';
import { shortTimeStep } from './short-time';

/** What flows when the contactors of a circuit close, or null where nothing has to be filled. */
function inrushOf(subject: Id, read: Reader): Figure | null {
  const filled = read.figure(figureId('precharge.run', subject, 'inrushA'));
  if (busOf({ circuits: read.at('circuits') }, subject) === mainBus || filled.value !== null) return filled;
  const direct = read.figure(figureId('precharge.direct', subject, 'inrushA'));
  if (direct.value !== null || direct.gaps.length > 0) return direct;
  return filled.gaps.length > 0 ? filled : null;
}

/** The contactors against voltage, load, inrush and fault. */
const contactorStep: StepDefinition = {
  id: 'contactor.main',
  version: 1,
  subjects: switchedCircuits,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const part = circuit.contactor === undefined ? undefined : read.at('parts', circuit.contactor);
    const chosen = part?.kind === 'contactor' ? part : null;
    const missing: Gap[] =
      chosen === null
        ? [{ kind: 'not-given', path: `circuits.${subject}.contactor`, label: 'contactors' }]
        : [];
    const voltage = read.figure(figureId('pack.pack', 'pack', 'voltageMaxV'));
    const load = read.figure(figureId('network.load', subject, 'rmsA'));
    const inrush = inrushOf(subject, read);
    const largest = read.figure(figureId('fuse.fault', `${subject}/largest`, 'prospectiveA'));
    const smallest = read.figure(figureId('fuse.fault', `${subject}/smallest`, 'prospectiveA'));
    const compare = (
      which: keyof typeof rules,
      figure: Figure,
      limit: number,
      unit: string,
      name: string,
      what: string,
    ) => {
      const gaps = [...missing, ...(figure.value === null ? gapsBehind(figure) : [])];
      const value = figure.value ?? 0;
      const message =
        value > limit
          ? `${name} ${formatNumber(value)} ${unit}; the contactors ${what} ${formatNumber(limit)} ${unit}.`
          : null;
      return judge(rules[which], [subject], gaps, message, [
        { label: figure.label, value, unit },
        { label: 'rating', value: limit, unit },
      ]);
    };
    const data = chosen?.data;
    const fuse = circuit.fuse === undefined ? undefined : read.at('parts', circuit.fuse);
    const settings = read.at('settings');
    const place: ContactorPlace | null =
      voltage.value === null || load.value === null
        ? null
        : {
            busVoltageV: voltage.value,
            loadA: load.value,
            inrushA: inrush?.value ?? null,
            faultMinA: smallest.value,
            faultMaxA: largest.value,
            fuse: fuse?.kind === 'fuse' ? fuse.data : null,
            startLowV: settings.startLowV ?? coilDefaults.startLowV,
            coilC: settings.coilC ?? coilDefaults.coilC,
          };
    const unknown = [voltage, load].flatMap((figure) => (figure.value === null ? gapsBehind(figure) : []));
    return {
      figures: [],
      checks: [
        compare('voltage', voltage, data?.ratedVoltageV ?? 0, 'V', 'The pack reaches', 'are made for'),
        compare('carry', load, data?.continuousA ?? 0, 'A', 'The load is', 'carry'),
        ...(inrush === null
          ? []
          : [
              compare(
                'make',
                inrush,
                data?.makeA ?? 0,
                'A',
                inrush.id.startsWith('precharge.direct')
                  ? 'Without pre-charge the inrush is'
                  : 'The inrush after pre-charge is',
                'make',
              ),
            ]),
        compare('faultBreak', largest, data?.breakA ?? 0, 'A', 'The largest fault is', 'break'),
        judge(
          rules.noAux,
          [subject],
          [
            ...missing,
            ...(chosen !== null && data?.auxContact === undefined
              ? [
                  {
                    kind: 'not-given' as const,
                    path: `circuits.${subject}.contactor`,
                    label: 'auxiliary contact of the contactor',
                  },
                ]
              : []),
          ],
          data?.auxContact === false
            ? `${chosen?.label} has no auxiliary contact; ${formatNumber(data.continuousA)} A may go on flowing unseen.`
            : null,
          [{ label: 'auxiliary contact', value: data?.auxContact === true ? 1 : 0, unit: '' }],
        ),
        judgeChosen(subject, read, chosen, place, [...missing, ...unknown]),
      ],
      ...(place !== null && { run: { calculator: 'contactor', input: place, result: null } }),
    };
  },
};

function judgeChosen(
  subject: Id,
  read: Reader,
  chosen: PartOf<'contactor'> | null,
  place: ContactorPlace | null,
  gaps: Gap[],
): Check {
  if (gaps.length > 0 || chosen === null || place === null) return judge(rules.chosen, [subject], gaps, null);
  const values = [
    { label: 'highest pack voltage', value: place.busVoltageV, unit: 'V' },
    { label: 'load', value: place.loadA, unit: 'A' },
  ];
  const reasons = contactorProblems(chosen.data, place);
  if (reasons.length === 0) return judge(rules.chosen, [subject], [], null, values);
  const all = rankContactors(read.parts('contactor'), place).filter((one) => one.partKey !== partKey(chosen));
  const message = `${chosen.label} ${reasons.join('; ')}.`;
  const direct =
    place.inrushA !== null && place.inrushA > chosen.data.makeA && !read.at('circuits', subject, 'resistor');
  const said = direct
    ? `${message} A pre-charge resistor of its own takes that inrush away.`
    : all.some(({ fits }) => fits)
      ? message
      : `${message} Nothing in the library fits: contactors here need ${contactorNeeds(place).join(', ')}.`;
  return judge(rules.chosen, [subject], [], said, values, all.slice(0, 4));
}

export const contactorSteps: StepDefinition[] = [contactorStep, shortTimeStep, coilStep];
