import type { Check, Gap } from '../../ground/figure';
import { formatNumber } from '../../ground/quantity';
import { vehicleDefaults, type Id, type LoopItem, type PlumbingItem } from '../../model/document';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { idlePlateChecks, portChecks } from './fit-checks';
import { coolingRules } from './rules';

const n = formatNumber;
/** In a message at most so many are named. */
const named = 6;
const count = (label: string, value: number) => ({ label, value, unit: '' });

/** How the pieces of a loop are joined, and what lies on its plates: contradictions that no flow shows. */
export const plumbingStep: StepDefinition = {
  id: 'cooling.plumbing',
  version: 1,
  subjects: ({ loops = {} }) => Object.keys(loops),
  compute(subject, read): { figures: []; checks: Check[] } {
    const loop = read.at('loops')![subject]!;
    const joins = read.at('joins') ?? {};
    const pieces = Object.entries(read.at('plumbing') ?? {}).filter(([, item]) => item.loop === subject);
    const nameOf = (id: Id) => joins[id]?.tag ?? id;
    const nothing: Gap[] =
      pieces.length === 0
        ? [{ kind: 'not-given', path: `loops.${subject}`, label: `pieces of ${loop.tag}` }]
        : [];
    return {
      figures: [],
      checks: [
        ...joinChecks(subject, pieces, [...nothing, ...ofNoLoop(read)], read),
        judge(coolingRules.intoTank, [subject], nothing, ...pumpInto(pieces, loop.tank, nameOf)),
        ...plateChecks(subject, pieces, read),
        ...portChecks(subject, pieces, read),
        ...idlePlateChecks(subject, pieces),
        placeCheck(subject, pieces, nothing, read),
        ...noticedChecks(subject, loop),
      ],
    };
  },
};

type Pieces = [Id, PlumbingItem][];

/** A piece that belongs to no loop is counted in none. */
const ofNoLoop = (read: Reader): Gap[] =>
  Object.entries(read.at('plumbing') ?? {}).flatMap(([id, { loop, tag }]) =>
    loop === undefined ? [{ kind: 'not-given', path: `plumbing.${id}.loop`, label: `loop of ${tag}` }] : [],
  );

function pumpInto(
  pieces: Pieces,
  tank: Id | undefined,
  nameOf: (id: Id) => string,
): [string | null, ReturnType<typeof count>[], { parts: Id[]; also: Id[] }] {
  const into = pieces.filter(([, { kind, to }]) => kind === 'pump' && tank !== undefined && to === tank);
  return [
    into.length > 0
      ? `${into.map(([, { tag }]) => tag).join(', ')}: ${n(into.length)} into ${nameOf(tank!)}.`
      : null,
    [count('pumps into the tank', into.length)],
    { parts: into.map(([id]) => id), also: into.map(([id]) => id) },
  ];
}

