import { choice, defaultsOf, num, words, type ItemOf } from './field';
import { senseMarkings } from './joints';

/** What holds for the whole job. */
export const settingsFields = {
  /** The voltage above which live parts may not be exposed, DC. */
  touchLimitV: num('Touch limit', 'V', { fallback: 60, at: 'protect/start', usual: [12, 120] }),
  dischargeLimitS: num('Time allowed', 's', { fallback: 5, at: 'protect/start', usual: [0.1, 600] }),
  insulationOhmPerV: num('Insulation asked', 'Ω/V', { fallback: 500, usual: [20, 5000] }),
  /** What the rule of the place asks anchors to hold, in multiples of the weight. */
  anchorG: num('Anchors hold, by the local rule', 'g', { at: 'pack/arrange', usual: [0.2, 100] }),
  /** What coils, monitor and lamps run on, nominal. */
  supplyV: choice('Low-voltage supply', [12, 24]),
  /** The lowest voltage that a start leaves at the coils; absent: 9 V of 12, 18 V of 24. */
  startLowV: num('Lowest supply at start', 'V', { fallback: 9, usual: [4, 30] }),
  /** What switches the coils: the voltage that it stands. */
  driverV: num('Coil drivers stand', 'V', { fallback: 60, usual: [20, 1500] }),
  /** Temperature of the coils when they have to pull in. */
  coilC: num('Coil, when it pulls in', '°C', { fallback: 60, usual: [-50, 130] }),
  /** The surge that the charger or the mains may let through. */
  impulseV: num('Surge that may come through', 'V', {
    fallback: 2500,
    at: 'protect/bonds',
    usual: [100, 12000],
  }),
  /** The highest place the vehicle goes to. */
  altitudeM: num('Goes up to', 'm', { fallback: 2000, at: 'protect/bonds', usual: [-500, 6000] }),
  /** How thin sense leads are marked, and the colour of their sleeves. */
  senseMarking: choice('Thin sense leads are', senseMarkings, { at: 'protect/bonds' }),
  sleeveColour: words('Colour of the sleeves', { at: 'protect/bonds' }),
  /** IANA zone in which dates of this job are read. */
  zone: words('Time zone'),
};
export interface Settings extends ItemOf<typeof settingsFields> {}
export const settingsDefaults = { ...defaultsOf(settingsFields), supplyV: 12 };

/** Nominal voltage of the low-voltage side, V. */
export const supplyOf = ({ supplyV }: Settings): number => supplyV ?? settingsDefaults.supplyV;

/** The lowest supply that coils have to pull in at, V: as given, or three quarters of the nominal. */
export const startLowOf = (settings: Settings): number =>
  settings.startLowV ?? (settingsDefaults.startLowV * supplyOf(settings)) / settingsDefaults.supplyV;
