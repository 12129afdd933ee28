import { leastBondTestA, measuredBodies, mostBondOhm } from '../../trade/bonding';
import { mainCircuit } from '../../model/document';
import { jointsOf, torqueTolerance, type Joint } from '../../trade/joints';
import { formatNumber } from '../../ground/quantity';
import type { Builder } from './procedure-builder';

/** The thing that a joint belongs to. */
const ownerOf = ({ id }: Pick<Joint, 'id'>) => id.split('/')[0]!;

/** Every joint torqued, kind by kind; joints of no kind have no torque that could be right. */
export function torques(builder: Builder): void {
  const { design } = builder;
  const joints = jointsOf(design);
  const kinds = [...new Set(joints.map(({ kind }) => kind))];
  for (const kind of kinds) {
    const own = joints.filter((joint) => joint.kind === kind);
    const item = kind === null ? undefined : design.joints?.[kind];
    const torqueNm = item?.torqueNm;
    const tag = item?.tag ?? `${own.length} joints of no kind`;
    builder.add({
      id: `torque:${kind ?? 'none'}`,
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

/** Every conductive body measured to the chassis. */
export function bonds(builder: Builder): void {
  const bodies = measuredBodies(builder.design);
  builder.add({
    id: 'bonds:chassis',
    gate: 'wiring',
    title: 'Bonds to the chassis',
    do: `Measure each of the ${bodies.length} bodies to the chassis at ${formatNumber(leastBondTestA)} A or more, and record the walk in Protect, Bonds and distances.`,
    why: 'A body without a bond takes the voltage of the first fault to it, and keeps it until somebody touches it.',
    hazard: 'isolated',
    instrument: 'meter',
    subjects: [{ id: 'bonds', tag: 'bonds' }],
    touchedBy: bodies.map(({ id }) => id),
    walk: {
      work: 'bond',
      items: bodies.map(({ id, tag }) => ({ id, tag })),
      leastA: leastBondTestA,
    },
    range: { kind: 'range', max: mostBondOhm, unit: 'Ω' },
    gaps: bodies.length === 0 ? [{ kind: 'not-given', path: 'boxes', label: 'boxes and devices' }] : [],
    basis: [builder.row('constant:mostBondOhm', 'most of a bond', mostBondOhm, 'Ω')],
  });
}

/** A wire from pole to pole has less than this, with leads and contacts, Ω. */
const continuityOhm = 1;

/** Which pole of each branch is which, while nothing is live yet. */
export function branchPolarity(builder: Builder): void {
  const { circuits, devices } = builder.design;
  for (const [id, circuit] of Object.entries(circuits)) {
    const device = devices[circuit.device ?? ''];
    if (id === mainCircuit || device === undefined) continue;
    const own = circuit.contactor !== undefined;
    builder.add({
      id: `poles:${id}`,
      gate: 'wiring',
      title: `Poles of ${circuit.tag}`,
      do: `Disconnect out, bus proved dead, ${device.tag} unplugged${own ? ', its contactors held closed by hand or by a supply' : ''}, fuse in. Measure from bus + to the + contact of the plug; then see that the − contact stays open.`,
      why: 'Swapped poles destroy a device the moment the bus rises; here they cost nothing.',
      hazard: 'isolated',
      instrument: 'meter',
      subjects: [{ id, tag: circuit.tag }],
      touchedBy: [circuit.device!],
      range: { kind: 'range', min: 0, max: continuityOhm, unit: 'Ω' },
      gaps: [],
      basis: [builder.row('constant:continuityOhm', 'most of a wire with its contacts', continuityOhm, 'Ω')],
    });
  }
}
