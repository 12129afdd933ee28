import { mainCircuits, touchLimitOf, type Design } from '../document';
import { figureId } from '../figure';
import { formatNumber } from '../quantity';
import type { Evaluation } from '../step';
import { Builder, type Expectation, type ProcedureStep } from './procedure-builder';
import { intakeSteps } from './procedure-intake';

const pick = (step: string, subject: string, name: string) => figureId(step, subject, name);
const packFigure = (name: string) => pick('pack.pack', 'pack', name);

/** The procedure for a design: what to do, in which gate, and what is expected, with what it rests on. */
export function procedureFor(design: Design, evaluation: Evaluation): ProcedureStep[] {
  const builder = new Builder(design, evaluation);
  intakeSteps(builder);
  for (const id of mainCircuits(design)) partsOfCircuit(builder, id);
  bleedResistance(builder);
  insulation(builder, 'negative');
  insulation(builder, 'positive');
  deadBus(builder);
  polarity(builder);
  for (const id of mainCircuits(design)) firstHv(builder, id);
  return builder.steps;
}

function partsOfCircuit(builder: Builder, id: string): void {
  const circuit = builder.design.circuits[id]!;
  const part = circuit.resistor === undefined ? undefined : builder.design.parts[circuit.resistor];
  const resistor = part?.kind === 'resistor' ? part.data : null;
  const ohm = resistor?.resistanceOhm ?? 0;
  const tolerance = (resistor?.toleranceFraction ?? 0) + 0.01;
  builder.add({
    id: `precharge-resistor:${id}`,
    gate: 'parts',
    title: `Pre-charge resistor of ${circuit.tag}`,
    do: 'Measure the resistor with one end free; take the leads’ own resistance off.',
    why: 'The wrong resistor makes every later pre-charge test wrong, and may burn.',
    hv: false,
    instrument: 'meter',
    subjects: [{ id, tag: circuit.tag }],
    range: { kind: 'range', min: ohm * (1 - tolerance), max: ohm * (1 + tolerance), nominal: ohm, unit: 'Ω' },
    gaps:
      resistor === null
        ? [{ kind: 'not-given', path: `circuits.${id}.resistor`, label: 'pre-charge resistor' }]
        : [],
    basis:
      resistor === null
        ? []
        : [builder.row(`part:${circuit.resistor}:resistanceOhm`, `resistance of ${part!.number}`, ohm, 'Ω')],
  });
}

function bleedResistance(builder: Builder): void {
  const bleed = builder.figures(pick('precharge.bus', 'bus', 'bleedOhm'));
  const ohm = bleed.values[0]!;
  builder.add({
    id: 'bleed-resistance:bus',
    gate: 'parts',
    title: 'Bleed resistance across the bus',
    do: 'With the pack disconnected and the bus proved dead, measure from bus + to bus −; wait until the reading stands still.',
    why: 'The bleed is all that empties the capacitors after shut-down.',
    hv: true,
    instrument: 'meter',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: ohm * 0.9, max: ohm * 1.1, nominal: ohm, unit: 'Ω' },
    gaps: bleed.gaps,
    basis: bleed.basis,
  });
}

function insulation(builder: Builder, pole: 'negative' | 'positive'): void {
  const highest = builder.figures(packFigure('voltageMaxV'));
  const perV = builder.design.settings.insulationOhmPerV ?? 500;
  builder.add({
    id: `insulation-${pole}:pack`,
    gate: 'insulation',
    title: `Insulation, ${pole} pole to chassis`,
    do: `Electronics isolated from the tester. Test from the pack’s ${pole} pole to the chassis at a test voltage the makers allow; read after one minute.`,
    why: `${formatNumber(perV)} Ω for each volt keeps the current through a person who touches one pole small.`,
    hv: true,
    instrument: 'insulation-tester',
    subjects: [{ id: 'pack', tag: `pack, ${pole} pole` }],
    range: { kind: 'range', min: (perV * highest.values[0]!) / 1e6, unit: 'MΩ' },
    gaps: highest.gaps,
    basis: [...highest.basis, builder.row('settings.insulationOhmPerV', 'insulation limit', perV, 'Ω/V')],
  });
}

function deadBus(builder: Builder): void {
  const limit = touchLimitOf(builder.design);
  builder.add({
    id: 'bus-dead:bus',
    gate: 'first-hv',
    title: 'Bus proved dead before the last link',
    do: 'Service disconnect out. Measure bus + to bus −, and each pole to chassis; prove the meter before and after.',
    why: 'The last link is closed onto a bus that is known to be empty, or not at all.',
    hv: true,
    instrument: 'meter',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: -limit, max: limit, nominal: 0, unit: 'V' },
    gaps: [],
    basis: [builder.row('settings.touchLimitV', 'touch limit', limit, 'V')],
  });
}

