import { rulesOf } from '../../ground/finding';

const rule = rulesOf('contactor');
const source = 'Contactor makers’ DC ratings';
/** Findings of earlier editions that said it of the chosen contactors as a whole. */
const formerly = { formerly: ['contactor.chosen-contactor'] };

export const contactorRules = {
  voltage: rule(
    'voltage',
    'stop',
    'The contactors are not made for this voltage',
    'A DC arc that the contactor cannot blow out keeps the circuit closed and burns the contacts.',
    'Choose contactors whose DC rating is at or above the highest pack voltage.',
    source,
    formerly,
  ),
  make: rule(
    'make',
    'mend',
    'The main closes on more than it makes',
    'Contacts that close on a current above their making capacity bounce, melt and weld.',
    'A higher threshold of pre-charge, a pre-charge of its own for a branch, more resistance in the loop that is really there, or contactors that make more.',
    source,
    formerly,
  ),
  carry: rule(
    'carry',
    'stop',
    'The contactors carry more than their rating',
    'Contacts that run hot weld or lose their spring.',
    'Choose a larger contactor, or lower the load.',
    source,
    formerly,
  ),
  faultBreak: rule(
    'fault-above-break',
    'note',
    'The largest fault is above what the contactors break',
    'A contactor that opens on this current may weld or burn: the fuse has to clear first.',
    'See that the controller does not open on over-current before the fuse has cleared.',
    source,
  ),
  noAux: rule(
    'no-aux',
    'note',
    'Nothing tells whether the contacts are open',
    'A driver that fails short, or contacts that have welded, keep the circuit closed, and nobody sees it.',
    'Contactors with an auxiliary contact, or a weld test by voltage at each start and stop; clamp the driver’s gate.',
    'Contactor makers’ data',
  ),
};
