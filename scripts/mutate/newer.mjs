/** The same for ways, coolant, charging, low voltage and monitoring, by the tests that go with them. */
const trade = (file, from, to, tests, project = 'demo') => ({
  project,
  file: `core/src/trade/${file}`,
  from,
  to,
  tests,
});
const charge = 'demo/charging|demo/mistakes|demo/rules';
const low = 'demo/low-voltage|demo/mistakes|demo/rules';
const sense = 'demo/sense|demo/mistakes|demo/rules';
const cool = 'demo/cooling|demo/mistakes|demo/rules';
const route = 'demo/routes|demo/mistakes|demo/rules';

const intake = 'balance/intake|balance/choose-set|balance/outliers';

export const newer = [
  // What comes in, held against its batch.
  trade(
    'balance/intake.ts',
    "outlier: { side: 'low', leastFraction: 0.5 }",
    "outlier: { side: 'both', leastFraction: 0.5 }",
    intake,
    'core',
  ),
  trade(
    'balance/intake.ts',
    "outlier: { side: 'high', leastFraction: 0.1 }",
    "outlier: { side: 'low', leastFraction: 0.1 }",
    intake,
    'core',
  ),
  trade('balance/intake.ts', '(cells * waitH)', 'waitH', intake, 'core'),
  trade('balance/intake.ts', 'waitH < shortestWaitH', 'waitH < 0', intake, 'core'),
  trade(
    'balance/intake.ts',
    'loss.mvPerDay > mostLossMvPerDay || scores.outliers[at]!',
    'loss.mvPerDay > mostLossMvPerDay',
    intake,
    'core',
  ),
  trade('balance/intake.ts', 'seen.drained === false', 'seen.drained === true', intake, 'core'),
  trade(
    'balance/outliers.ts',
    'Math.abs(value - median) > least',
    'Math.abs(value - median) > 0',
    intake,
    'core',
  ),
  trade(
    'balance/outliers.ts',
    "side === 'low' ? value < median : value > median",
    'value !== median',
    intake,
    'core',
  ),
  // The cable between two sources.
  trade('low-voltage/source-step.ts', '2 * sourceLengthM', 'sourceLengthM', 'demo/low-voltage'),
  trade('low-voltage/source-step.ts', 'given.length < 2', 'given.length < 1', 'demo/low-voltage'),
  trade(
    'low-voltage/source-step.ts',
    'carriesA !== null && !tooHot &&',
    'carriesA !== null &&',
    'demo/low-voltage',
  ),
  trade(
    'low-voltage/source-step.ts',
    'Math.max(converterA ?? 0, chargerA ?? 0)',
    '(converterA ?? 0) + (chargerA ?? 0)',
    'demo/low-voltage',
  ),
  // From the socket to the cells.
  trade(
    'charging/supply-inputs.ts',
    'Math.min(found.item.wireA, mainsA ?? Infinity)',
    'found.item.wireA',
    charge,
  ),
  trade('charging/supply-inputs.ts', 'breakerA - otherA / fraction', 'breakerA - otherA', charge),
  trade('charging/supply-inputs.ts', 'Math.min(1, result.chargers[i]!.outputW / full)', '1', charge),
  trade('charging/mains-limits.ts', 'wireA: 1e6, breakerA: null', 'breakerA: null', charge),
  trade('charging/branch-step.ts', "(charger.phase === 'all' ? 3 : 1) * phaseV", 'phaseV', charge),
  trade(
    'charging/branch-step.ts',
    '(continuousA * outputV) / (efficiency * volts)',
    '(continuousA * outputV * efficiency) / volts',
    charge,
  ),
  trade('charging/winter-step.ts', 'Math.max(coldC, chargeMinC)', 'coldC', charge),
  trade('charging/winter-step.ts', 'run.result.minutes + warmMinutes', 'run.result.minutes', charge),
  trade(
    'charging/pack-side.ts',
    '(ohm.value * parallel) / layout.seriesCells',
    'ohm.value / layout.seriesCells',
    charge,
  ),
  trade(
    'charging/supply-figures.ts',
    'run.result.energyToPackKWh / efficiency',
    'run.result.energyToPackKWh * efficiency',
    charge,
  ),
  trade('charging/ladder-step.ts', 'perCellV + spreadV > maxV', 'perCellV > maxV', charge),
  trade('charging/cell-limits.ts', 'return strings * interpolate', 'return interpolate', charge),
  // 12 V.
  trade(
    'low-voltage/load-current.ts',
    'load.steadyPower === true ? system.nominalV : fedV(system)',
    'fedV(system)',
    low,
  ),
  trade(
    'low-voltage/load-step.ts',
    'run.input.lengthM + run.input.returnLengthM);',
    'run.input.lengthM);',
    low,
  ),
  trade('low-voltage/budget-step.ts', 'drivingW / (system.efficiency ?? 1)', 'drivingW', low),
  trade('low-voltage/budget-step.ts', '(watts * systemV) / batteryV', 'watts', low),
  trade(
    'low-voltage/budget-step.ts',
    'one.peakW - one.watts * one.dutyFraction),',
    'one.peakW - one.watts),',
    low,
  ),
  trade(
    'low-voltage/budget-step.ts',
    'peakA - converterA > system.dischargeA',
    'peakA > system.dischargeA',
    low,
  ),
  trade('low-voltage/group-step.ts', 'Math.min(...fuses);', 'Math.max(...fuses);', low),
  trade(
    'low-voltage/budget-step.ts',
    '(peakA * systemV * system.resistanceOhm) / system.nominalV',
    'peakA * system.resistanceOhm',
    low,
  ),
  // What watches the cells.
  trade('monitoring/spin.ts', 'data.ratedVoltageV >= highestV', 'data.ratedVoltageV >= voltageV', sense),
  trade('monitoring/spin-step.ts', 'one.cellsInSeries * one.cell.maxV', 'one.cellsInSeries * cellV', sense),
  trade('monitoring/map-inputs.ts', 'peakCurrentA / strings', 'peakCurrentA', sense),
  trade('monitoring/map-inputs.ts', 'board.order ?? 1e6 + i', 'i', sense),
  trade(
    'monitoring/donor-step.ts',
    'cell.capacityAh * layout.part.data.cellsInParallel * layout.strings',
    'cell.capacityAh * layout.strings',
    sense,
  ),
  trade('monitoring/current-step.ts', 'peakCurrentA / Math.max(1, strings.length)', 'peakCurrentA', sense),
  // Coolant.
  trade(
    'cooling/cases.ts',
    'fillerMm / 1000 / (conductivity * contactM2) + 1 / uaWPerK',
    'fillerMm / 1000 / (conductivity * contactM2)',
    cool,
  ),
  trade('cooling/cases.ts', '1 / under.get(module)!', '1', cool),
  trade('cooling/fill-step.ts', 'freezesC + freezeReserveK > coldC', 'freezesC > coldC', cool),
  trade(
    'cooling/box-walls.ts',
    '2 * (lengthM * widthM + lengthM * heightM + widthM * heightM)',
    'lengthM * widthM + lengthM * heightM + widthM * heightM',
    cool,
  ),
  trade('cooling/pack-step.ts', 'coolantC: uaWPerK > 0 ? sum / uaWPerK : 0', 'coolantC: 0', cool),
  trade('cooling/demand-steps.ts', '(run.result.energyWh * 3600) / hillS', 'run.result.energyWh', cool),
  trade('cooling/loop-state.ts', '-Math.expm1(-1 / (contacts[i]! * flowWPerK))', '1', cool),
  // Ways.
  trade(
    'routing/run-places.ts',
    'const halfM = (run.conduitOuterMm ?? 0) / 2000;',
    'const halfM = 0;',
    route,
  ),
  {
    project: 'demo',
    file: 'core/src/model/document/laid.ts',
    from: 'part.data.massKgPerM * count',
    to: 'part.data.massKgPerM',
    tests: route,
  },
  trade('routing/tube-step.ts', '(outer - inner) / 2', 'outer - inner', route),
  // Places by the tape, tolerances, loops and drips.
  trade('routing/taped.ts', '2 * offMm)', '200 * offMm)', 'routing/taped', 'core'),
  trade(
    'routing/taped.ts',
    '+ i * i + j * j - 2 * i * x) / (2 * j)',
    '+ i * i + j * j) / (2 * j)',
    'routing/taped',
    'core',
  ),
  trade('routing/taped.ts', 'Math.max(...offs)', 'Math.min(...offs)', 'routing/taped', 'core'),
  trade('routing/run-measured.ts', 'gain * points[i]!.tolMm!', 'points[i]!.tolMm!', 'demo/measured'),
  trade(
    'routing/run-measured.ts',
    'slackFraction + loopsM(run)) * 1000',
    'slackFraction) * 1000',
    'demo/measured',
  ),
  trade('routing/run-measured.ts', 'Math.max(tolMm, 2 * tapeMm)', 'tolMm', 'demo/measured'),
  trade('routing/drip.ts', 'wayM > nearM', 'wayM > 10 * nearM', 'demo/measured|demo/mistakes'),
  trade('routing/drip.ts', 'entry[2] - lowestM;', '0;', 'demo/measured'),
  trade(
    'routing/propose.ts',
    'schools.slice(0, 2).map((school) => ({ school, input }))',
    '[]',
    'demo/propose',
  ),
  // Radiators.
  trade('cooling/cases.ts', 'heatW / (airKgPerS * airJPerKgK)', '0', 'demo/radiators'),
  trade('cooling/cases.ts', "band[end === 'least' ? 0 : 1]", 'band[1]', 'demo/radiators'),
  trade(
    'cooling/ua-measured.ts',
    'if (reached(middle) < wanted) low',
    'if (reached(middle) > wanted) low',
    'ua-measured',
    'core',
  ),
  // Strings by themselves, and kinds by their label.
  trade('pack/string-step.ts', 'total + each * count', 'total + each', 'demo/library-bus'),
  trade(
    'pack/change.ts',
    'if (shape.part !== undefined) for (const id of one.modules)',
    'for (const id of [])',
    'pack/change',
    'core',
  ),
  {
    project: 'core',
    file: 'core/src/model/parts/typical.ts',
    from: 'resistanceOhm: ohmAh / capacityAh',
    to: 'resistanceOhm: ohmAh',
    tests: 'parts/typical',
  },
  // What boxes hold, and what holds them.
  trade(
    'pack/fit.ts',
    'const clearMm = (high - above * shelfMm) / (above + 1);',
    'const clearMm = high / (above + 1);',
    'pack/arrange',
    'core',
  ),
  trade(
    'pack/fit.ts',
    'perSlice: across * perLevel * box.count,',
    'perSlice: across * perLevel,',
    'pack/arrange',
    'core',
  ),
  trade('pack/splitter.ts', 'count - here(this.later[s + 1]!)[k]!', 'count', 'pack/arrange', 'core'),
  trade('pack/arrange.ts', 'total - front <= rearLimitKg + 1e-6', 'true', 'pack/arrange', 'core'),
  trade('pack/lift-step.ts', 'Math.min(points, 2)', 'points', 'pack/lift', 'core'),
  trade('pack/lift-step.ts', '0.5 + Math.abs(offM) / (spanM ?? 1)', '0.5', 'pack/lift', 'core'),
  // Beside the phases, in tubes, through walls.
  trade(
    'routing/tube-checks.ts',
    'Math.min(left, right) - z',
    'Math.max(left, right) - z',
    'routing/beside',
    'core',
  ),
  trade('routing/wall-step.ts', 'holeMm > threadMm + holeWithinMm', 'holeMm > threadMm + 10', 'demo/walls'),
  trade(
    'routing/wall-step.ts',
    'const askedMm = stiffMm + (radiusMm ?? 0);',
    'const askedMm = radiusMm ?? 0;',
    'demo/walls',
  ),
  trade('routing/phases-step.ts', 'shortestM * (1 + unlikeWithin)', 'shortestM * 2', 'demo/rules'),
  {
    project: 'demo',
    file: 'core/src/model/document/run-lengths.ts',
    from: '  const { points, bendRadiusMm } = run;\n  const known = geometries.get(run);\n  if (known !== undefined) return known;',
    to: '  const known = geometries.get(run);\n  if (known !== undefined) return known;\n  const { points, bendRadiusMm } = run;',
    tests: 'demo/library-bus',
  },
  trade(
    'charging/controller-checks.ts',
    '(wakes ?? 0) > data.wakes',
    '(wakes ?? 0) > data.wakes + 1',
    'demo/rules',
  ),
  trade('low-voltage/controller-loads.ts', 'Math.max(awakeA - standbyA, 0)', 'awakeA', 'demo/low-voltage'),
  // What was brought level.
  {
    project: 'core',
    file: 'core/src/record/stock.ts',
    from: '`${side.id}@${seq}`',
    to: 'side.id',
    tests: 'record/stock',
  },
  {
    project: 'core',
    file: 'core/src/whole/design/walk-status.ts',
    from: " || kind === 'levelled'",
    to: '',
    tests: 'record|walk-status|stock',
  },
  {
    project: 'server',
    file: 'server/src/entries/judges/levelled.ts',
    from: '[sides[0]!.afterV, sides[1]!.afterV]',
    to: '[sides[0]!.beforeV, sides[1]!.beforeV]',
    tests: 'server/test/levelled',
  },
  {
    project: 'web',
    file: 'web/src/stations/pack/match/known-voltage.ts',
    from: 'last.takenAt < newestIntake',
    to: 'false',
    tests: 'known-voltage',
  },
  {
    project: 'web',
    file: 'web/src/parts/grid/editing.ts',
    from: 'growing === null || top >= own',
    to: 'growing === null',
    tests: 'grid',
  },
];
