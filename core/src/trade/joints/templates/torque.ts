import { defineTemplates, type Builder, type Procedure } from '../../../model/procedure';
import { jointsOf, type Joint } from '../list';
import { torqueTolerance } from '../rules';

const templates = defineTemplates({ torque: {} });

/** The thing that a joint belongs to. */
const ownerOf = ({ id }: Pick<Joint, 'id'>) => id.split('/')[0]!;

/** Every joint torqued, kind by kind; joints of no kind have no torque that could be right. */
function torques(builder: Builder): void {
  const { design } = builder;
  const joints = jointsOf(design);
  const kinds = [...new Set(joints.map(({ kind }) => kind))];
  for (const kind of kinds) {
    const own = joints.filter((joint) => joint.kind === kind);
    const item = kind === null ? undefined : design.joints?.[kind];
    const torqueNm = item?.torqueNm;
    const tag = item?.tag ?? `${own.length} joints of no kind`;
    builder.add({
      template: templates['torque'],
      of: kind ?? 'none',
      gate: 'wiring',
      title: `Torque of ${tag}`,
      do: `Torque each of the ${own.length} joints with a wrench in calibration, mark it, and record the walk in Protect, Joints and bars.`,
      why: 'A loose joint is the likeliest fire in a high-voltage system, and nobody sees it.',
      hazard: 'isolated',
      instrument: 'torque-wrench',
      subjects: [{ id: kind ?? 'joints', tag }],
      touchedBy: [...new Set(own.map(ownerOf))],
      walk: { work: 'torque', items: own.map(({ id, tag: name }) => ({ id, tag: name })) },
      range: {
        kind: 'range',
        min: (torqueNm ?? 0) * (1 - torqueTolerance),
        max: (torqueNm ?? 0) * (1 + torqueTolerance),
        nominal: torqueNm ?? 0,
        unit: 'N·m',
      },
      gaps:
        kind === null
          ? [{ kind: 'not-given', path: 'joints', label: `how ${own.length} joints are made` }]
          : torqueNm === undefined
            ? [{ kind: 'not-given', path: `joints.${kind}.torqueNm`, label: `torque of ${tag}` }]
            : [],
      basis:
        torqueNm === undefined
          ? []
          : [builder.row(`joints.${kind}.torqueNm`, `torque of ${tag}`, torqueNm, 'N·m')],
    });
  }
}

export const torqueProcedure: Procedure = { templates, steps: torques };