function joinChecks(subject: Id, pieces: Pieces, nothing: Gap[], read: Reader): Check[] {
  const joins = read.at('joins') ?? {};
  const tank = read.at('loops')![subject]!.tank;
  const ends = pieces.flatMap(([id, { from, to }]) =>
    [from, to].flatMap((join) => (join === undefined ? [] : [{ id, join }])),
  );
  const foreign = ends.filter(({ join }) => {
    const own = joins[join]?.loop;
    return own !== undefined && own !== subject;
  });
  const alone = ends.filter(
    ({ join }) =>
      join !== tank && joins[join]?.bleed !== true && ends.filter((one) => one.join === join).length === 1,
  );
  // An end that lies in another loop is said as that, and leaves its neighbour alone.
  const deadHere = alone.filter((one) => !foreign.includes(one));
  const dead = deadHere.length > foreign.length ? deadHere : [];
  // As many ends alone as lie elsewhere may be their neighbours, or not: which, is seen once those are at home.
  const unclear: Gap[] =
    deadHere.length > 0 && dead.length === 0
      ? [
          {
            kind: 'never',
            label: `Ends that lead nowhere: ${deadHere.length} may, but as many lie in another loop`,
          },
        ]
      : [];
  const tagOf = (id: Id) => read.at('plumbing')?.[id]?.tag ?? id;
  const placesOf = (list: typeof ends) => list.map(({ id, join }) => `${id} ${join}`);
  const say = (list: typeof ends) =>
    list
      .slice(0, named)
      .map(({ id, join }) => `${tagOf(id)} at ${joins[join]?.tag ?? join}`)
      .join(', ');
  return [
    judge(
      coolingRules.wrongLoop,
      [subject],
      foreign.length > 0 ? [] : nothing,
      foreign.length > 0
        ? `${n(foreign.length)} ${foreign.length === 1 ? 'end lies' : 'ends lie'} in another loop: ${say(foreign)}.`
        : null,
      [count('ends in another loop', foreign.length)],
      // An acceptance is of these ends: it lapses when others come.
      { parts: placesOf(foreign), also: foreign.flatMap(({ id, join }) => [id, join]) },
    ),
    judge(
      coolingRules.deadEnd,
      [subject],
      dead.length > 0 ? [] : [...nothing, ...unclear],
      dead.length > 0
        ? `${n(dead.length)} ${dead.length === 1 ? 'end leads' : 'ends lead'} nowhere: ${say(dead)}.`
        : null,
      [count('end alone', dead.length)],
      { parts: placesOf(dead), also: dead.flatMap(({ id, join }) => [id, join]) },
    ),
  ];
}

function plateChecks(subject: Id, pieces: Pieces, read: Reader): Check[] {
  const plates = pieces.filter(([, { kind }]) => kind === 'plate');
  if (plates.length === 0) return [];
  const modules = read.at('modules');
  const boxes = read.at('boxes');
  const all = Object.entries(read.at('plumbing') ?? {}).filter(([, { kind }]) => kind === 'plate');
  const tagOf = (id: Id) => modules[id]?.tag ?? id;
  const twice = [
    ...new Set(
      plates.flatMap(([, { modules: own = [] }]) =>
        own.filter(
          (id) =>
            all.reduce((sum, [, one]) => sum + (one.modules ?? []).filter((on) => on === id).length, 0) > 1,
        ),
      ),
    ),
  ];
  const banks = new Map<string, { ids: Id[]; tags: string[]; boxes: Set<Id> }>();
  for (const [id, { from = '', to = '', tag, modules: own = [] }] of plates) {
    const key = `${from} ${to}`;
    const bank = banks.get(key) ?? { ids: [], tags: [], boxes: new Set() };
    bank.ids.push(id);
    bank.tags.push(tag);
    for (const module of own) {
      const box = modules[module]?.box;
      if (box !== undefined) bank.boxes.add(box);
    }
    banks.set(key, bank);
  }
  const mixed = [...banks.values()].filter((bank) => bank.boxes.size > 1);
  return [
    judge(
      coolingRules.moduleTwice,
      [subject],
      [],
      twice.length > 0
        ? `${n(twice.length)} on more than one plate: ${twice.slice(0, named).map(tagOf).join(', ')}.`
        : null,
      [count('on more than one plate', twice.length)],
      { parts: twice, also: twice },
    ),
    judge(
      coolingRules.otherBox,
      [subject],
      [],
      mixed.length > 0
        ? mixed
            .map(
              (bank) =>
                `${bank.tags.slice(0, named).join(', ')}: modules of ${n(bank.boxes.size)} boxes, ${[...bank.boxes].map((id) => boxes[id]?.tag ?? id).join(' and ')}.`,
            )
            .join(' ')
        : null,
      mixed.map((bank) => count(`boxes at ${bank.tags[0]!}`, bank.boxes.size)),
      {
        parts: mixed.flatMap((bank) => [...bank.ids, ...bank.boxes]),
        also: mixed.flatMap((bank) => bank.ids),
      },
    ),
  ];
}

