import type { Gap } from '../../ground/figure';
import { coolingDefaults, type Id } from '../../model/document';
import type { Part } from '../../model/parts';
import { dedupe, type Reader } from '../../model/step';
import { cellLimits } from '../charging';
import { readPackLayout } from '../pack';
import {
  contactKPerW,
  coolingCases,
  demandOf,
  doingIn,
  plateShares,
  readsCase,
  type BandEnd,
  type CoolingCase,
} from './cases';
import { isByCore } from './core-band';
import { fluidAt } from './fluid';
import { lackOf } from './lack';
import type { LoopElement } from './laws';
import { isPlate, platesAlike, running, slicesOf, worked, type LoopInCase } from './loop-answer';
import { loopBalance, type LoopBalanceResult } from './loop-balance';
import type { Piece } from './pieces';
import { settle, type SettledLoop } from './settle';
import { solveLoop } from './solve';
import { servedShare, type Exchanger } from './temperatures';

/** The largest of what is known; null: nothing is. */
export const most = (values: readonly (number | null)[]) =>
  values.reduce<number | null>(
    (top, value) => (value === null ? top : Math.max(top ?? -Infinity, value)),
    null,
  );

/** Everything that figures and findings of a loop go by: its flows, its temperatures in each case, and what is missing. */
export type LoopState = ReturnType<typeof loopState>;

