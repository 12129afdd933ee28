import { figureId } from '../../../ground/figure';
import type { Id } from '../../../model/document';
import { touchLimitOf } from '../../../model/document';
import {
  defineTemplates,
  nominalOf,
  slips,
  type Builder,
  type Case,
  type Procedure,
} from '../../../model/procedure';
import type { SupplyAnswer } from '../supply-step';
import { currentCauses, cutCauses, lostCauses, stopCauses, weldCauses } from './causes';

const ofCurrent = { causes: (of: Case, value: number) => [...slips(of, value), ...currentCauses(of)] };

const templates = defineTemplates({
  'inlet-earth': {},
  'inlet-release': {},
  'inlet-inhibit': { reads: (_, near) => near(0.05, 0.5) },
  'inlet-weld': {
    reads: (_, near) => near(0.4, 0.5),
    causes: (of, value) => [...slips(of, value), ...weldCauses],
  },
  'charge-current': ofCurrent,
  'charge-pilot': ofCurrent,
  'charge-cable': ofCurrent,
  'charge-lost': { causes: (of, value) => [...slips(of, value), ...lostCauses] },
  'charge-stop': {
    reads: ({ expected }, near) => near(nominalOf(expected)!, 0.004),
    causes: (of, value) => [...slips(of, value), ...stopCauses(of)],
  },
  'charge-cut': {
    reads: (_, near) => near(0.02, 0.5),
    causes: (of, value) => [...slips(of, value), ...cutCauses(of)],
  },
  'charge-station': {},
});

/** Current as clamped may lie above what is allowed by this share: the clamp’s own. */
const aboveFraction = 0.05;
/** A charge has ended when no more than this flows, A. */
const endedA = 0.3;
/** Once the pilot is lost a charger has this long, s. */
const lostPilotS = 3;
/** A charger’s end may lie off by this share: its meter and ours. */
const endWithinFraction = 0.005;
/** A plug whose lock has failed is free by hand within, s. */
const releaseS = 60;
/** From the earth pin of the inlet to the chassis, at most, Ω. */
const earthOhm = 0.1;
/** What is left at the drive’s enable while it is blocked, V. */
const blockedV = 1;
/** What the tester’s smallest cable and pilot offer, A. */
const smallest = { cableA: 13, pilotA: 6 };

const gate = 'charging' as const;

/** From the inlet as fitted to each way that ends a charge, tried once. */
function charging(builder: Builder): void {
  const { design } = builder;
  const supplies = Object.entries(design.supplies ?? {});
  const mains = supplies.filter(([, { kind }]) => kind !== 'station').map(([id]) => id);
  const inlets = Object.keys(design.inlets ?? {});
  for (const inlet of inlets) fitted(builder, inlet);
  if (mains.length > 0 && inlets.some((id) => design.inlets![id]!.current !== 'station')) {
    for (const supply of mains) offered(builder, supply);
    for (const inlet of inlets) if (design.inlets![inlet]!.current !== 'station') signals(builder, inlet);
  }
  for (const [id, device] of Object.entries(design.devices))
    if (device.kind === 'charger' && supplies.length > 0) endsByItself(builder, id);
  for (const cut of Object.keys(design.cuts ?? {})) cutOff(builder, cut);
  for (const [id, { kind }] of supplies) if (kind === 'station') atStation(builder, id);
}

const chargerIds = ({ design }: Builder): Id[] =>
  Object.keys(design.devices).filter((id) => design.devices[id]!.kind === 'charger');

