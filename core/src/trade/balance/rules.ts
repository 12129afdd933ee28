import { rulesOf } from '../../ground/finding';

const rule = rulesOf('balance');

export const balanceRules = {
  targetOutside: rule(
    'target-outside-cell',
    'mend',
    'Cells are to be level where they must not be',
    'A target beyond the maker’s window means harm to every cell of the pack.',
    'A target with its tolerance inside the cell’s window.',
    'Cell maker’s limits',
  ),
  cutOffLow: rule(
    'cut-off-below-minimum',
    'mend',
    'The load lets cells below their minimum',
    'Below the minimum copper dissolves and the cell ages for good, the smaller one first.',
    'A higher cut-off with longer draws: the rebound falls with the hours.',
    'Cell maker’s limits',
  ),
  onAgainLow: rule(
    'on-again-below-cut-off',
    'mend',
    'The load comes on again before it has gone off',
    'A load that is on again at its own cut-off never rests: it chatters, and its cell never shows where it settles.',
    'On again a little above the cut-off: what a cell recovers in some minutes.',
    'Cut-off and re-engagement as planned',
  ),
  loadCurrent: rule(
    'load-over-cell-current',
    'mend',
    'The load draws more than a module may carry',
    'Tabs and bonds inside a donor module set its limit.',
    'A larger resistance; it takes longer.',
    'Module maker’s data; Ohm’s law at the highest cell voltage',
  ),
  unlikeSchool: rule(
    'bleeding-undoes-bottom',
    'note',
    'The monitor bleeds while the cells are levelled at empty',
    'Bleeding at full levels the cells there, and takes them apart at empty again.',
    'Switch bleeding off, or level at full.',
    'Charge balance of each cell',
  ),
};
