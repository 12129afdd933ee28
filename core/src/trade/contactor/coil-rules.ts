import { rulesOf } from '../../ground/finding';

const rule = rulesOf('contactor');
const source = 'Coil as resistance and inductance; makers’ coil data';

export const coilRules = {
  pullIn: rule(
    'pull-in',
    'stop',
    'At the lowest 12 V of a start the coils do not pull in',
    'A coil that only half pulls in lets the contacts bounce on the load: they burn, or the vehicle does not start when it is cold.',
    'A stiffer 12 V feed to the coils, a converter that holds it, or contactors that pull in lower.',
    source,
    { formerly: ['contactor.chosen-contactor'] },
  ),
  dropsOut: rule(
    'drops-out',
    'stop',
    'A contactor lets go of itself',
    'Held with less than it drops out at, it opens under load as soon as the economiser lowers its current.',
    'Another contactor, or an economiser that holds with more: see the maker’s sheet.',
    'Makers’ hold power and drop-out current',
  ),
  slowRelease: rule(
    'slow-release',
    'note',
    'The suppression slows the release of the contactors',
    'A plain diode lets the coil current die slowly: the contacts part slowly, and the arc has the time to burn them.',
    'A diode with a zener or a TVS at the coil, below what the driver stands.',
    source,
  ),
  noSuppression: rule(
    'no-suppression',
    'mend',
    'Nothing takes the energy of the coils',
    'The coil drives its voltage up until the driver breaks through; a driver that fails short holds the contactor closed.',
    'A diode with a zener or a TVS at the coil; clamp the driver’s gate and check the auxiliary contact.',
    source,
  ),
  clamp: rule(
    'clamp-over-driver',
    'mend',
    'The clamp lets the coil above what its driver stands',
    'The driver breaks through at the first switching off; one that fails short holds the contactor closed.',
    'A clamp that stays below the driver’s voltage with the supply at its highest; or a driver that stands more.',
    'Clamp and supply against the driver’s rating; 60 V where none is given',
  ),
  bothWays: rule(
    'both-ways',
    'note',
    'A polarised contactor carries current both ways',
    'Its blow-out pushes the arc the wrong way for current in the other direction: what it breaks then is less, and the maker says how much.',
    'Mount it the right way round for the larger current that it has to break, and see the maker’s figure for the other.',
    'Makers of polarised contactors',
  ),
};