/** The inlet itself: its earth, its lock and release, and that the vehicle stays where it is. */
function fitted(builder: Builder, inlet: Id): void {
  const { tag, lock, inlet: key, current } = builder.design.inlets![inlet]!;
  const part = builder.design.parts[key ?? ''];
  const hasLock = (lock ?? (part?.kind === 'inlet' && part.data.lock ? 'motor' : 'none')) !== 'none';
  const subjects = [{ id: inlet, tag }];
  builder.add({
    gate,
    hazard: 'isolated',
    instrument: 'meter',
    template: templates['inlet-earth'],
    of: inlet,
    title: `Earth pin of ${tag} to the chassis`,
    do: `With nothing plugged in: from the earth pin of ${tag} to bare metal of the chassis, leads zeroed first. Look at drain, seals, strain relief and blanked cavities while you are there.`,
    why: 'A fault in the charger goes to earth through this pin, or through whoever touches the body.',
    subjects,
    touchedBy: [inlet],
    range: { kind: 'range', max: earthOhm, unit: 'Ω' },
    gaps: [],
    basis: [builder.row(`inlet:${inlet}:earth`, `earth of ${tag}`, earthOhm, 'Ω')],
  });
  if (hasLock)
    builder.add({
      gate,
      hazard: 'low-voltage',
      instrument: 'charge-tester',
      template: templates['inlet-release'],
      of: inlet,
      title: `Release of ${tag} by hand`,
      do: `Plug locked, the low voltage off: find the release and free the plug, as somebody would who has only the hand-over book. Read the seconds it takes.`,
      why: 'A lock that fails holds the vehicle at the post; force breaks inlet and cable.',
      subjects,
      touchedBy: [inlet],
      range: { kind: 'range', max: releaseS, unit: 's' },
      gaps: [],
      basis: [builder.row(`inlet:${inlet}:release`, `release of ${tag}`, releaseS, 's')],
    });
  builder.add({
    gate,
    hazard: 'isolated',
    instrument: 'meter',
    template: templates['inlet-inhibit'],
    of: inlet,
    title: `Drive blocked while ${tag} is plugged in`,
    do: 'Driven wheels off the ground, service disconnect out, plug in. Ask for drive in the usual way; read the enable of the inverter.',
    why: 'A vehicle that leaves with its plug in tears it off live.',
    subjects,
    touchedBy: [inlet],
    range: { kind: 'range', max: blockedV, unit: 'V' },
    gaps: [],
    basis: [builder.row(`inlet:${inlet}:inhibit`, `drive with ${tag} plugged in`, blockedV, 'V')],
  });
  if (current === 'mains') return;
  const touchV = touchLimitOf(builder.design);
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'meter',
    template: templates['inlet-weld'],
    of: inlet,
    title: `Contactors of ${tag} apart`,
    do: `High voltage on, ${tag} open and nothing in it, its contactors told to stay open: probes put on with the bus proved dead before. Read between its two DC contacts, then each of them to the chassis; record the highest.`,
    why: 'With a contactor welded, what lies under the lid is live.',
    subjects,
    touchedBy: [inlet],
    range: { kind: 'range', max: touchV, unit: 'V' },
    gaps: [],
    basis: [builder.row(`inlet:${inlet}:weld`, 'touch limit', touchV, 'V')],
  });
}

/** What flows at a supply, against what its way allows. */
function offered(builder: Builder, supply: Id): void {
  const { tag } = builder.design.supplies![supply]!;
  const found = builder.figures(figureId('charge.supply', supply, 'availableA'));
  const answer = builder.evaluation.runs[`charge.supply:${supply}`]?.result as SupplyAnswer | undefined;
  const busiestA = answer === undefined ? 0 : Math.max(...answer.result.phaseA);
  const availableA = found.values[0]!;
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'clamp-meter',
    template: templates['charge-current'],
    of: supply,
    title: `Current at ${tag}`,
    do: `Charge at ${tag}, or at the tester set to what it offers. Clamp each phase and then the neutral once the current stands; record the highest phase.`,
    why: 'What one reads in the app is what the charger believes; the breaker believes the clamp.',
    subjects: [{ id: supply, tag }],
    touchedBy: chargerIds(builder),
    range: {
      kind: 'range',
      min: busiestA * 0.85,
      max: availableA * (1 + aboveFraction),
      nominal: busiestA,
      unit: 'A',
    },
    gaps: [
      ...found.gaps,
      ...(answer === undefined && found.gaps.length === 0
        ? [
            {
              kind: 'needs' as const,
              figure: figureId('charge.supply', supply, 'outputW'),
              label: `charge at ${tag}`,
            },
          ]
        : []),
    ],
    basis: [...found.basis, builder.row(`charge:${supply}:phaseA`, `busiest phase at ${tag}`, busiestA, 'A')],
  });
}

