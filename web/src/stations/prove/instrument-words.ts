import { instrumentNames, type Instrument } from '@torvek/core/record';

/** The name of a kind of instrument at the beginning of a sentence. */
export const spokenKind = (kind: Instrument['kind']): string =>
  instrumentNames[kind].replace(/^./, (first) => first.toUpperCase());
