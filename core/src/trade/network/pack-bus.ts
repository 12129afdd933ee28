/** Terminals of the pack bus, where strings meet. */
export const packBus = { plus: 'pack:+', minus: 'pack:-' };
export const packBusSymbol = 'pack-bus';
