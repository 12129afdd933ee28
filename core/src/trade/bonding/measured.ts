import { mainCircuit } from '../../model/document';
import { feedingCircuit } from '../network';
import { bodiesOf, type Body, type BodySlices } from './bodies';

/** The bodies whose bond is measured: all but those that do not conduct. */
export const measuredBodies = (design: BodySlices): Body[] =>
  bodiesOf(design, mainCircuit, (id) => feedingCircuit(design, id)).filter(
    ({ id }) => design.bonds?.[id]?.by !== 'not-conductive',
  );
