import type { Design } from '../../model/document';

/** Something is said of charging: then all of it is asked. */
export const saysCharging = ({ supplies = {}, inlets = {} }: Pick<Design, 'supplies' | 'inlets'>): boolean =>
  Object.keys(supplies).length + Object.keys(inlets).length > 0;
