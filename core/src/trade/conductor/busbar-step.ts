import type { BusbarItem } from '../../model/document';
import { rulesOf } from '../../ground/finding';
import { figureId } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { Inputs, judge, type Reader, type StepDefinition } from '../../model/step';
import { busbar } from './busbar';

const rule = rulesOf('busbar');

export const busbarPlaceRules = {
  hot: rule(
    'hotter-than-allowed',
    'mend',
    'The bus bar gets hotter than it may',
    'Its heat goes into the posts it is bolted to, and a module’s post is the way into its cells.',
    'A larger section, a shorter bar, or a darker surface that radiates.',
    'Heat balance of a bar on edge',
  ),
  edge: rule(
    'hole-near-end',
    'mend',
    'A stud hole lies too near the end of the bar',
    'Less metal beyond the hole than the hole is wide tears out, and the washer stands over the edge.',
    'A longer end, or a smaller stud.',
    'Practice of drilled bars: at least one diameter to the edge',
  ),
  bare: rule(
    'bare',
    'mend',
    'The bus bar is bare',
    'A dropped tool or a loose strand bridges bare bars, and the arc stays.',
    'Dip it, powder it or sleeve it, with the contact faces left free.',
    'Practice of bars in battery boxes',
  ),
  stiff: rule(
    'stiff-between-posts',
    'note',
    'A stiff bar holds two posts that move',
    'Modules swell and everything expands: a bar without a flexible section hands it to the posts.',
    'A flexible section, a bend, or a braid.',
    'Linear expansion over 50 K',
  ),
};

/** What a bar may reach where it does not say, °C. */
export const defaultBarMaxC = 90;
export const defaultOverhangMm = 12;

/** End to end, mm. */
export const barLengthMm = ({ betweenMm, overhangMm }: BusbarItem): number =>
  (betweenMm ?? 0) + 2 * (overhangMm ?? defaultOverhangMm);

const bareEmissivity = 0.3;
const coatedEmissivity = 0.9;

/** More expansion than this between two fixed posts asks for a flexible section, mm. */
const stiffMm = 0.1;

const barStep: StepDefinition = {
  id: 'busbar.bar',
  version: 1,
  subjects: ({ pack }) => Object.keys(pack.busbars ?? {}),
  compute(subject, read: Reader) {
    const bar = read.at('pack').busbars?.[subject] ?? { tag: subject };
    const at = `pack.busbars.${subject}`;
    const inputs = new Inputs(read);
    inputs.given('widthMm', bar.widthMm, `${at}.widthMm`, `width of ${bar.tag}`);
    inputs.given('thicknessMm', bar.thicknessMm, `${at}.thicknessMm`, `thickness of ${bar.tag}`);
    inputs.given(
      'lengthMm',
      bar.betweenMm === undefined ? undefined : barLengthMm(bar),
      `${at}.betweenMm`,
      `distance of the studs of ${bar.tag}`,
    );
    if (bar.currentA !== undefined)
      inputs.set('currentA', bar.currentA, { kind: 'document', path: `${at}.currentA` }, 'current');
    else if (bar.circuit !== undefined)
      inputs.figure('currentA', figureId('network.load', bar.circuit, 'rmsA'));
    else inputs.missing({ kind: 'not-given', path: `${at}.currentA`, label: `current of ${bar.tag}` });
    inputs.orDefault('ambientC', bar.ambientC, 40, `${at}.ambientC`, 'ambient of the bar');
    inputs.optional('material', bar.material, `${at}.material`, 'metal');
    const holes = [bar.holeMm, bar.otherHoleMm].filter((hole) => hole !== undefined);
    inputs.optional(
      'holeDiameterMm',
      holes.length === 0 ? undefined : Math.max(...holes),
      `${at}.holeMm`,
      'hole',
    );
    // A coat radiates about as paint does; how warm it is beneath is the metal’s temperature.
    if (bar.coating !== undefined)
      inputs.set(
        'emissivity',
        bar.coating === 'bare' ? bareEmissivity : coatedEmissivity,
        { kind: 'document', path: `${at}.coating` },
        'emissivity of the coating',
      );
    const run = inputs.run(busbar);
    const maxC = bar.maxC ?? defaultBarMaxC;
    const figures = run.figures('busbar.bar', subject, [
      { name: 'temperatureC', symbol: 'T', label: 'Temperature', unit: '°C', limit: { max: maxC } },
      { name: 'lossW', symbol: 'R', label: 'Loss', unit: 'W' },
      { name: 'densityAtHoleAPerMm2', symbol: 'J_h', label: 'Density at the hole', unit: 'A/mm²' },
      { name: 'expansionMmPer50K', symbol: 'Δl', label: 'Expansion over 50 K', unit: 'mm' },
    ]);
    const { result } = run;
    const temperatureC = result?.temperatureC ?? null;
    const overhangMm = bar.overhangMm ?? defaultOverhangMm;
    const widest = Math.max(0, ...holes);
    const beyondMm = overhangMm - widest / 2;
    const grows = result?.expansionMmPer50K ?? 0;
    const barValues = [
      { label: 'current', value: run.input?.currentA ?? 0, unit: 'A' },
      { label: 'density at the hole', value: result?.densityAtHoleAPerMm2 ?? 0, unit: 'A/mm²' },
      { label: 'width', value: bar.widthMm ?? 0, unit: 'mm' },
      { label: 'hole', value: widest, unit: 'mm' },
      { label: 'width left at the hole', value: (bar.widthMm ?? 0) - widest, unit: 'mm' },
    ];
    return run.output(figures, [
      ...run.checks([subject], barValues),
      judge(
        busbarPlaceRules.hot,
        [subject],
        run.gaps,
        temperatureC !== null && temperatureC > maxC
          ? `${bar.tag} reaches ${formatNumber(temperatureC)} °C; ${formatNumber(maxC)} °C are allowed.`
          : null,
        [
          { label: 'temperature', value: temperatureC ?? 0, unit: '°C' },
          { label: 'allowed', value: maxC, unit: '°C' },
        ],
      ),
      judge(
        busbarPlaceRules.edge,
        [subject],
        bar.holeMm === undefined
          ? [{ kind: 'not-given', path: `${at}.holeMm`, label: `hole of ${bar.tag}` }]
          : [],
        widest > 0 && beyondMm < widest
          ? `${formatNumber(beyondMm)} mm are left beyond a hole of ${formatNumber(widest)} mm in ${bar.tag}.`
          : null,
        [
          { label: 'metal beyond the hole', value: beyondMm, unit: 'mm' },
          { label: 'hole', value: widest, unit: 'mm' },
        ],
      ),
      judge(
        busbarPlaceRules.bare,
        [subject],
        bar.coating === undefined
          ? [{ kind: 'not-given', path: `${at}.coating`, label: `coating of ${bar.tag}` }]
          : [],
        bar.coating === 'bare' ? `${bar.tag} is bare over ${formatNumber(barLengthMm(bar))} mm.` : null,
        [{ label: 'length', value: barLengthMm(bar), unit: 'mm' }],
      ),
      judge(
        busbarPlaceRules.stiff,
        [subject],
        run.gaps,
        grows > stiffMm && !((bar.flexMm ?? 0) > 0)
          ? `${bar.tag} grows by ${formatNumber(grows)} mm over 50 K and has no flexible section.`
          : null,
        [{ label: 'expansion over 50 K', value: grows, unit: 'mm' }],
      ),
    ]);
  },
};

export const busbarSteps: StepDefinition[] = [barStep];
