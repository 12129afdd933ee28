import { rulesOf } from '../../ground/finding';
import { figureId, type Figure, type Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { boxDefaults } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { filledBox } from './box-content';

const rule = rulesOf('pack');

export const liftRules = {
  weak: rule(
    'lift-weak',
    'mend',
    'A lifting point of a box bears more than it is made for',
    'A box falls on the person who guides it, or is bent when it is caught.',
    'Stronger or more points, upright slings on a spreader, or modules that go in after the box is up. Nobody stands under what hangs.',
    'Mass of the full box on the points that are certain to bear',
  ),
  tips: rule(
    'lift-tips',
    'mend',
    'A box tips when it is lifted by its points',
    'Its weight hangs outside of what holds it: it turns over in the slings.',
    'Move the points, or lift it with its modules spread evenly.',
    'Centre of mass of box and modules between the outer lifting points',
  ),
  none: rule(
    'lift-none',
    'note',
    'A heavy box has nothing to lift it by',
    'What is carried by hand at its edges is set down on fingers and cables.',
    'Give it lifting points, or a way in on rollers and a table.',
    'Practice of the trade: beyond what two people carry',
  ),
};

/** What two people are asked to carry, kg. */
const carriedKg = 50;

/**
 * Points that are counted: a stiff box on several slings rests on two that face each other, for none is quite as long as the
 * others; and of three in two rows one stands alone.
 */
export const bearingPoints = (points: number): number => Math.min(points, 2);

/** Each box on its slings: what it weighs full, where its weight hangs, what the worst point bears. */
export const liftStep: StepDefinition = {
  id: 'pack.lift',
  version: 1,
  subjects: (design) => Object.keys(design.boxes),
  compute(subject, read) {
    const { box, content, data, fullKg, noMass, noSlots, need } = filledBox(subject, read);
    const { tag, liftPoints: points } = box;
    const at = `boxes.${subject}`;
    const moment = data.reduce((sum, { massKg }, i) => sum + massKg * (content.fit?.slots[i]?.xM ?? 0), 0);
    const offGaps = [...noMass, ...noSlots];
    const offM = fullKg > 0 ? moment / fullKg : 0;
    const spanM = box.liftSpanM ?? box.lengthM;
    const noSpan =
      points !== undefined && points > 1 && spanM === undefined
        ? need(spanM, 'liftSpanM', 'points apart')
        : [];
    const shareFraction = points === 1 ? 1 : 0.5 + Math.abs(offM) / (spanM ?? 1);
    const slingDeg = points === 1 ? 0 : (box.slingDeg ?? boxDefaults.slingDeg);
    const bearing = bearingPoints(points ?? 0);
    // One half each: what hangs off the middle goes to one of them.
    const worstKg = (fullKg * shareFraction) / Math.cos((slingDeg * Math.PI) / 180);
    const wrong = (holds: boolean, field: string, label: string, message: string): Gap[] =>
      holds ? [] : [{ kind: 'invalid', path: `${at}.${field}`, label: `${label} of ${tag}`, message }];
    const isTold = points !== undefined && points > 1;
    const pointGaps: Gap[] = [
      ...need(points, 'liftPoints', 'lifting points'),
      ...wrong(
        points === undefined || (Number.isInteger(points) && points >= 0),
        'liftPoints',
        'lifting points',
        'must be a whole number, 0 or more',
      ),
      ...wrong(
        slingDeg >= 0 && slingDeg < 90,
        'slingDeg',
        'lean of the slings',
        'must be from 0° to less than 90°',
      ),
      ...wrong(!isTold || spanM === undefined || spanM > 0, 'liftSpanM', 'points apart', 'must be above 0'),
      ...offGaps,
      ...noSpan,
    ];
    const tips = isTold && spanM !== undefined && spanM > 0 && Math.abs(offM) >= spanM / 2;
    // Of what tips nobody knows what its points bear.
    const bearGaps: Gap[] = tips
      ? [...pointGaps, { kind: 'never', label: `${tag} tips over its lifting points` }]
      : pointGaps;
    const n = formatNumber;
    const figures: Figure[] = [
      {
        id: figureId('pack.lift', subject, 'offCentreM'),
        label: 'Centre of mass ahead of the middle',
        unit: 'm',
        value: offGaps.length > 0 ? null : offM,
        gaps: offGaps,
        working:
          offGaps.length > 0
            ? []
            : [
                {
                  symbol: 'x',
                  label: 'Centre of mass ahead of the middle',
                  formula: 'Σ(m·x)/m',
                  inputs: [
                    { symbol: 'm·x', value: moment, unit: 'kg·m', origin: { kind: 'document', path: at } },
                    { symbol: 'm', value: fullKg, unit: 'kg', origin: { kind: 'document', path: at } },
                  ],
                  value: offM,
                  unit: 'm',
                  source: 'Modules as they are drawn in it; the empty box in its middle',
                },
              ],
      },
      {
        id: figureId('pack.lift', subject, 'worstPointKg'),
        label: 'On the worst lifting point',
        unit: 'kg',
        value: bearGaps.length > 0 ? null : worstKg,
        gaps: bearGaps,
        ...(box.liftKg !== undefined && { limit: { max: box.liftKg } }),
        working:
          bearGaps.length > 0
            ? []
            : [
                {
                  symbol: 'm_p',
                  label: 'On the worst lifting point',
                  formula: 'm·w/cos(β)',
                  inputs: [
                    { symbol: 'm', value: fullKg, unit: 'kg', origin: { kind: 'document', path: at } },
                    { symbol: 'w', label: 'share of the worst point', value: shareFraction, unit: '' },
                    {
                      symbol: 'β',
                      value: slingDeg,
                      unit: '°',
                      origin: { kind: 'document', path: `${at}.slingDeg` },
                    },
                  ],
                  value: worstKg,
                  unit: 'kg',
                  source: `Of ${n(points!)} points ${n(bearing)} ${bearing === 1 ? 'is' : 'are'} counted to bear; slings lean from the upright`,
                },
              ],
      },
    ];
    const masses = [
      { label: 'full mass', value: fullKg, unit: 'kg' },
      { label: 'lifting points', value: points ?? 0, unit: '' },
    ];
    return {
      // Where nothing is there to lift by, nothing bears.
      figures: points === 0 ? figures.slice(0, 1) : figures,
      checks: [
        judge(
          liftRules.weak,
          [subject],
          points === 0
            ? noMass
            : [...bearGaps, ...need(box.liftKg, 'liftKg', 'load a lifting point is made for')],
          points !== 0 && bearGaps.length === 0 && worstKg > (box.liftKg ?? Infinity)
            ? `${tag}, ${n(fullKg, 4)} kg full, on ${n(points ?? 0)} points: the worst bears ${n(worstKg)} kg with slings that lean by ${n(slingDeg)}°, and is made for ${n(box.liftKg ?? 0)} kg.`
            : null,
          [
            ...masses,
            { label: 'worst point bears', value: worstKg, unit: 'kg' },
            { label: 'made for', value: box.liftKg ?? 0, unit: 'kg' },
            { label: 'slings lean', value: slingDeg, unit: '°' },
          ],
        ),
        judge(
          liftRules.tips,
          [subject],
          points === 0 ? noMass : pointGaps,
          tips
            ? `The centre of mass of ${tag} lies ${n(Math.abs(offM))} m ${offM > 0 ? 'ahead of' : 'behind'} its middle; its lifting points are ${n(spanM ?? 0)} m apart.`
            : null,
          [
            { label: 'off the middle', value: Math.abs(offM), unit: 'm' },
            { label: 'points apart', value: spanM ?? 0, unit: 'm' },
          ],
        ),
        judge(
          liftRules.none,
          [subject],
          [...need(points, 'liftPoints', 'lifting points'), ...noMass],
          points === 0 && fullKg > carriedKg
            ? `${tag}, ${n(fullKg, 4)} kg full, has no lifting points; two people are asked to carry ${n(carriedKg)} kg.`
            : null,
          [...masses, { label: 'two people carry', value: carriedKg, unit: 'kg' }],
        ),
      ],
    };
  },
};
