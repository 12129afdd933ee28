import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { openSync } from 'fontkit';

/** Where the type for paper lies: it has Ω, µ, → and ≤, which the type of the screen lacks. */
const folder = join(dirname(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json')), 'ttf');
export const paperType = {
  normal: join(folder, 'DejaVuSansCondensed.ttf'),
  bold: join(folder, 'DejaVuSansCondensed-Bold.ttf'),
};
export const isPaperType = (path: string) => Object.values(paperType).includes(path);

/** Width of a text in points, of type of 1 pt. */
export type Measure = (text: string, bold?: boolean) => number;

let opened: Measure | null = null;

/** Measures text in the type for paper; opened once. */
export function paperMeasure(): Measure {
  opened ??= measureOf();
  return opened;
}

function measureOf(): Measure {
  const widthsOf = (path: string) => {
    const font = openSync(path);
    if (!('glyphForCodePoint' in font)) throw new Error(`${path} holds several fonts`);
    const known = new Map<string, number>();
    return (character: string) => {
      const width =
        known.get(character) ??
        font.glyphForCodePoint(character.codePointAt(0)!).advanceWidth / font.unitsPerEm;
      known.set(character, width);
      return width;
    };
  };
  const normal = widthsOf(paperType.normal);
  const bold = widthsOf(paperType.bold);
  return (text, isBold = false) => {
    let sum = 0;
    for (const character of text) sum += (isBold ? bold : normal)(character);
    return sum;
  };
}
