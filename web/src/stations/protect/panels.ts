export const panels = [
  { id: 'circuits', title: 'Circuits' },
  { id: 'start', title: 'Start and stop' },
  { id: 'strings', title: 'Strings' },
  { id: 'joints', title: 'Joints and bars' },
  { id: 'bonds', title: 'Bonds and distances' },
] as const;
export type PanelId = (typeof panels)[number]['id'];

/** Places of the design that are edited beside the circuits’ own panel. */
const places: [PanelId, RegExp][] = [
  [
    'start',
    /^(circuits\.[^.]+\.(resistor|thresholdFraction|timeoutS|wantedTimeS|attemptsPerMinute|startSchool|completion|timerS|loopResistanceOhm)|settings\.(touchLimitV|dischargeLimitS))$/,
  ],
  ['strings', /^pack\.string/],
  ['joints', /^(joints|pack\.busbars)/],
  [
    'bonds',
    /^(bonds|boxes\.|circuits\.[^.]+\.(screened|screenFrom|screenTo|sheath)$|devices\.[^.]+\.(isolation|ownCutOff|unattended)$|settings\.(senseMarking|sleeveColour|impulseV|altitudeM)$)/,
  ],
];

/** The panel in which a place of the design is edited; null: none is asked for. */
export const panelOfPath = (path: string): PanelId | null =>
  places.find(([, pattern]) => pattern.test(path))?.[0] ?? null;
