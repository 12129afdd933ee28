import type { Id, SupplyItem } from '../../model/document';
import { Inputs, type Reader } from '../../model/step';
import { packInputs } from './pack-side';

/** The inputs of a charge at a supply: from where to where, and with what at the most. */
export function curveInputs(
  read: Reader,
  supply: SupplyItem,
  subject: Id,
  source: { maxW: number | null; maxA: number | null; maxV: number },
): Inputs {
  const { socLowFraction, socHighFraction } = read.at('pack');
  const at = `supplies.${subject}`;
  const inputs = new Inputs(read);
  packInputs(read, inputs);
  const isStation = supply.kind === 'station';
  const reach = (
    name: 'startSoc' | 'endSoc',
    field: 'fromFraction' | 'toFraction',
    own: number | undefined,
    path: string,
    label: string,
    usual: number,
  ) => {
    if (supply[field] !== undefined) inputs.given(name, supply[field], `${at}.${field}`, label);
    else if (isStation) inputs.set(name, usual, { kind: 'constant', source: 'usual for a station' }, label);
    else inputs.given(name, own, path, label);
  };
  reach(
    'startSoc',
    'fromFraction',
    socLowFraction,
    'pack.socLowFraction',
    'bottom of the charge window',
    0.1,
  );
  reach('endSoc', 'toFraction', socHighFraction, 'pack.socHighFraction', 'top of the charge window', 0.8);
  const limit = (name: 'maxW' | 'maxA' | 'maxV', value: number | null) => {
    if (value !== null)
      inputs.set(`source.${name}`, value, { kind: 'constant', source: `${supply.tag}, by its way` });
  };
  limit('maxW', source.maxW);
  limit('maxA', source.maxA);
  limit('maxV', source.maxV);
  return inputs;
}
