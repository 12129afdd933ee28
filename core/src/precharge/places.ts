import { figureId } from '../figure';

export const packHighest = figureId('pack.pack', 'pack', 'voltageMaxV');

/** The capacitance of a bus. */
export const capacitanceOf = (bus: string) => figureId('precharge.bus', bus, 'capacitanceF');