/** Pilot and coding each limit alone, and a lost pilot ends the charge. */
function signals(builder: Builder, inlet: Id): void {
  const { tag } = builder.design.inlets![inlet]!;
  const subjects = [{ id: inlet, tag }];
  const limit = (id: 'charge-pilot' | 'charge-cable', title: string, act: string, currentA: number) =>
    builder.add({
      gate,
      hazard: 'live',
      instrument: 'clamp-meter',
      template: templates[id],
      of: inlet,
      title,
      do: act,
      why: 'A limit that is not obeyed shows only when the cable smells.',
      subjects,
      touchedBy: [inlet, ...chargerIds(builder)],
      range: { kind: 'range', max: currentA * (1 + aboveFraction), unit: 'A' },
      gaps: [],
      basis: [builder.row(`${id}:${inlet}`, title, currentA, 'A')],
    });
  limit(
    'charge-pilot',
    `Least pilot at ${tag}`,
    `Tester at ${tag}, pilot at 10 % (${smallest.pilotA} A), coding of the largest cable. Clamp each phase; record the highest.`,
    smallest.pilotA,
  );
  limit(
    'charge-cable',
    `Smallest cable at ${tag}`,
    `Tester at ${tag}, pilot at its most, coding 1500 Ω (${smallest.cableA} A). Clamp each phase; record the highest.`,
    smallest.cableA,
  );
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'charge-tester',
    template: templates['charge-lost'],
    of: inlet,
    title: `Pilot lost at ${tag}`,
    do: `While it charges from the tester, take the pilot away. Read the seconds until no current flows.`,
    why: 'A plug that is pulled breaks the pilot first: current must be gone before its contacts part.',
    subjects,
    touchedBy: [inlet, ...chargerIds(builder)],
    range: { kind: 'range', max: lostPilotS, unit: 's' },
    gaps: [],
    basis: [builder.row(`charge-lost:${inlet}`, `pilot lost at ${tag}`, lostPilotS, 's')],
  });
}

/** The charger ends where it is set to, while somebody stands beside it. */
function endsByItself(builder: Builder, charger: Id): void {
  const { tag, endV } = builder.design.devices[charger]!;
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'meter',
    template: templates['charge-stop'],
    of: charger,
    title: `${tag} stops by itself`,
    do: `A full charge with somebody beside it to the end: probes on the pack put on before, the monitor watched cell by cell. Record the voltage of the pack at which the current ends. If it passes what is expected, end the charge by hand.`,
    why: 'Everything behind it is there for the day on which it does not.',
    subjects: [{ id: charger, tag }],
    touchedBy: [charger],
    range:
      endV === undefined
        ? null
        : {
            kind: 'range',
            min: endV * (1 - 4 * endWithinFraction),
            max: endV * (1 + endWithinFraction),
            nominal: endV,
            unit: 'V',
          },
    gaps:
      endV === undefined
        ? [{ kind: 'not-given', path: `devices.${charger}.endV`, label: `where ${tag} ends` }]
        : [],
    basis: endV === undefined ? [] : [builder.row(`devices:${charger}:endV`, `end of ${tag}`, endV, 'V')],
  });
}

/** Each independent way is tried once, the charger told to go on. */
function cutOff(builder: Builder, cut: Id): void {
  const { tag, opens, voltageV = 0, armedAt } = builder.design.cuts![cut]!;
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'clamp-meter',
    template: templates['charge-cut'],
    of: cut,
    title: `${tag} ends the charge alone`,
    do: `Charging at the least current, the charger’s own end set aside by its maker’s procedure, or the cut’s threshold brought down to where the pack is. Let ${tag} act (${opens ?? 'its way'}) and clamp what still flows; then once more with one of its contacts held closed. Set back what was moved, and read it back. ${armedAt === undefined ? '' : `It is armed again at: ${armedAt}.`}`,
    why: 'A way that was never tried is a hope; one contact that sticks must not be enough to go on.',
    subjects: [{ id: cut, tag }],
    touchedBy: [cut, ...chargerIds(builder)],
    range: { kind: 'range', max: endedA, unit: 'A' },
    gaps: [],
    basis: [builder.row(`cuts:${cut}:voltageV`, `threshold of ${tag}`, voltageV, 'V')],
  });
}

/** At a station: no more than the way carries. */
function atStation(builder: Builder, supply: Id): void {
  const { tag } = builder.design.supplies![supply]!;
  const found = builder.figures(figureId('charge.station', supply, 'limitA'));
  const peak = builder.figures(figureId('charge.station', supply, 'peakA'));
  const limitA = found.values[0]!;
  builder.add({
    gate,
    hazard: 'live',
    instrument: 'clamp-meter',
    template: templates['charge-station'],
    of: supply,
    title: `Current at ${tag}`,
    do: `Charge at ${tag} for a quarter of an hour from a low state. Clamp a DC cable where its insulation is whole; record the highest, and look at the temperatures of the inlet’s contacts.`,
    why: 'The station gives what the vehicle asks for: an asked ampere too many is nobody else’s fault.',
    subjects: [{ id: supply, tag }],
    touchedBy: Object.keys(builder.design.inlets ?? {}),
    range: { kind: 'range', max: limitA * (1 + aboveFraction), nominal: peak.values[0]!, unit: 'A' },
    gaps: [...found.gaps, ...peak.gaps],
    basis: [...found.basis, ...peak.basis],
  });
}

export const chargeProcedure: Procedure = { templates, steps: charging };
