import type { Gap } from '../../ground/figure';
import { supplyDefaults, type Design, type Id, type InletItem, type SupplyItem } from '../../model/document';
import type { Reader } from '../../model/step';
import { acCharge, type AcChargeInput, type AcChargeResult } from './ac-charge';
import { chargersView, efficiencyAt, onSupply, type BuiltCharger } from './chargers';
import { proximity } from './proximity';

/** Whether an inlet takes what a supply of a kind gives. */
export const takes = ({ current }: InletItem, kind: SupplyItem['kind']): boolean =>
  current === 'both' || current === (kind === 'station' ? 'station' : 'mains');

/** The inlet that a supply goes through: as said, else the first that takes what it gives. */
export function inletOf(
  { kind, inlet }: SupplyItem,
  inlets: NonNullable<Design['inlets']>,
): { id: Id; item: InletItem } | null {
  const said = inlet === undefined ? undefined : inlets[inlet];
  if (said !== undefined) return { id: inlet!, item: said };
  const found = Object.keys(inlets).find((id) => takes(inlets[id]!, kind));
  return found === undefined ? null : { id: found, item: inlets[found]! };
}

/** What an inlet carries: typed, else of its part; null: nobody says. */
export function inletRating(
  { ratedA, stationA, inlet }: InletItem,
  parts: Design['parts'],
): { mainsA: number | null; stationA: number | null; sensors: number | null; lock: boolean | null } {
  const part = parts[inlet ?? ''];
  const data = part?.kind === 'inlet' ? part.data : undefined;
  return {
    mainsA: ratedA ?? data?.acA ?? null,
    stationA: stationA ?? data?.dcA ?? null,
    sensors: data?.temperatureSensors ?? null,
    lock: data?.lock ?? null,
  };
}

/** Of a supply of the mains: everything between socket and pack. */
export interface MainsWay {
  offersA: number | null;
  cableA: number | null;
  /** Smaller of wires and inlet. */
  wireA: number | null;
  breakerA: number | null;
  fraction: number;
  /** What else hangs on each phase. */
  othersA: [number, number, number];
  phases: 1 | 3;
  chargers: BuiltCharger[];
  /** Those that do something here. */
  serving: BuiltCharger[];
  gaps: Gap[];
}

/** What hangs on each phase of a supply before the chargers, A; none on phases that it does not have. */
export const othersOf = (supply: SupplyItem): [number, number, number] => {
  const on = (line: 1 | 2 | 3) =>
    line > (supply.phases ?? 1)
      ? 0
      : (supply.otherA ?? supplyDefaults.otherA) +
        (supply[`other${line}A`] ?? supplyDefaults[`other${line}A`]);
  return [on(1), on(2), on(3)];
};

