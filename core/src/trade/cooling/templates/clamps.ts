import type { Design, Id } from '../../../model/document';
import { defineTemplates, type Builder, type Procedure, type Template } from '../../../model/procedure';
import { plumbingToday } from '../present-step';

/** Held, it moves by what a hand sees. */
const held: Pick<Template, 'reads'> = { reads: (_, near) => near(0.2, 1) };

const templates = defineTemplates({ 'clamps-box': held, 'clamps-loop': held });

/** A hose that is held moves no further than this on a firm pull by hand, mm. */
const mostMoveMm = 1;

/** One end of a hose, on what it is pushed. */
interface HoseEnd {
  hose: Id;
  loop: Id;
  /** As it is spoken of. */
  words: string;
  /** The box whose plates it feeds or drains: closed, nobody sees it any more. */
  box: Id | null;
}

/** Every end of every hose as the plumbing stands today. */
function hoseEnds({ plumbing, standIns, joins = {}, modules, loops = {} }: Design): HoseEnd[] {
  return Object.keys(loops).flatMap((loop) => {
    const pieces = Object.entries(plumbingToday(plumbing, standIns, loop)).filter(
      ([, one]) => one.loop === loop,
    );
    const boxAt = (join: Id): Id | null => {
      for (const [, { kind, from, to, modules: own = [] }] of pieces)
        if (kind === 'plate' && (from === join || to === join)) {
          const box = own.map((id) => modules[id]?.box).find((one) => one !== undefined);
          if (box !== undefined) return box;
        }
      return null;
    };
    return pieces.flatMap(([hose, { kind, tag, from, to }]) =>
      kind !== 'hose'
        ? []
        : [from, to].flatMap((join): HoseEnd[] =>
            join === undefined
              ? []
              : [{ hose, loop, words: `${tag}, ${joins[join]?.tag ?? join}`, box: boxAt(join) }],
          ),
    );
  });
}

/** Clamps are seen before something hides them: those of a box before its lid, the others before the loop is filled. */
function clamps(builder: Builder): void {
  const ends = hoseEnds(builder.design);
  const { boxes, loops = {} } = builder.design;
  for (const box of new Set(ends.flatMap((end) => end.box ?? [])))
    seen(
      builder,
      'clamps-box',
      box,
      boxes[box]!.tag,
      'before its lid is on',
      ends.filter((end) => end.box === box),
    );
  for (const [loop, { tag }] of Object.entries(loops)) {
    const own = ends.filter((end) => end.loop === loop && end.box === null);
    if (own.length > 0) seen(builder, 'clamps-loop', loop, tag, 'before it is filled', own);
  }
}

function seen(
  builder: Builder,
  template: keyof typeof templates,
  subject: Id,
  tag: string,
  before: string,
  ends: readonly HoseEnd[],
): void {
  builder.add({
    template: templates[template],
    of: subject,
    gate: 'coolant',
    hazard: 'pressure',
    instrument: 'rule',
    title: `Clamps of ${tag}`,
    do: `Nothing under pressure, ${before}. Each hose pushed home over its bead, the clamp behind it and of its size, tightened, one stroke of paint over clamp and hose. Pull firmly by hand and record in mm how far each moved: ${ends.map(({ words }) => words).join('; ')}.`,
    why: 'A clamp that was forgotten holds air for half an hour, and lets go on the first warm hill; once it is hidden nobody looks again.',
    subjects: [{ id: subject, tag }],
    touchedBy: [subject, ...new Set(ends.map(({ hose }) => hose))],
    range: { kind: 'list', items: ends.map(({ words }) => words), min: 0, max: mostMoveMm, unit: 'mm' },
    gaps: [],
    basis: [
      builder.row(`clamps:${subject}:ends`, `ends of hoses of ${tag}`, ends.length, ''),
      builder.row('constant:hoseMoveMm', 'most that a held hose moves', mostMoveMm, 'mm'),
    ],
  });
}

export const clampsProcedure: Procedure = { templates, steps: clamps };
