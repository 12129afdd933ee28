import { figureId, type Check, type Figure, type Gap, type FigureName } from '../../ground/figure';
import type { Rule } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import type { Id, JointItem } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { clampOf, dryNutFactor, engagementFactor, proofMPa, proofShare, stressAreaMm2 } from './clamp';
import { betweenFaces, galvanicLimitV, galvanicV, springOnFace } from './metals';
import { jointRules as rules, leastProofShare } from './rules';

const n = formatNumber;
export const defaultPollution = 2;

/** A kind of joint as the design gives it, with what is missing of it. */
class Kind {
  constructor(
    readonly id: Id,
    readonly item: JointItem,
  ) {}

  /** A gap for each of these fields that is not given. */
  lacks(...fields: [keyof JointItem, string][]): Gap[] {
    return fields.flatMap(([field, label]) =>
      this.item[field] === undefined
        ? [
            {
              kind: 'not-given' as const,
              path: `joints.${this.id}.${field}`,
              label: `${label} of ${this.item.tag}`,
            },
          ]
        : [],
    );
  }

  /** @param values label, value and unit of each number that the judgement rests on */
  check(rule: Rule, gaps: Gap[], message: string | null, ...values: [string, number, string][]): Check {
    return judge(
      rule,
      [this.id],
      gaps,
      message,
      values.map(([label, value, unit]) => ({ label, value, unit })),
    );
  }
}

/** How a kind of joint is made: thread, faces, stack. */
export const kindStep: StepDefinition = {
  id: 'joints.kind',
  version: 1,
  subjects: ({ joints }) => Object.keys(joints ?? {}),
  compute(subject, read) {
    const given = read.at('joints')?.[subject];
    if (given === undefined) return { figures: [], checks: [] };
    // Lugs of one circuit go on that circuit’s studs.
    const studMm =
      given.circuit === undefined
        ? given.studMm
        : (read.at('circuits', given.circuit, 'studMm') ?? given.studMm);
    const kind = new Kind(subject, studMm === undefined ? given : { ...given, studMm });
    const clamp = clampFigures(kind);
    return {
      figures: clamp.figures,
      checks: [
        clamp.check,
        clamp.loose,
        engagement(kind),
        ...platings(kind, read),
        ...metals(kind),
        ...stack(kind),
        ...habits(kind),
      ],
    };
  },
};

function clampFigures(kind: Kind): { figures: Figure[]; check: Check; loose: Check } {
  const { studMm = 0, torqueNm = 0, boltClass = '8.8', tag } = kind.item;
  const gaps = kind.lacks(['studMm', 'stud'], ['torqueNm', 'torque'], ['boltClass', 'class of the bolts']);
  const bad = (field: keyof JointItem, message: string): Gap => ({
    kind: 'invalid',
    path: `joints.${kind.id}.${field}`,
    label: `${field === 'studMm' ? 'stud' : 'torque'} of ${tag}`,
    message,
  });
  if (kind.item.torqueNm !== undefined && !(torqueNm > 0)) gaps.push(bad('torqueNm', 'must be above 0'));
  const found = gaps.length === 0 ? clampOf(torqueNm, studMm, boltClass) : null;
  if (gaps.length === 0 && found === null)
    gaps.push(bad('studMm', `must be one of ${Object.keys(stressAreaMm2).join(', ')}`));
  const figure = (
    name: FigureName<'joints.kind'>,
    label: string,
    unit: string,
    value: number | undefined,
    limit?: number,
  ): Figure => ({
    id: figureId('joints.kind', kind.id, name),
    label,
    unit,
    value: value ?? null,
    gaps,
    ...(limit !== undefined && { limit: { max: limit } }),
    working: [],
  });
  const at = (field: string) => ({ kind: 'document' as const, path: `joints.${kind.id}.${field}` });
  const force = figure('forceN', 'Clamping force', 'N', found?.forceN);
  const share = figure('proofShare', 'Of the proof stress', 'fraction', found?.share, proofShare);
  if (found !== null) {
    force.working = [
      {
        symbol: 'F',
        label: 'Clamping force',
        formula: 'T/(K·d)·1000',
        inputs: [
          { symbol: 'T', value: torqueNm, unit: 'N·m', origin: at('torqueNm') },
          {
            symbol: 'K',
            value: dryNutFactor,
            unit: '',
            origin: { kind: 'constant', source: 'dry, plated thread' },
          },
          { symbol: 'd', value: studMm, unit: 'mm', origin: at('studMm') },
        ],
        value: found.forceN,
        unit: 'N',
        source: 'Torque and force of a dry thread',
      },
    ];
    share.working = [
      ...force.working,
      {
        symbol: 's',
        label: 'Of the proof stress',
        formula: 'F/(A·R_p)',
        inputs: [
          { symbol: 'F', value: found.forceN, unit: 'N' },
          {
            symbol: 'A',
            value: stressAreaMm2[studMm]!,
            unit: 'mm²',
            origin: { kind: 'constant', source: 'ISO 898-1' },
          },
          { symbol: 'R_p', value: proofMPa[boltClass], unit: 'MPa', origin: at('boltClass') },
        ],
        value: found.share,
        unit: 'fraction',
        source: 'ISO 898-1, ISO 3506-1',
      },
    ];
  }
  const over = found !== null && found.share > proofShare;
  const loose = kind.check(
    rules.loose,
    gaps,
    found !== null && found.share < leastProofShare
      ? `${tag}: ${n(torqueNm)} N·m pull an M${n(studMm)} of ${boltClass} with ${n(found.share * 100)} % of its proof stress.`
      : null,
    ['of the proof stress', found?.share ?? 0, 'fraction'],
    ['torque', torqueNm, 'N·m'],
    ['stud', studMm, 'mm'],
  );
  return {
    figures: [force, share],
    loose,
    check: kind.check(
      rules.stress,
      gaps,
      over
        ? `${tag}: ${n(torqueNm)} N·m pull an M${n(studMm)} of ${boltClass} with ${n(found.forceN / 1000)} kN, ${n(found.share * 100)} % of its proof stress; ${n(found.mostNm)} N·m reach 90 %.`
        : null,
      ['of the proof stress', found?.share ?? 0, 'fraction'],
      ['torque', torqueNm, 'N·m'],
      ['stud', studMm, 'mm'],
      ['clamping force', found?.forceN ?? 0, 'N'],
      ['most torque', found?.mostNm ?? 0, 'N·m'],
      ['proof stress', proofMPa[boltClass], 'MPa'],
    ),
  };
}

