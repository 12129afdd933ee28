import type { Id } from '../../model/document';
import { Inputs, type Reader } from '../../model/step';
import { boxUa } from './box-ua';

/** What an area is computed of. */
const sizes = [
  ['lengthM', 'length'],
  ['widthM', 'width'],
  ['heightM', 'height'],
] as const;

/** What of each wall. */
const ofWall = [
  ['thicknessMm', 'thickness'],
  ['conductivityWPerMK', 'conductivity'],
] as const;

/** Heat through the walls of a box: whoever needs it computes it here. */
export function wallsOf(id: Id, read: Reader) {
  const box = read.at('boxes', id)!;
  const { tag } = box;
  const at = `boxes.${id}`;
  const inputs = new Inputs(read);
  for (const [field, label] of sizes)
    if (box[field] === undefined)
      inputs.missing({ kind: 'not-given', path: `${at}.${field}`, label: `${label} of ${tag}` });
    else if (!(box[field] > 0))
      inputs.missing({
        kind: 'invalid',
        path: `${at}.${field}`,
        label: `${label} of ${tag}`,
        message: 'must be above 0',
      });
  const { lengthM = 0, widthM = 0, heightM = 0 } = box;
  inputs.set('areaM2', 2 * (lengthM * widthM + lengthM * heightM + widthM * heightM), {
    kind: 'constant',
    source: 'outside of the box, all six faces',
  });
  if (box.walls === undefined)
    inputs.missing({ kind: 'not-given', path: `${at}.walls`, label: `walls of ${tag}` });
  else {
    box.walls.forEach((wall, i) => {
      for (const [field, label] of ofWall)
        if (wall[field] === undefined)
          inputs.missing({
            kind: 'not-given',
            path: `${at}.walls.${i}.${field}`,
            label: `${label} of wall ${i + 1} of ${tag}`,
          });
    });
    inputs.set(
      'layers',
      box.walls.map(({ thicknessMm = 0, conductivityWPerMK = 0 }) => ({
        thicknessM: thicknessMm / 1000,
        conductivityWPerMK,
      })),
      { kind: 'document', path: `${at}.walls` },
      `walls of ${tag}`,
    );
  }
  inputs.optional('bareM2', box.bareM2, `${at}.bareM2`, `outside of ${tag} without insulation`);
  inputs.optional('bridgeWPerK', box.bridgeWPerK, `${at}.bridgeWPerK`, `bridges of ${tag}`);
  return inputs.run(boxUa);
}
