import {
  defineTemplates,
  insulationReads,
  isStepOf,
  type Builder,
  type Hypothesis,
  type Procedure,
} from '../../../model/procedure';

/** The thinnest place of a coat that insulates reads no less, MΩ. */
const leastMOhm = 1;

const bare: Hypothesis = {
  cause: 'A corner, an edge or a hole is bare',
  because: 'a coat pulls away from sharp edges, and what is drilled after it has none',
  check: 'Break the edge, coat it again, let it dry, and draw the electrode over it once more.',
  predicts: null,
};

const templates = defineTemplates({
  'box-coat': { reads: insulationReads, causes: () => [bare] },
});

/** Boxes that are coated, before a module stands in the way. */
function coated(builder: Builder): void {
  for (const [id, { tag, coat }] of Object.entries(builder.design.boxes)) {
    if (coat === undefined || coat === 'none') continue;
    builder.add({
      template: templates['box-coat'],
      of: id,
      gate: 'parts',
      hazard: 'part',
      instrument: 'insulation-tester',
      title: `Coat of ${tag}, before a module goes in`,
      do: `${tag} empty, every hole drilled, edges broken, ${coat === 'liner' ? 'liner glued' : `${coat} dry`}. Tester from the bare metal of its bonding face to a damp cloth round the probe: draw it over corners, edges and holes and wherever a module stands. Record the lowest reading. Bonding faces stay bare.`,
      why: 'Once modules stand in it nobody sees the corner at which the coat is thin, and the first chafed wire finds it.',
      subjects: [{ id, tag }],
      range: { kind: 'range', min: leastMOhm, unit: 'MΩ' },
      gaps: [],
      basis: [builder.row('constant:coatMOhm', 'least through a coat', leastMOhm, 'MΩ')],
    });
  }
}

/** Whether a step is that in which the coat of a box is seen. */
export const isCoatOf = (box: string, step: string): boolean =>
  isStepOf(templates['box-coat'], step) && step.endsWith(`:${box}`);

export const coatProcedure: Procedure = { templates, steps: coated };
