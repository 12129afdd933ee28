import { figureId, type Figure, type Gap } from '../../ground/figure';
import type { CheckValue } from '../../ground/finding';
import { formatNumber } from '../../ground/quantity';
import { lowVoltageDefaults, type Id } from '../../model/document';
import { judge, type StepDefinition } from '../../model/step';
import { loomRules } from './loom-rules';
import { carriedA, waysView } from './loom-views';
import { sameColour, wireWay } from './looms';
import { wireAmpacityA, wireDropV } from './wire-12v';

const n = formatNumber;

/** Each wire of a loom: its length, what it carries, and whether it may. */
export const wireStep: StepDefinition = {
  id: 'looms.wire',
  version: 1,
  subjects: ({ wires = {} }) => Object.keys(wires),
  compute(subject, read) {
    const wire = read.at('wires')![subject]!;
    const { tag, from, to, system, fuseA, twistedWith, was, colour } = wire;
    const code = wire.code === undefined ? undefined : read.at('colours')?.[wire.code];
    const byCode =
      code === undefined
        ? 0
        : Object.values(read.at('wires') ?? {}).filter((one) => one.code === wire.code).length;
    const at = `wires.${subject}`;
    const parts = read.at('parts');
    const part = parts[wire.wire ?? ''];
    const chosen = part?.kind === 'wire' ? part.data : null;
    const ends = read.at('ends') ?? {};
    const way = wireWay(wire, read.shared(waysView));
    const noWay: Gap[] =
      way !== null
        ? []
        : from === undefined || to === undefined
          ? [
              {
                kind: 'not-given',
                path: `${at}.${from === undefined ? 'from' : 'to'}`,
                label: `end of ${tag}`,
              },
            ]
          : [{ kind: 'not-given', path: `${at}.lengthM`, label: `length of ${tag}: no bundles lead there` }];
    const current = carriedA(wire, read);
    const noCurrent: Gap[] =
      current.value !== null
        ? []
        : current.gaps.length > 0
          ? current.gaps
          : [{ kind: 'not-given', path: `${at}.currentA`, label: `current of ${tag}` }];
    const noWire: Gap[] =
      chosen === null ? [{ kind: 'not-given', path: `${at}.wire`, label: `wire of ${tag}` }] : [];
    const ambientC = read.at('lowVoltage')?.ambientC ?? lowVoltageDefaults.ambientC;
    const carriesA = chosen === null ? null : wireAmpacityA(chosen.areaMm2, ambientC, chosen.maxC);
    const dropV =
      chosen === null || current.value === null || way === null
        ? null
        : wireDropV(chosen.areaMm2, current.value, way.lengthM);
    const figure = (
      name: 'lengthM' | 'currentA' | 'dropV',
      label: string,
      unit: string,
      value: number | null,
      gaps: Gap[],
      formula: string,
      source: string,
    ): Figure => ({
      id: figureId('looms.wire', subject, name),
      label,
      unit,
      value,
      gaps: value === null ? gaps : [],
      working: value === null ? [] : [{ symbol: 'x', label, formula, inputs: [], value, unit, source }],
    });
    const feeds = system === undefined || system === 'low voltage';
    const asked = feeds && was !== 'capped';
    const isOpen = was !== 'capped' && (from === undefined || to === undefined);
    const pair = twistedWith === undefined ? undefined : read.at('wires')?.[twistedWith];
    const together =
      pair === undefined || (pair.from === from && pair.to === to) || (pair.from === to && pair.to === from);
    const isReturn = ends[to ?? '']?.kind === 'ground' || ends[from ?? '']?.kind === 'ground';
    const amps = current.value ?? 0;
    /** The one load that it feeds: what is behind its fuse is behind the load’s. */
    const alone = wire.carries?.length === 1 ? read.at('loads')?.[wire.carries[0]!] : undefined;
    const isSmall = feeds && fuseA !== undefined && current.value !== null && fuseA < amps * (1 - 1e-9);
    const ways = read.shared(waysView);
    const laid = wire.lengthM === undefined ? null : wireWay({ from, to }, ways);
    const leads = (end: Id) => ways(end).size > 1;
    // Both ends hang on bundles, or it is to be as it is: then it is no matter of not being laid yet.
    const isApart =
      way === null &&
      from !== undefined &&
      to !== undefined &&
      (wire.state === 'frozen' || (leads(from) && leads(to)));
    const v = (label: string, value: number, unit: string): CheckValue => ({ label, value, unit });
    const most = Math.max(amps, fuseA ?? 0);
    return {
      figures: [
        figure(
          'lengthM',
          `Length of ${tag}`,
          'm',
          way?.lengthM ?? null,
          noWay,
          'Σ l',
          'Bundles on its way, or as typed',
        ),
        // Signals and sense take next to nothing: nothing is asked of them, and nothing said.
        ...(!feeds && current.value === null
          ? []
          : [
              figure(
                'currentA',
                `Current of ${tag}`,
                'A',
                current.value,
                noCurrent,
                'Σ I',
                'Loads that it carries, or as typed',
              ),
              figure(
                'dropV',
                `Drop along ${tag}`,
                'V',
                dropV,
                [...noWire, ...noCurrent, ...noWay],
                'I·r·l',
                'Copper at 60 °C, one way',
              ),
            ]),
      ],
      checks: [
        judge(
          loomRules.thin,
          [subject],
          asked ? [...noWire, ...noCurrent] : [],
          carriesA !== null && most > carriesA * (1 + 1e-9)
            ? `${tag}: ${n(chosen!.areaMm2)} mm² carry ${n(carriesA)} A; ${
                amps > carriesA ? `${n(amps)} A flow` : `its fuse lets ${n(fuseA!)} A flow`
              }.`
            : null,
          [
            v('area', chosen?.areaMm2 ?? 0, 'mm²'),
            v('carries', carriesA ?? 0, 'A'),
            v('flows', amps, 'A'),
            v('fuse', fuseA ?? 0, 'A'),
          ],
          { parts: wire.wire === undefined ? [] : [wire.wire] },
        ),
        judge(
          loomRules.fuseSmall,
          [subject],
          feeds && fuseA !== undefined ? current.gaps : [],
          isSmall ? `${tag} carries ${n(amps)} A behind a fuse of ${n(fuseA)} A.` : null,
          [v('flows', amps, 'A'), v('fuse', fuseA ?? 0, 'A')],
          { also: wire.carries ?? [] },
        ),
        judge(
          loomRules.fuseDiffers,
          [subject],
          [],
          // Too small for what flows is said as that.
          alone?.fuseA !== undefined && fuseA !== undefined && alone.fuseA !== fuseA && !isSmall
            ? `${tag} has ${n(fuseA)} A; ${alone.tag} is given ${n(alone.fuseA)} A.`
            : null,
          [v('wire', fuseA ?? 0, 'A'), v('load', alone?.fuseA ?? 0, 'A')],
          { also: wire.carries ?? [] },
        ),
        judge(
          loomRules.noWay,
          [subject],
          isApart ? [] : noWay,
          isApart
            ? `${tag}: ${n(0)} ways lead from ${ends[from]?.tag ?? from} to ${ends[to]?.tag ?? to}.`
            : null,
          [v('ways', way === null ? 0 : 1, '')],
        ),
        ...(wire.lengthM === undefined || laid === null
          ? []
          : [
              judge(
                loomRules.wireShort,
                [subject],
                [],
                wire.lengthM < laid.lengthM - 1e-9
                  ? `${tag} is given ${n(wire.lengthM)} m; its way through the bundles has ${n(laid.lengthM)} m.`
                  : null,
                [v('given', wire.lengthM, 'm'), v('way', laid.lengthM, 'm')],
                { also: laid.bundles },
              ),
            ]),
        judge(
          loomRules.unfused,
          [subject],
          [],
          feeds && !isReturn && fuseA === undefined && (wire.carries?.length ?? 0) > 0 && was !== 'capped'
            ? `${tag} feeds ${n(wire.carries!.length)} loads without a fuse.`
            : null,
          [v('loads', wire.carries?.length ?? 0, '')],
        ),
        judge(
          loomRules.open,
          [subject],
          [],
          isOpen
            ? `${tag} has ${n((from === undefined ? 0 : 1) + (to === undefined ? 0 : 1))} of 2 ends.`
            : null,
          [v('ends', (from === undefined ? 0 : 1) + (to === undefined ? 0 : 1), ''), v('of', 2, '')],
        ),
        ...(code?.colour === undefined
          ? []
          : [
              judge(
                loomRules.colourDiffers,
                [subject],
                [],
                colour === undefined || sameColour(code.colour, colour)
                  ? null
                  : `${tag} is ${colour}; ${code.tag} has ${code.colour}, which ${n(byCode)} wires go by.`,
                [v('wires that go by it', byCode, '')],
                { also: [wire.code!] },
              ),
            ]),
        judge(
          loomRules.twist,
          [subject],
          [],
          together ? null : `${tag} is twisted with ${pair.tag}; ${n(0)} of their ends are the same.`,
          [v('ends that are the same', together ? 2 : 0, '')],
        ),
      ],
    };
  },
};
