import { text } from '../../ground/shape';
import { snagGates } from '../gates';
import { defineKind } from '../kind';
import { words } from '../shapes';

/** Something provisional, with the gate by which it must be gone. */
export interface SnagBody {
  kind: 'snag';
  what: string;
  gate: string;
}

const gateTitle = (id: string) => snagGates.find((gate) => gate.id === id)?.title ?? id;

export const snag = defineKind<SnagBody>({
  kind: 'snag',
  many: 'snags',
  fields: { what: words(500), gate: text(80) },
  stands: 'always',
  title: ({ what }) => `Snag: ${what}`,
  outcome: ({ gate }) => `due by ${gateTitle(gate).toLowerCase()}`,
});
