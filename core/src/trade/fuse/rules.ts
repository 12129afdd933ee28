import { rulesOf } from '../../ground/finding';

const rule = rulesOf('fuse');
/** Findings of earlier editions that said it of the chosen fuse as a whole. */
const formerly = { formerly: ['fuse.chosen-fuse'] };

export const fuseRules = {
  voltage: rule(
    'voltage',
    'stop',
    'The fuse is not made for this voltage',
    'A DC arc that the fuse cannot extinguish goes on burning inside and outside of it.',
    'Choose a fuse whose DC rating is at or above the highest pack voltage.',
    'Fuse makers’ DC ratings',
    formerly,
  ),
  breaking: rule(
    'breaking-capacity',
    'stop',
    'The largest fault is beyond the breaking capacity',
    'A fuse that meets more current than it can break bursts instead of clearing.',
    'Choose a fuse with a higher DC breaking capacity.',
    'Fuse makers’ DC ratings; IEC 60269',
    formerly,
  ),
  minimum: rule(
    'below-minimum-breaking',
    'stop',
    'The smallest fault is below the minimum breaking current',
    'A partial-range fuse may melt at this current and still not clear: the arc stays.',
    'Choose a full-range fuse, or lower the resistance to the far end until the fault is above the minimum.',
    'IEC 60269, partial-range (a) classes',
    formerly,
  ),
  slow: rule(
    'slow-at-smallest-fault',
    'stop',
    'The smallest fault is cleared too late',
    'At low charge, cold and at the far end the current may be too small to melt the fuse in time: cable and fault go on heating.',
    'Choose a smaller or faster fuse, or a path with less resistance.',
    'Melting curve with its tolerance and arc',
    formerly,
  ),
  continuous: rule(
    'continuous-load',
    'mend',
    'The load is more than the fuse carries for years',
    'Above about 80 % of its rating at the real ambient temperature a fuse ages and opens without a fault.',
    'Choose the next larger rating that still protects the cable, or a cooler place.',
    'Fuse makers’ application guides: 80 % of the derated rating',
    formerly,
  ),
  wear: rule(
    'cyclic-wear',
    'mend',
    'Load peaks wear the fuse',
    'Peaks that reach into the melting curve use up the element a little each time.',
    'Choose a larger rating or shorten the peak; compare the periods to wear-out with the life you want.',
    'Linear damage sum over the fastest melting time; below 20 000 h of this load',
    { version: 2 },
  ),
  cable: rule(
    'cable-unprotected',
    'stop',
    'The fuse does not protect the cable over the whole fault range',
    'At these currents the conductor reaches its short-circuit limit before the fuse has cleared.',
    'Choose a faster fuse or a larger conductor.',
    'Adiabatic limit k²S² against I² × clearing time, IEC 60364-4-43',
    formerly,
  ),
  hotter: rule(
    'hotter-than-table',
    'mend',
    'The fuse sits hotter than its maker’s table goes',
    'Beyond the table the fuse carries less than is computed, and its body may not stand the heat.',
    'Move the fuse to a cooler place, or ask the maker.',
    'Fuse makers’ derating tables',
  ),
  deratingHeld: rule(
    'derating-held',
    'note',
    'Ambient lies beyond the derating table',
    'The maker gives no factor there; the end value of the table is held.',
    'Ask the maker, or move the fuse to where the table holds.',
    'Piecewise-linear table, ends held',
  ),
};

/** Of all circuits at once, not of one fuse. */
export const togetherRule = rule(
  'branches-together',
  'mend',
  'All circuits together are more than the main fuse or the mains carry',
  'Branches behind the mains are fed through the main fuse and the mains too: each alone is no trouble, together they are.',
  'A larger main fuse and cable, or branches that do not run together.',
  'Sum of the loads in the mean square, as if all ran at once',
);

/** Between two fuses, not of one alone. */
export const selectiveRule = rule(
  'not-selective',
  'mend',
  'A fault in a branch may melt a fuse upstream',
  'The pack goes dark for a fault that one branch should have ended, and the wrong fuse is found blown.',
  'A smaller or faster branch fuse, or a slower one upstream that still holds its own criteria.',
  'Total clearing of the branch against fastest pre-arcing upstream',
);

/** Where a branch closes onto empty capacitors. */
export const inrushRule = rule(
  'inrush',
  'mend',
  'The capacitors of a branch melt its fuse',
  'Without pre-charge empty capacitors are a short for a moment: its I²t reaches the fuse’s melting, at the first closing or after some.',
  'A pre-charge of its own for the branch, contacts that close with the bus empty, or a fuse with a larger melting I²t.',
  'I²t of a first-order RC circuit; pre-arcing I²t at the last point of the curve, least by its tolerance',
);

/** Between a fuse and the contacts in its path. */
export const shortTimeRule = rulesOf('contactor')(
  'short-time',
  'mend',
  'The contacts give out before the fuse has cleared',
  'Contacts that carry a fault for too long lift, arc and weld: the circuit stays closed just when it must open.',
  'A faster fuse, or contactors whose short-time curve lies above its clearing over all faults.',
  'Contactor makers’ short-time curves; the fuse’s longest clearing',
  { formerly: ['contactor.chosen-contactor'] },
);