/** Joins that lie where nothing of the vehicle is. */
function placeCheck(subject: Id, pieces: Pieces, nothing: Gap[], read: Reader): Check {
  const joins = read.at('joins') ?? {};
  const vehicle = read.at('vehicle');
  const { frontOverhangM: front = 0, lengthM, heightM = Infinity } = vehicle;
  const clearanceM = vehicle.clearanceM ?? vehicleDefaults.clearanceM;
  const touched = [...new Set(pieces.flatMap(([, { from, to }]) => [from, to]))].flatMap((id) =>
    id === undefined || joins[id] === undefined ? [] : [{ id, ...joins[id] }],
  );
  const off = touched.flatMap(({ id, tag, xM, zM }) => [
    ...(xM !== undefined && (xM > front || (lengthM !== undefined && xM < front - lengthM))
      ? [{ id, tag, words: `${n(xM)} m ahead of the front axle`, value: xM }]
      : []),
    ...(zM !== undefined && (zM < clearanceM - 1e-9 || zM > heightM)
      ? [{ id, tag, words: `${n(zM)} m above the ground`, value: zM }]
      : []),
  ]);
  return judge(
    coolingRules.joinOut,
    [subject],
    off.length > 0 || lengthM !== undefined
      ? nothing
      : [{ kind: 'not-given', path: 'vehicle.lengthM', label: 'length' }],
    off.length > 0
      ? `${off
          .slice(0, named)
          .map(({ tag, words }) => `${tag} lies ${words}`)
          .join(', ')}.`
      : null,
    off.map(({ tag, value }) => ({ label: tag, value, unit: 'm' })),
    { also: off.map(({ id }) => id) },
  );
}

/** Who notices that a loop has lost its flow, or its coolant. */
function noticedChecks(subject: Id, { tag, lostFlow, lostCoolant }: LoopItem): Check[] {
  const unsaid = (value: unknown, field: string, label: string): Gap[] =>
    value === undefined
      ? [{ kind: 'not-given', path: `loops.${subject}.${field}`, label: `${label} of ${tag}` }]
      : [];
  const watched = (value: string | undefined) => count('watched by', value === 'nobody' ? 0 : 1);
  return [
    judge(
      coolingRules.flowUnnoticed,
      [subject],
      unsaid(lostFlow, 'lostFlow', 'what notices lost flow'),
      lostFlow === 'nobody' ? `${n(0)} things tell when ${tag} stands still.` : null,
      [watched(lostFlow)],
    ),
    judge(
      coolingRules.coolantUnnoticed,
      [subject],
      unsaid(lostCoolant, 'lostCoolant', 'what notices lost coolant'),
      lostCoolant === 'nobody' ? `${n(0)} things tell when ${tag} loses coolant.` : null,
      [watched(lostCoolant)],
    ),
  ];
}

/** The loops that a school of cooling asks for. */
const asks = { 'own loops': [2, Infinity], 'one loop': [1, 1], 'no liquid': [0, 0] } as const;

/** The school that is chosen against the loops that are there. */
export const schoolStep: StepDefinition = {
  id: 'cooling.school',
  version: 1,
  subjects: ({ cooling }) => (cooling?.school === undefined ? [] : ['cooling']),
  compute(subject, read): { figures: []; checks: Check[] } {
    const school = read.at('cooling')!.school!;
    const loops = Object.keys(read.at('loops') ?? {});
    const [least, most] = asks[school];
    // Nothing drawn yet is no contradiction.
    const waits = loops.length === 0 && least > 0;
    const off = !waits && (loops.length < least || loops.length > most);
    return {
      figures: [],
      checks: [
        judge(
          coolingRules.school,
          [subject],
          waits ? [{ kind: 'not-given', path: 'loops', label: 'loops' }] : [],
          off ? `The school is “${school}”; there are ${n(loops.length)} loops.` : null,
          [count('loops', loops.length)],
          { also: loops },
        ),
      ],
    };
  },
};