function polarity(builder: Builder): void {
  const pack = builder.figures(packFigure('voltageMinV'), packFigure('voltageMaxV'));
  builder.add({
    id: 'polarity:pack',
    gate: 'first-hv',
    title: 'Polarity and voltage at the main contactors',
    do: 'Last link closed, mains open. Measure from pack − to pack + on the pack’s side of the main contactors.',
    why: 'A swapped pole destroys every device on the bus the moment pre-charge begins; polarised contactors do not break backwards.',
    hv: true,
    instrument: 'meter',
    subjects: [{ id: 'pack', tag: 'pack' }],
    range: { kind: 'range', min: pack.values[0]!, max: pack.values[1]!, unit: 'V' },
    gaps: pack.gaps,
    basis: pack.basis,
  });
}

/** Capacitors on the bus are made with a tolerance of about this. */
const capacitanceTolerance = 0.2;

function firstHv(builder: Builder, id: string): void {
  const circuit = builder.design.circuits[id]!;
  const subjects = [{ id, tag: circuit.tag }];
  const part = circuit.resistor === undefined ? undefined : builder.design.parts[circuit.resistor];
  const resistor = part?.kind === 'resistor' ? part.data : null;
  const timing = builder.figures(pick('precharge.run', id, 'timeToThresholdS'));
  const tolerance = (resistor?.toleranceFraction ?? 0) + capacitanceTolerance;
  const timeoutS = circuit.timeoutS ?? 3;
  const timeS = timing.values[0]!;
  builder.add({
    id: `precharge-time:${id}`,
    gate: 'first-hv',
    title: `Pre-charge time of ${circuit.tag}`,
    do: 'Start once. Take the time from the pre-charge contactor closing to the main closing.',
    why: 'Much faster means less capacitance than there should be; slower means more of it, another resistor, or a load on the bus.',
    hv: true,
    instrument: 'scope',
    subjects,
    range: {
      kind: 'range',
      min: timeS * (1 - tolerance),
      max: Math.min(timeS * (1 + tolerance), timeoutS),
      nominal: timeS,
      unit: 's',
    },
    gaps: timing.gaps,
    basis: [...timing.basis, builder.row(`circuits.${id}.timeoutS`, 'time limit', timeoutS, 's')],
  });
  const bus = builder.figures(pick('precharge.bus', 'bus', 'capacitanceF'));
  const load = builder.evaluation.figures[pick('precharge.bus', 'bus', 'loadOhm')]?.value ?? null;
  const riseGaps = [...bus.gaps];
  if (resistor === null) {
    riseGaps.push({ kind: 'not-given', path: `circuits.${id}.resistor`, label: 'pre-charge resistor' });
  }
  const rise: Expectation = {
    kind: 'rise',
    resistanceOhm: resistor?.resistanceOhm ?? 0,
    capacitanceF: bus.values[0]!,
    capacitanceToleranceFraction: capacitanceTolerance,
    loadOhm: load,
    unit: 'V',
  };
  builder.add({
    id: `precharge-curve:${id}`,
    gate: 'first-hv',
    title: `Pre-charge curve of ${circuit.tag}`,
    do: 'Read the pack’s own voltage with a meter. Then capture the bus voltage over time from the moment the pre-charge contactor closes, at least three time constants, differential probe.',
    why: 'The curve tells capacitance and load apart; a bare time does not.',
    hv: true,
    instrument: 'scope',
    subjects,
    range: rise,
    gaps: riseGaps,
    basis: [
      ...bus.basis,
      builder.row(`part:${circuit.resistor}:resistanceOhm`, 'pre-charge resistance', rise.resistanceOhm, 'Ω'),
    ],
  });
  const discharge = builder.figures(pick('precharge.discharge', 'bus', 'timeToSafeS'));
  const limitS = builder.design.settings.dischargeLimitS ?? 5;
  const safeS = discharge.values[0]!;
  const upTo = Math.min(safeS * (1 + 0.1 + capacitanceTolerance), limitS);
  builder.add({
    id: `stop-discharge:${id}`,
    gate: 'first-hv',
    title: `Stop: time to below ${formatNumber(touchLimitOf(builder.design))} V`,
    do: 'Switch off. Take the time from the main opening until the bus has fallen below the touch limit.',
    why: 'A bus that stays charged longer is met by the next person who opens the vehicle; one that does not fall is a welded contactor.',
    hv: true,
    instrument: 'scope',
    subjects: [{ id: 'bus', tag: 'bus' }],
    range: { kind: 'range', min: 0, max: Math.max(upTo, 0), nominal: safeS, unit: 's' },
    gaps: discharge.gaps,
    basis: [
      ...discharge.basis,
      builder.row('settings.dischargeLimitS', 'time allowed after shut-down', limitS, 's'),
    ],
  });
}