/** Solves a loop as it is connected, cold for its flows and in every case that is asked for its temperatures. */
export function loopState(subject: Id, read: Reader) {
  const slices = slicesOf(read);
  const { tag } = slices.loops![subject]!;
  const { pieces, elements, gaps, table } = worked(slices, subject);
  const nameOf = (id: Id) => pieces.find((one) => one.id === id)?.item.tag ?? id;
  const airC = slices.cooling?.hotC ?? coolingDefaults.hotC;
  const limits = cellLimits(slices.cooling, readPackLayout(read).layout?.part.data.chemistry);
  const pumps = elements.filter(({ kind }) => kind === 'pump');
  const isWhole = gaps.length === 0 && pumps.length > 0;
  const noPump: Gap[] =
    gaps.length > 0 ? gaps : [{ kind: 'not-given', path: `loops.${subject}`, label: `pump of ${tag}` }];
  const ground =
    slices.joins?.[slices.loops![subject]!.tank ?? ''] === undefined
      ? undefined
      : slices.loops![subject]!.tank;
  const groundNode =
    ground !== undefined && elements.some(({ from, to }) => from === ground || to === ground)
      ? ground
      : (pumps[0]?.from ?? '');
  const shares = plateShares(slices.plumbing, slices.modules);

  const cold = isWhole ? solveLoop(elements, fluidAt(table, airC), groundNode) : null;
  const cases = isWhole ? coolingCases.filter((at) => readsCase(read, at)).map((at) => inCase(at)) : [];
  const balance = cold === null ? [] : platesAlike(pieces).map((plates) => balanceOf(plates));
  const loads = pieces.filter(({ item }) => item.kind === 'plate' || item.kind === 'jacket');
  const indexOf = new Map(elements.map(({ id }, i) => [id, i]));

  function inCase(at: CoolingCase, end: BandEnd = 'least'): LoopInCase {
    const demand = demandOf(read, at);
    const { doing, gaps: own } = doingIn(at, pieces, demand, shares, slices, end);
    const present = running(pieces, at);
    const settled = settle(
      present,
      table,
      own.length > 0 ? new Map() : doing,
      airC,
      groundNode,
      present.length === elements.length ? cold!.flows : null,
    );
    const flows = elements.map(({ id }) => {
      const i = present.findIndex((one) => one.id === id);
      return i < 0 ? 0 : settled.solved.flows[i]!;
    });
    return {
      at,
      settled: { ...settled, solved: { ...settled.solved, flows }, temperatures: spread(settled, present) },
      heatW: Object.fromEntries([...doing].map(([id, { heatW = 0 }]: [string, Exchanger]) => [id, heatW])),
      radiators: Object.fromEntries(
        [...doing].flatMap(([id, { radiator }]) =>
          radiator === undefined ? [] : [[id, { uaWPerK: radiator.uaWPerK, airKgPerS: radiator.airKgPerS }]],
        ),
      ),
      gaps: own,
    };
  }
  /** Temperatures by the elements of the whole loop. */
  function spread({ temperatures }: SettledLoop, present: readonly LoopElement[]) {
    if (temperatures === null) return null;
    return {
      ...temperatures,
      elements: elements.map(({ id }) => {
        const i = present.findIndex((one) => one.id === id);
        return i < 0 ? null : temperatures.elements[i]!;
      }),
    };
  }
  function balanceOf(plates: Id[]): { plates: Id[]; result: LoopBalanceResult } {
    const { densityKgM3, viscosityMPaS } = fluidAt(table, airC);
    const { result } = loopBalance.calculate({
      fluid: { densityKgM3, viscosityMPaS },
      elements,
      groundNode,
      branches: plates,
    });
    return { plates, result };
  }

  const flowOf = (id: Id) => (cold === null ? null : cold.flows[indexOf.get(id)!]!);
  const pump = pumps[0];
  const pumpFlow = pump === undefined ? null : flowOf(pump.id);
  const share =
    cold === null || loads.length === 0
      ? null
      : servedShare(elements, cold.flows, new Set(loads.map(({ id }) => id)));
  const worst = balance.reduce<number | null>((most, { result }) => {
    const own = result.worstImbalanceFraction;
    return own === null ? most : Math.max(most ?? 0, own);
  }, null);

  /** Temperature of coolant and cells at each load of a case. */
  const surfaceOf = (piece: Piece, one: LoopInCase) => {
    const at = one.settled.temperatures?.elements[indexOf.get(piece.id)!] ?? null;
    const contact = contactKPerW(piece.item, slices.parts[piece.item.plate ?? ''] as Part | undefined);
    if (at === null || contact === null) return null;
    return (at.inC + at.outC) / 2 + contact * (one.heatW[piece.id] ?? 0);
  };
  const known = cases.filter((one) => one.gaps.length === 0);
  const cooled = pieces.filter((piece) => isPlate(piece) && (shares.get(piece.id) ?? 0) > 0);
  const lack = lackOf({ pieces, loads, known, parts: slices.parts, balance, indexOf, flowOf });
  const hottestC = most(known.flatMap((one) => [...(one.settled.temperatures?.nodes.values() ?? [])]));
  const byCore = pieces.filter(({ item }) => isByCore(item, slices.parts));
  /** What it would be, were every core as good as its size may be; null: none is known by its size alone. */
  const hottestBestC =
    byCore.length === 0 || cases.some((one) => one.gaps.length > 0)
      ? null
      : most(
          cases.flatMap((one) => [...(inCase(one.at, 'most').settled.temperatures?.nodes.values() ?? [])]),
        );
  const platesC = most(
    known.flatMap((one) =>
      cooled.map((piece) => one.settled.temperatures?.elements[indexOf.get(piece.id)!]?.inC ?? null),
    ),
  );
  const cellsC = most(known.flatMap((one) => cooled.map((piece) => surfaceOf(piece, one))));
  const contacts = cooled.map(({ item }) =>
    contactKPerW(item, slices.parts[item.plate ?? ''] as Part | undefined),
  );
  /** From the cells on each plate to its coolant, W/K: no more than its flow can carry, however good its contact. */
  const carriedAt = (temperatureC: number, flows: readonly number[]) => {
    const { densityKgM3, specificHeatJPerKgK } = fluidAt(table, temperatureC);
    return new Map(
      cooled.map(({ id }, i): [Id, number] => {
        const flowWPerK = (Math.abs(flows[indexOf.get(id)!]!) * densityKgM3 * specificHeatJPerKgK) / 60_000;
        return [id, flowWPerK === 0 ? 0 : flowWPerK * -Math.expm1(-1 / (contacts[i]! * flowWPerK))];
      }),
    );
  };
  const plateWPerK = cold === null || contacts.includes(null) ? null : carriedAt(airC, cold.flows);
  const sumOf = (carried: ReadonlyMap<Id, number> | null) =>
    carried === null ? null : [...carried.values()].reduce((sum, own) => sum + own, 0);
  const packUaWPerK = sumOf(plateWPerK);
  /** The same in the coldest night, when coolant is thick, where a heater stands in the loop. */
  const coldC = slices.cooling?.coldC ?? coolingDefaults.coldC;
  const isWarmed = cooled.length > 0 && pieces.some(({ item }) => item.kind === 'heater');
  const frosty =
    plateWPerK === null || !isWarmed ? null : solveLoop(elements, fluidAt(table, coldC), groundNode);
  const coldWPerK = frosty === null ? null : sumOf(carriedAt(coldC, frosty.flows));
  const caseGaps = dedupe(cases.flatMap((one) => one.gaps));
  const standing: Gap[] = isWhole ? caseGaps : noPump;
  /** The hottest of all cases is known once each of them is. */
  const ofAllCases = (value: number | null) => (caseGaps.length > 0 ? null : value);
  /** A plate with heat and without flow: its cells settle nowhere. */
  const isUncooled = known.some((one) =>
    cooled.some(
      ({ id }) =>
        (one.heatW[id] ?? 0) > 0 && (one.settled.temperatures?.elements[indexOf.get(id)!] ?? null) === null,
    ),
  );
  return {
    slices,
    tag,
    pieces,
    elements,
    gaps,
    table,
    nameOf,
    airC,
    limits,
    pumps,
    noPump,
    groundNode,
    cold,
    cases,
    balance,
    loads,
    indexOf,
    flowOf,
    pumpFlow,
    share,
    worst,
    surfaceOf,
    known,
    lack,
    cooled,
    shares,
    hottestC,
    byCore,
    hottestBestC,
    platesC,
    cellsC,
    plateWPerK,
    coldC,
    isWarmed,
    coldWPerK,
    packUaWPerK,
    caseGaps,
    standing,
    isUncooled,
    ofAllCases,
  };
}
