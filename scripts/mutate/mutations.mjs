/**
 * Plausible mistakes: in a file, this text becomes that, and one of these tests must fail. Each would hurt somebody, or lose
 * something, and none would stop the program.
 */
const core = (file, from, to, tests) => ({ project: 'core', file: `core/src/${file}`, from, to, tests });
/** What the cases of all rules find. */
const inRules = (file, from, to) => ({ ...core(file, from, to, 'rules.test'), project: 'demo' });
const server = (file, from, to, tests) => ({
  project: 'server',
  file: `server/src/${file}`,
  from,
  to,
  tests,
});
const web = (file, from, to, tests) => ({ project: 'web', file: `web/src/${file}`, from, to, tests });

export const mutations = [
  // Faults and fuses.
  core('trade/fuse/strings.ts', 'voltage.value! * (count - 1)', 'voltage.value! * count', 'fuse'),
  core('trade/fuse/strings.ts', 'resistance.value! * warm)', 'resistance.value!)', 'fuse'),
  core(
    'trade/fuse/melting.ts',
    'currentA / (1 + fuse.currentToleranceFraction)',
    'currentA',
    'fuse|examples',
  ),
  core(
    'trade/fuse/melting.ts',
    '(currentA * (1 - currentToleranceFraction)) ** 2',
    'currentA ** 2',
    'fuse|examples',
  ),
  core('trade/fuse/melting.ts', 'arcAtMostS = 0.1', 'arcAtMostS = 10', 'fuse|examples'),
  core('trade/fuse/limits.ts', 'continuousShare = 0.8', 'continuousShare = 1', 'fuse|examples|clean'),
  core('trade/conductor/loop.ts', '(2 * lengthM', '(lengthM', 'conductor|clean'),
  core('trade/conductor/loop.ts', ') / parallel + contactOhm', ') + contactOhm', 'conductor'),
  core('model/document/pack.ts', 'fallback: 0.8', 'fallback: 1.8', 'clean|fuse|pack'),
  core(
    'model/document/circuit.ts',
    "fallback: 3, at: 'protect/start', usual: [0.02, 60] }),\n  wantedTimeS",
    "fallback: 30, at: 'protect/start' }),\n  wantedTimeS",
    'document|clean',
  ),
  // Pre-charge and shut-down.
  core('trade/precharge/precharge.ts', '(-2 * atS)', '(-1 * atS)', 'precharge|examples'),
  core(
    'trade/precharge/precharge.ts',
    'return fraction < k ?',
    'return fraction > k ?',
    'precharge|examples',
  ),
  core(
    'trade/precharge/criteria.ts',
    'duty.timeWorstS >= timeoutS',
    'duty.timeWorstS > timeoutS * 2',
    'precharge',
  ),
  core(
    'trade/precharge/bus-discharge.ts',
    'Math.log(voltageV / safeVoltageV)',
    'Math.log10(voltageV / safeVoltageV)',
    'precharge|examples',
  ),
  // The pack.
  inRules(
    'trade/contactor/coil.ts',
    'profile.some(([, a]) => a > 0) && profile.some(([, a]) => a < 0)',
    'profile.some(([, a]) => a > 0)',
  ),
  core('trade/pack/sound-step.ts', ' * (layout?.strings ?? 0)', '', 'mistakes|sound'),
  core(
    'trade/pack/sound-step.ts',
    "kind !== 'charger' && kind !== 'dc-inlet'",
    "kind !== 'dc-inlet'",
    'mistakes|sound',
  ),
  core(
    'trade/pack/placing-step.ts',
    'rear - xM + lengthM / 2',
    'rear - xM - lengthM / 2',
    'mistakes|placing',
  ),
  core('trade/pack/placing-step.ts', 'zM - heightM / 2;', 'zM;', 'mistakes|placing'),
  core('trade/conductor/conduit.ts', '2 * parallel', 'parallel', 'conduit'),
  core('trade/contactor/string-step.ts', 'Math.abs(amps) * share', 'amps * share', 'contactor'),
  core(
    'trade/contactor/string-step.ts',
    'most.value !== null ? most.value',
    'false ? most.value',
    'contactor',
  ),
  core('trade/fuse/sum-step.ts', 'behind.has(device) && ', '', 'pack/sound'),
  core('trade/norms/steps.ts', 'inverter ? 500 : 100', 'inverter ? 100 : 100', 'norms'),
  core(
    'trade/norms/usual-step.ts',
    'value >= usual[0] && value <= usual[1]) return [];\n    const scale',
    'value <= usual[1]) return [];\n    const scale',
    'norms|mistakes',
  ),
  core('whole/design/contradictions.ts', '[], sentence, values)', '[], sentence)', 'norms'),
  core('trade/bonding/bodies.ts', 'lengthM * perM + contactOhm', 'lengthM * perM', 'bonding'),
  inRules('trade/network/structure.ts', "'tap', ", ''),
  // How things follow from a design.
  core(
    'model/step/places.ts',
    'if (this.ownKeys !== null && !sameKeys(was, is)) this.ownKeys.everyReader(into);',
    '',
    'step/',
  ),
  core(
    'model/step/graph.ts',
    'for (const place of places) if (place.mark !== now) place.readers.delete(this);',
    '',
    'step/',
  ),
  core(
    'model/step/graph.ts',
    'for (const node of found) for (const reader of node.followers) found.add(reader);',
    '',
    'step/',
  ),
  core('model/step/evaluation.ts', 'if (output.figures[i]?.id !== id) delete figures[id];', '', 'step/'),
  core(
    'model/step/evaluator.ts',
    'if (this.library.of(kind) !== list)',
    'if (false as boolean)',
    'library|step/',
  ),
  core(
    'model/step/judge.ts',
    'suggestions.every(({ fits }) => !fits)',
    'suggestions.some(({ fits }) => !fits)',
    'conductor|fuse|contactor|step/',
  ),
  core('model/document/references.ts', 'pinned.kind !== to.part', 'pinned.kind === to.part', 'document'),
  core(
    'model/library/library.ts',
    'all.sort((a, b) => a.revision - b.revision)',
    'all.sort((a, b) => b.revision - a.revision)',
    'library',
  ),
  core('model/library/library.ts', 'newest.filter(({ id }) => !gone.has(id))', 'newest', 'library'),
  // What is recorded.
  core('record/kinds/intake.ts', "stands: 'newest'", "stands: 'always'", 'record|standing|assess'),
  core('record/kinds/result.ts', "'both'", "'newest'", 'record|standing|assess'),
  core('record/kinds/joints.ts', "stands: 'always'", "stands: 'never'", 'record|standing|assess'),
  core('record/calibration.ts', 'day > calibrationDue', 'day >= calibrationDue', 'record'),
  core('whole/design/acceptance.ts', 'given.size !== now.size || ', '', 'acceptance|assess'),
  core(
    'whole/design/acceptance.ts',
    'gradeRank[check.grade] < gradeRank[body.grade]',
    'gradeRank[check.grade] > gradeRank[body.grade]',
    'acceptance|assess',
  ),
  core(
    'whole/design/gate-status.ts',
    "state === 'passed' && (practice || !standIn)",
    "state === 'passed'",
    'assess|design/',
  ),
  core('whole/design/gate-status.ts', 'own.every(counts)', 'own.some(counts)', 'assess|design/'),
  core('trade/joints/state.ts', 'state.dropStale = state.drop !== null;', '', 'record-checks'),
  // Inside the pack, and between its parts.
  core('trade/pack/lead-step.ts', 'joint === undefined ? 2 : 1', '1', 'leads.test|clean'),
  core('trade/pack/lead-step.ts', ' / parallel + contactOhm', ' + contactOhm', 'leads.test'),
  core('trade/pack/source-step.ts', ' / known.strings + series.packOhm', ' / known.strings', 'leads.test'),
  core('trade/conductor/lead-step.ts', 'count === 0 ? 1 : count', 'count === 0 ? 1 : 1', 'leads.test'),
  core(
    'trade/contactor/precharge-step.ts',
    '(1 - resistor.data.toleranceFraction)',
    '(1 + resistor.data.toleranceFraction)',
    'contactor/precharge',
  ),
  core(
    'model/document/settings.ts',
    '(settingsDefaults.startLowV * supplyOf(settings))',
    '(settingsDefaults.startLowV * settingsDefaults.supplyV)',
    'contactor/precharge',
  ),
  core('trade/fuse/tap-step.ts', 'currentA * share', 'currentA', 'tap.test|mistakes'),
  core('trade/fuse/tap-step.ts', 'shortTapM = 0.2', 'shortTapM = 2', 'tap.test'),
  core(
    'trade/contactor/separable-step.ts',
    '!data.interlock && data.breakA < peakA',
    'data.breakA < peakA',
    'clean',
  ),
  core('trade/pack/posts-step.ts', 'a.box === b.box', 'true', 'clean|mistakes'),
  core('trade/pack/charging-step.ts', '(moduleA ?? 0) * strings', 'moduleA ?? 0', 'clean|mistakes'),
  core(
    'trade/conductor/sense-step.ts',
    'Math.min(...moduleLimits)',
    'Math.max(...moduleLimits) * 9',
    'mistakes',
  ),
  // Things.
  core(
    'record/stock.ts',
    'item.serial !== serial && same !== true',
    'same !== true',
    'record/stock|pack/stock',
  ),
  core('record/stock.ts', 'if (former !== undefined) former.place = null;', '', 'record/stock|pack/stock'),
  core(
    'record/stock.ts',
    'if (item.place !== null) this.inPlace.set(item.place, null);\n    item.place',
    'item.place',
    'record/stock|pack/stock',
  ),
  core('record/stock.ts', '(item.place ?? item.id)', 'item.id', 'record/stock|pack/stock'),
  core('record/walks.ts', 'seq > (opened.get', '0 < (opened.get', 'stock.test|record-checks'),
  core(
    'record/kinds/result.ts',
    "body.item === undefined ? '' : `@${body.item}`",
    "''",
    'standing|stock.test',
  ),
  core('whole/design/assess.ts', '!ofItem || isWork(body)', 'true', 'record/stock|pack/stock'),
  core('trade/pack/recorded.ts', 'is === undefined && arrived', 'is === undefined', 'pack/stock'),
  server('entries/things.ts', 'if (id === null)', 'if (false)', 'things.test'),
  server('entries/judges/stock.ts', "item.state === 'rejected' || ", '', 'things.test'),
  core('trade/balance/choose-set.ts', '(b.capacityAh ?? 0) - ', '(b.capacityAh ?? 999) - ', 'choose-set'),
  core(
    'trade/balance/choose-set.ts',
    'insulationMOhm < data.insulationMinMOhm',
    'insulationMOhm <= data.insulationMinMOhm',
    'choose-set',
  ),
  core(
    'trade/balance/choose-set.ts',
    'Math.min(...(known as number[]))',
    'Math.max(...(known as number[]))',
    'choose-set',
  ),
  // The server.
  server('jobs/changes.ts', '.filter((row) => !change.own?.includes(row.id))', '', 'changes.test'),
  server('journal/lines.ts', 'link.previous !== before.sha256 && ', 'false && ', 'lines.test'),
  server('people/attempts.ts', 'recent.length >= most', 'recent.length > most * 2', 'people.test|attempts'),
  server('http/page.ts', 'value >= 1 && value <= most', 'value >= 0', 'changes.test'),
  // The browser.
  web(
    'stores/autosave.ts',
    'const own = queue.value.map(({ id }) => id);',
    'const own: string[] = [];',
    'autosave|job.test',
  ),
  web(
    'stores/autosave.ts',
    'enqueue(queue.value.slice(1));',
    'enqueue(queue.value.slice(2));',
    'autosave|job.test',
  ),
  web('stores/outbox.ts', 'waiting.value.filter((one) => one !== next)', '[]', 'outbox|job.test'),
  web('stores/after-paint.ts', 'waiting = null;\n      asked += 1;', 'asked += 0;', 'after-paint'),
  // Coolant.
  core(
    'trade/cooling/laws.ts',
    '2 * minorK * headBy * q',
    'minorK * headBy * q',
    'cooling/hydraulic|cooling/loop-balance',
  ),
  core(
    'trade/cooling/laws.ts',
    'if (flowLPerMin < 0) return { value: this.shutOffKPa - flowLPerMin',
    'if (flowLPerMin < 0) return { value: this.shutOffKPa + flowLPerMin',
    'cooling/hydraulic|cooling/loop-balance',
  ),
  core(
    'trade/cooling/loop-balance.ts',
    'starvedBelow * meanLPerMin,',
    'starvedBelow * 2 * meanLPerMin,',
    'cooling/hydraulic|cooling/loop-balance|examples',
  ),
  core('trade/cooling/lump.ts', 'turns * turn.onS', 'turns * turn.periodS', 'cooling/thermal'),
  core('trade/cooling/warm-up.ts', 'finalC <= targetC', 'finalC < targetC', 'cooling/thermal'),
  core(
    'trade/cooling/leak-test.ts',
    'correctedDropKPa < -allowedDropKPa',
    'correctedDropKPa < -2 * allowedDropKPa',
    'cooling/thermal',
  ),
  core(
    'trade/cooling/temperatures.ts',
    'keep: loads.has(id) ? 0 : 1',
    'keep: loads.has(id) ? 0.5 : 1',
    'cooling',
  ),
  { ...core('trade/cooling/cases.ts', '1 / under.get(module)!', '1', 'demo/cooling'), project: 'demo' },
  {
    ...core(
      'trade/cooling/cases.ts',
      "busy !== 'driving' && !(at === 'fast' && device?.kind === 'charger')",
      "busy !== 'driving'",
      'demo/cooling',
    ),
    project: 'demo',
  },
  {
    ...core(
      'trade/cooling/pieces.ts',
      'const fitted = readings === undefined ? null : fitDrop(readings);',
      'const fitted = kPaPerLpm !== undefined || readings === undefined ? null : fitDrop(readings);',
      'demo/cooling',
    ),
    project: 'demo',
  },
  {
    ...core('trade/cooling/box-heaters.ts', 'share: here / all', 'share: 1', 'demo/cooling'),
    project: 'demo',
  },
  {
    ...core('trade/cooling/profile.ts', 'Math.sqrt(heat / lasts)', 'heat / lasts', 'demo/cooling'),
    project: 'demo',
  },
  {
    ...core(
      'trade/cooling/demand-steps.ts',
      '(ohm.value * parallel) / layout.seriesCells',
      'ohm.value / layout.seriesCells',
      'demo/cooling',
    ),
    project: 'demo',
  },
  {
    ...core(
      'trade/cooling/demand-steps.ts',
      '(run.result.energyWh * 3600) / hillS',
      'run.result.energyWh',
      'demo/cooling',
    ),
    project: 'demo',
  },
  {
    ...core(
      'whole/commissioning/judge.ts',
      'measured.minutes < minutes',
      'measured.minutes < minutes / 2',
      'demo/cooling',
    ),
    project: 'demo',
  },
  {
    ...core(
      'trade/cooling/templates/coolant.ts',
      'touchedBy: [id, ...(piece.modules ?? [])]',
      'touchedBy: [id]',
      'demo/cooling',
    ),
    project: 'demo',
  },
  // Plates over a day, the posture of filling, heaters, coats, clamps.
  core('trade/cooling/lumps.ts', 'lastS < risesS ? lastS : null', 'lastS', 'cooling/lumps'),
  core('trade/cooling/lumps.ts', 'Math.min(first ?? Infinity, own)', 'own', 'cooling/lumps'),
  core(
    'trade/cooling/posture.ts',
    '(xM ?? 0) * Math.sin(pitch)',
    '(xM ?? 0) * Math.cos(pitch)',
    'cooling/posture',
  ),
  {
    ...core('trade/cooling/plates-over-day.ts', 'driven[placeOf[i]!]!', 'driven[0]!', 'demo/cooling'),
    project: 'demo',
  },
  {
    ...core('trade/cooling/box-step.ts', 'Math.min(gives, passes)', 'gives', 'demo/cooling'),
    project: 'demo',
  },
  {
    ...core(
      'trade/cooling/pack-step.ts',
      'Math.max(result.maxC, plateC ?? -Infinity)',
      'result.maxC',
      'demo/cooling',
    ),
    project: 'demo',
  },
  {
    ...core(
      'trade/network/device-load.ts',
      'heater.data.ratedW / lowestV',
      'heater.data.ratedW',
      'demo/cooling',
    ),
    project: 'demo',
  },
  core(
    'trade/pack/recorded.ts',
    "last?.body.kind === 'fit' && last.seq <",
    'last !== undefined && last.seq <',
    'pack/stock',
  ),
  {
    ...core('trade/cooling/templates/clamps.ts', '&& end.box === null', '', 'demo/cooling'),
    project: 'demo',
  },
  core('trade/charging/charge-curve.ts', 'Math.log(j / i)', 'Math.log(i / j)', 'charge-curve'),
  // What is read at a sense plug.
  core(
    'trade/monitoring/explain-ladder.ts',
    'const stillCell = 1.25;',
    'const stillCell = 2.1;',
    'monitoring',
  ),
  core(
    'trade/monitoring/explain-ladder.ts',
    '(count + 1) * maxV) return false',
    'count * maxV) return false',
    'monitoring',
  ),
  core('trade/monitoring/bms-map.ts', 'opens(kind)', 'true', 'monitoring|examples'),
  web('stations/cool/loops/bank.ts', 'swapEnds(draft, `${bank}-back${i}`)', 'void i', 'cool'),
  web('stations/cool/loops/states.ts', 'starvedBelow * mean', 'mean', 'cool'),
];
