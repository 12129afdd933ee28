import { everyCircuit, type CircuitItem, type Id } from '../../model/document';
import { figureId, type Figure, type Gap } from '../../ground/figure';
import { resistancePerM } from '../../model/parts';
import type { StepDefinition } from '../../model/step';
import { defaultContactOhm, loopOhm } from './loop';
import { chosenCablePart, lengthOf, waysOf } from './ways';

/** Where a cable’s length stands: with it, with the parts of its way, or with the run that carries it. */
function pathOfLength(circuit: CircuitItem, subject: Id): string {
  const [first, second] = waysOf(circuit, subject);
  return second !== undefined && !first!.at.startsWith('runs.')
    ? `circuits.${subject}.stretches`
    : first!.lengthAt;
}

/** Resistance of the circuit out and back: cable at 20 °C and contacts. */
export const loopStep: StepDefinition = {
  id: 'conductor.loop',
  version: 1,
  subjects: everyCircuit,
  compute(subject, read) {
    const circuit = read.at('circuits', subject)!;
    const at = `circuits.${subject}`;
    const part = chosenCablePart(read, circuit.cable);
    const gaps: Gap[] = [];
    if (part === null) gaps.push({ kind: 'not-given', path: `${at}.cable`, label: 'cable' });
    const { lengthM, gaps: lengthGaps } = lengthOf(circuit, subject);
    gaps.push(...lengthGaps);
    const parallel = circuit.parallel ?? 1;
    const contactOhm = circuit.contactOhm ?? defaultContactOhm;
    const perM = part === null ? 0 : resistancePerM(part.data.areaMm2, 20);
    if (part !== null && !Number.isFinite(perM)) {
      gaps.push({
        kind: 'invalid',
        path: `${at}.cable`,
        label: 'area of the cable',
        message: 'is not one of IEC 60228',
      });
    }
    if (!(parallel >= 1))
      gaps.push({
        kind: 'invalid',
        path: `${at}.parallel`,
        label: 'conductors in parallel',
        message: 'must be 1 or more',
      });
    const value = part === null ? 0 : loopOhm(part.data.areaMm2, lengthM, parallel, contactOhm);
    const origin = (given: number | undefined, field: string) => ({
      kind: given === undefined ? ('default' as const) : ('document' as const),
      path: `${at}.${field}`,
    });
    const figure: Figure = {
      id: figureId('conductor.loop', subject, 'loopOhm'),
      label: 'Resistance out and back',
      unit: 'Ω',
      value: gaps.length > 0 ? null : value,
      gaps,
      working:
        gaps.length > 0
          ? []
          : [
              {
                symbol: 'R_p',
                label: 'Resistance out and back',
                formula: '2·l·r/p + R_c',
                inputs: [
                  {
                    symbol: 'l',
                    value: lengthM,
                    unit: 'm',
                    origin: {
                      kind: 'document',
                      path: pathOfLength(circuit, subject),
                    },
                  },
                  {
                    symbol: 'r',
                    value: perM,
                    unit: 'Ω/m',
                    origin: { kind: 'part', key: circuit.cable ?? '', path: 'areaMm2' },
                  },
                  { symbol: 'p', value: parallel, unit: '', origin: origin(circuit.parallel, 'parallel') },
                  {
                    symbol: 'R_c',
                    value: contactOhm,
                    unit: 'Ω',
                    origin: origin(circuit.contactOhm, 'contactOhm'),
                  },
                ],
                value,
                unit: 'Ω',
                source: 'IEC 60228 at 20 °C; contacts, lugs and bars of both poles',
              },
            ],
    };
    return { figures: [figure], checks: [] };
  },
};