function engagement(kind: Kind): Check {
  const { studMm = 0, engagementMm = 0, threadIn = 'steel', tag } = kind.item;
  const wantedMm = engagementFactor[threadIn] * studMm;
  return kind.check(
    rules.engagement,
    kind.lacks(['studMm', 'stud'], ['engagementMm', 'engagement'], ['threadIn', 'metal of the thread']),
    engagementMm < wantedMm * (1 - 1e-9)
      ? `${tag}: ${n(engagementMm)} mm of an M${n(studMm)} are in ${threadIn}; ${n(wantedMm)} mm are asked.`
      : null,
    ['thread that is in', engagementMm, 'mm'],
    ['asked', wantedMm, 'mm'],
    ['stud', studMm, 'mm'],
  );
}

function metals(kind: Kind): Check[] {
  const { face = 'copper', otherFace = 'copper', pollution = defaultPollution, preparation, tag } = kind.item;
  const gaps = kind.lacks(['face', 'first face'], ['otherFace', 'second face']);
  const volts = galvanicV(face, otherFace);
  const limit = galvanicLimitV(pollution);
  const bareFaces = [face, otherFace].filter((one) => one === 'aluminium').length;
  const bare = bareFaces > 0;
  return [
    kind.check(
      rules.galvanic,
      gaps,
      volts > limit + 1e-9
        ? `${tag}: ${face} and ${otherFace} lie ${n(volts)} V apart; ${n(limit)} V are allowed at pollution degree ${pollution}.`
        : null,
      ['between the faces', volts, 'V'],
      ['allowed', limit, 'V'],
      ['pollution degree', pollution, ''],
    ),
    kind.check(
      rules.oxide,
      bare ? [...gaps, ...kind.lacks(['preparation', 'preparation'])] : gaps,
      bare && preparation !== 'brushed-paste'
        ? `${tag}: ${bareFaces} of 2 faces ${bareFaces === 2 ? 'are' : 'is'} bare aluminium, ${preparation === 'brushed' ? 'brushed without paste' : 'not prepared'}.`
        : null,
      ['faces of bare aluminium', bareFaces, ''],
    ),
  ];
}

function stack(kind: Kind): Check[] {
  const { stack: order = [], tag } = kind.item;
  const gaps = kind.lacks(['stack', 'stack']);
  const between = betweenFaces(order);
  return [
    kind.check(
      rules.stack,
      gaps,
      between === null
        ? null
        : `${tag}: of ${order.length} pieces a ${between} lies between the faces (${order.join(', ')}).`,
      ['pieces in the stack', order.length, ''],
    ),
    kind.check(
      rules.springOnFace,
      gaps,
      springOnFace(order)
        ? `${tag}: of ${order.length} pieces the spring lies on a face (${order.join(', ')}).`
        : null,
      ['pieces in the stack', order.length, ''],
    ),
  ];
}

/** The surfaces of lugs as faces of a joint. */
const faceOfPlating = { tin: 'tin', 'bare copper': 'copper', nickel: 'nickel', silver: 'silver' } as const;

/** The lugs that lie on joints of this kind, against the faces it names: one of the two is the lug’s. */
function platings(kind: Kind, read: Reader): Check[] {
  const { on, face, otherFace, circuit, studMm, tag } = kind.item;
  if (on !== 'lugs') return [];
  const gaps = kind.lacks(['face', 'first face'], ['otherFace', 'second face']);
  const others = Object.entries(read.at('circuits')).filter(([id, item]) =>
    circuit === undefined ? studMm === undefined || item.studMm === studMm : id === circuit,
  );
  const lugs = others.flatMap(([, item]) => {
    const part = read.at('parts', item.lug ?? '');
    return part?.kind === 'lug' ? [part] : [];
  });
  const wrong =
    gaps.length > 0
      ? undefined
      : lugs.find(({ data }) => ![face, otherFace].includes(faceOfPlating[data.plating]));
  return [
    kind.check(
      rules.plating,
      gaps,
      wrong === undefined
        ? null
        : `${tag}: the faces are ${face} and ${otherFace}; ${wrong.label} is of ${wrong.data.plating}, 1 of ${n(lugs.length)} lugs there.`,
      ['lugs', lugs.length, ''],
    ),
  ];
}

/** What is decided about crimps and about the second torque. */
function habits(kind: Kind): Check[] {
  const { on, crimp, retorqueDays, tag } = kind.item;
  return [
    ...(on === 'lugs'
      ? [
          kind.check(
            rules.solder,
            [],
            crimp === 'crimp-solder' ? `${tag} are crimped, then soldered.` : null,
            ['soldered', crimp === 'crimp-solder' ? 1 : 0, ''],
          ),
        ]
      : []),
    kind.check(
      rules.retorque,
      kind.lacks(['retorqueDays', 'days until torqued again']),
      retorqueDays === 0 ? `${tag} are torqued once and never again (0 days).` : null,
      ['days until torqued again', retorqueDays ?? 0, 'd'],
    ),
  ];
}
