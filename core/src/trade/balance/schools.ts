import type { BalanceSchool } from '../../model/document';

/** A school of balancing, and what one trades with it. */
export interface School {
  id: BalanceSchool;
  title: string;
  how: string;
  gains: string;
  costs: string;
}

export const schools: School[] = [
  {
    id: 'top',
    title: 'Level at full',
    how: 'Charge until the first cell is full, then the monitor bleeds the others’ lead away, again and again.',
    gains: 'The whole charge is used; the monitor keeps it so by itself.',
    costs: 'Unlike capacities part at the bottom: the weakest cell must end the drive.',
  },
  {
    id: 'bottom',
    title: 'Level at empty',
    how: 'Draw each cell down with a load, rest it for days, again where it creeps back too high.',
    gains: 'A drive too far finds all cells together; it asks for no bleeding.',
    costs: 'Weeks of work; the first full cell must end every charge; a monitor that bleeds undoes it.',
  },
  {
    id: 'bench',
    title: 'Side by side',
    how: 'Join all modules to common bars on the bench for days; they bring each other level where they are.',
    gains: 'Little work, no heat thrown away, modules level as wholes.',
    costs: 'Currents at joining; slow on a flat curve; cells inside a module stay as they are.',
  },
];