/** Reads the way of a supply. */
export function mainsWay(subject: Id, read: Reader): MainsWay {
  const supply = read.at('supplies')![subject]!;
  const at = `supplies.${subject}`;
  const parts = read.at('parts');
  const gaps: Gap[] = [];
  const missing = (path: string, label: string) => gaps.push({ kind: 'not-given', path, label });
  const positive = (value: number | undefined, path: string, label: string) => {
    if (value !== undefined && !(value > 0))
      gaps.push({ kind: 'invalid', path, label, message: 'must be above 0' });
  };
  const { offersA, phases = 1, tag } = supply;
  const lines = phases === 1 ? ([1] as const) : ([1, 2, 3] as const);
  const besides = ['otherA', ...lines.map((line) => `other${line}A` as const)] as const;
  positive(offersA, `${at}.offersA`, `what the pilot of ${tag} offers`);
  positive(supply.breakerA, `${at}.breakerA`, `breaker of ${tag}`);
  positive(supply.phaseVoltageV, `${at}.phaseVoltageV`, `voltage of ${tag}`);
  for (const field of besides)
    if (!((supply[field] ?? 0) >= 0))
      gaps.push({
        kind: 'invalid',
        path: `${at}.${field}`,
        label: `other loads at ${tag}`,
        message: 'must be 0 or more',
      });
  const othersA = othersOf(supply);
  // A socket in the house has one; a wall box may have either.
  if (supply.phases === undefined && supply.kind === 'wall box') missing(`${at}.phases`, `phases of ${tag}`);
  if (offersA === undefined) missing(`${at}.offersA`, `what the pilot of ${tag} offers`);
  let cableA: number | null = offersA ?? null;
  if (supply.cableOhm !== undefined) {
    const parsed = proximity.parse({ ohm: supply.cableOhm });
    cableA = parsed.ok ? proximity.calculate(parsed.input).result.cableA : null;
    if (cableA === null)
      gaps.push({
        kind: 'invalid',
        path: `${at}.cableOhm`,
        label: `coding of the cable at ${tag}`,
        message: 'is none of 1500, 680, 220 and 100 Ω within 10 %',
      });
  }
  const found = inletOf(supply, read.at('inlets') ?? {});
  let wireA: number | null = null;
  if (found === null) missing('inlets', 'an inlet for the mains');
  else {
    const { mainsA } = inletRating(found.item, parts);
    positive(found.item.wireA, `inlets.${found.id}.wireA`, `what the wires behind ${found.item.tag} carry`);
    positive(found.item.ratedA, `inlets.${found.id}.ratedA`, `what ${found.item.tag} carries`);
    if (found.item.wireA === undefined)
      missing(`inlets.${found.id}.wireA`, `what the wires behind ${found.item.tag} carry`);
    else wireA = Math.min(found.item.wireA, mainsA ?? Infinity);
  }
  const breaker = parts[supply.breaker ?? ''];
  const breakerA = supply.breakerA ?? (breaker?.kind === 'breaker' ? breaker.data.ratedA : null);
  const fraction = supply.continuousFraction ?? supplyDefaults.continuousFraction;
  const fullest = lines.reduce<1 | 2 | 3>(
    (most, line) => (othersA[line - 1]! > othersA[most - 1]! ? line : most),
    1,
  );
  if (breakerA !== null && !(breakerA * fraction > othersA[fullest - 1]!))
    gaps.push({
      kind: 'invalid',
      path: `${at}.${(supply[`other${fullest}A`] ?? 0) > (supply.otherA ?? 0) ? `other${fullest}A` : 'otherA'}`,
      label: `other loads at ${tag}`,
      message: 'leave nothing of the breaker',
    });
  const built = read.shared(chargersView);
  gaps.push(...built.flatMap((one) => one.gaps));
  if (built.length === 0) missing('devices', 'a charger for the mains');
  const chargers = built.flatMap(({ charger }) => (charger === null ? [] : [charger]));
  return {
    offersA: offersA ?? null,
    cableA,
    wireA,
    breakerA,
    fraction,
    othersA,
    phases,
    chargers,
    serving: chargers.filter((one) => onSupply(one, phases) !== null),
    gaps,
  };
}

/** What flows from a supply into a pack of this voltage, efficiencies brought together with the load. */
export function mainsFlow(
  way: MainsWay,
  phaseVoltageV: number,
  packV: number,
): { input: AcChargeInput; result: AcChargeResult } | { problem: { path: string; message: string } } {
  const { offersA, cableA, wireA, breakerA, fraction, othersA, phases, serving } = way;
  const hangs = serving.map((charger) => ({ charger, ...onSupply(charger, phases)! }));
  let efficiencies = serving.map((charger) => efficiencyAt(charger, 1));
  for (let turn = 0; ; turn += 1) {
    const parsed = acCharge.parse({
      phases,
      phaseVoltageV,
      pilotA: offersA!,
      cableA: cableA!,
      inletWireA: wireA!,
      // What hangs beside the chargers is theirs no more.
      ...(breakerA !== null && { breakerA, beforeA: othersA }),
      continuousFraction: fraction,
      chargers: hangs.map(({ charger, phase, maxInputA }, i) => ({
        id: charger.tag,
        phase,
        maxInputA,
        efficiency: efficiencies[i]!,
        maxOutputA: charger.maxOutputA,
        minV: charger.minV,
        maxV: charger.maxV,
      })),
      packV,
    });
    if (!parsed.ok) return { problem: parsed.issues[0]! };
    const { result } = acCharge.calculate(parsed.input);
    const next = hangs.map(({ charger }, i) => {
      // Full power: all that it draws on the phases that it is made for.
      const lines = charger.phase === 'all' ? 3 : 1;
      const full = lines * phaseVoltageV * charger.maxInputA * efficiencyAt(charger, 1);
      return result.chargers[i]!.outputW === 0
        ? efficiencies[i]!
        : efficiencyAt(charger, Math.min(1, result.chargers[i]!.outputW / full));
    });
    const moved = Math.max(0, ...next.map((one, i) => Math.abs(one - efficiencies[i]!)));
    efficiencies = next;
    if (moved < 1e-7 || turn === 40) return { input: parsed.input, result };
  }
}
