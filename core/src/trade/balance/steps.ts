import { balanceDefaults, bleedOf, type BalanceSchool } from '../../model/document';
import type { Check, Gap } from '../../ground/figure';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import { judge, type Reader, type StepDefinition } from '../../model/step';
import { balanceTimeRules } from './balance-time';
import { balanceCells } from './cells';
import { balanceRules } from './rules';

const notGiven = (field: string, label: string): Gap => ({
  kind: 'not-given',
  path: `pack.balance.${field}`,
  label,
});

/** Checks about the load: left out where cells are levelled without one. */
const asksForLoad = (school: BalanceSchool | undefined, given: number | undefined, checks: Check[]) =>
  school === undefined || school === 'bottom' || given !== undefined ? checks : [];

/** The plan of balancing against the cells it is for. */
const balanceStep: StepDefinition = {
  id: 'balance.plan',
  version: 1,
  subjects: () => ['pack'],
  compute(subject, read: Reader) {
    const plan = read.at('pack').balance ?? {};
    const cells = balanceCells({
      modules: read.at('modules'),
      strings: read.at('strings'),
      parts: read.at('parts'),
    });
    const data = [...new Set(cells.map((cell) => cell.data))];
    const noCells: Gap[] =
      data.length === 0 ? [{ kind: 'not-given', path: 'strings', label: 'modules and their kind' }] : [];
    const least = (pick: (one: (typeof data)[number]) => number) => Math.min(...data.map(pick));
    const { targetV, cutOffV, loadOhm, engageV } = plan;
    const bleed = bleedOf({
      pack: read.at('pack'),
      boards: read.at('boards') ?? {},
      parts: read.at('parts'),
    });
    const bleedCurrentA = bleed?.currentA;
    const toleranceV = plan.toleranceV ?? balanceDefaults.toleranceV;
    const gapOf = (value: number | undefined, field: string, label: string) => [
      ...noCells,
      ...(value === undefined ? [notGiven(field, label)] : []),
    ];
    const leadA = least(({ senseLeadLimitA }) => senseLeadLimitA);
    const minV = Math.max(...data.map(({ cell }) => cell.minV));
    const maxV = least(({ cell }) => cell.maxV);
    const carryA = least(({ continuousA }) => continuousA);
    const loadGaps: Gap[] =
      loadOhm !== undefined && loadOhm <= 0
        ? [
            {
              kind: 'invalid',
              path: 'pack.balance.loadOhm',
              label: 'load resistor',
              message: 'must be above 0 Ω',
            },
          ]
        : gapOf(loadOhm, 'loadOhm', 'load resistor');
    const startA = loadGaps.length > 0 ? 0 : maxV / loadOhm!;
    const bleeds = (bleedCurrentA ?? 0) > 0;
    return {
      figures: [],
      checks: [
        judge(
          balanceTimeRules.leadLimit,
          [subject],
          gapOf(bleedCurrentA, 'bleedCurrentA', 'what the monitor bleeds'),
          // What a board bleeds by its part is judged at the board.
          bleed?.typed === true && (bleedCurrentA ?? 0) > leadA
            ? `The monitor bleeds ${formatQuantity(bleedCurrentA!, 'A')}; the sense leads may carry ${formatQuantity(leadA, 'A')}.`
            : null,
          [
            { label: 'bleed current', value: bleedCurrentA ?? 0, unit: 'A' },
            { label: 'limit of the sense leads', value: leadA, unit: 'A' },
          ],
        ),
        judge(
          balanceRules.targetOutside,
          [subject],
          gapOf(targetV, 'targetV', 'voltage at which cells are level'),
          (targetV ?? 0) - toleranceV < minV || (targetV ?? 0) + toleranceV > maxV
            ? `Level at ${formatNumber(targetV ?? 0, 4)} V ± ${formatNumber(toleranceV * 1000)} mV; the cells’ window is ${formatNumber(minV)} to ${formatNumber(maxV)} V.`
            : null,
          [
            { label: 'target', value: targetV ?? 0, unit: 'V' },
            { label: 'tolerance', value: toleranceV, unit: 'V' },
            { label: 'lowest cell voltage', value: minV, unit: 'V' },
            { label: 'highest cell voltage', value: maxV, unit: 'V' },
          ],
        ),
        ...asksForLoad(plan.school, cutOffV, [
          judge(
            balanceRules.cutOffLow,
            [subject],
            gapOf(cutOffV, 'cutOffV', 'cut-off of the load'),
            (cutOffV ?? Infinity) < minV
              ? `The load cuts off at ${formatNumber(cutOffV!, 4)} V; the cells’ minimum is ${formatNumber(minV)} V.`
              : null,
            [
              { label: 'cut-off', value: cutOffV ?? 0, unit: 'V' },
              { label: 'lowest cell voltage', value: minV, unit: 'V' },
            ],
          ),
        ]),
        ...(engageV === undefined
          ? []
          : [
              judge(
                balanceRules.onAgainLow,
                [subject],
                cutOffV === undefined ? [notGiven('cutOffV', 'cut-off of the load')] : [],
                cutOffV !== undefined && engageV <= cutOffV
                  ? `Off at ${formatNumber(cutOffV, 4)} V and on again at ${formatNumber(engageV, 4)} V.`
                  : null,
                [
                  { label: 'cut-off', value: cutOffV ?? 0, unit: 'V' },
                  { label: 'on again', value: engageV, unit: 'V' },
                ],
              ),
            ]),
        ...asksForLoad(plan.school, loadOhm, [
          judge(
            balanceRules.loadCurrent,
            [subject],
            loadGaps,
            startA > carryA
              ? `${formatQuantity(loadOhm!, 'Ω')} draw ${formatNumber(startA)} A from a full cell; the modules may carry ${formatNumber(carryA)} A.`
              : null,
            [
              { label: 'current of the load', value: startA, unit: 'A' },
              { label: 'continuous current', value: carryA, unit: 'A' },
              { label: 'load', value: loadOhm ?? 0, unit: 'Ω' },
            ],
          ),
        ]),
        judge(
          balanceRules.unlikeSchool,
          [subject],
          [
            ...(plan.school === undefined ? [notGiven('school', 'school of balancing')] : []),
            ...gapOf(bleedCurrentA, 'bleedCurrentA', 'what the monitor bleeds'),
          ],
          plan.school === 'bottom' && bleeds
            ? `Level at empty, and the monitor bleeds ${formatQuantity(bleedCurrentA!, 'A')}.`
            : null,
          [{ label: 'bleed current', value: bleedCurrentA ?? 0, unit: 'A' }],
        ),
      ],
    };
  },
};

export const balanceSteps: StepDefinition[] = [balanceStep];
