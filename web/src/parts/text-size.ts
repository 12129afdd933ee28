/** Width over font size of the shipped type, generously: what is laid out by it never runs over. */
const narrow = new Set([
  '\u00a0',
  'i',
  'l',
  'j',
  't',
  'f',
  'r',
  '.',
  ',',
  ':',
  ';',
  "'",
  '|',
  '!',
  '(',
  ')',
  ' ',
  '1',
  '-',
]);
const wide = new Set(['m', 'w', 'M', 'W', '@', '%', '—']);

/** Width of a line of text in px. */
export function textWidth(text: string, sizePx: number, bold = false): number {
  let ems = 0;
  for (const letter of text) {
    if (narrow.has(letter)) ems += 0.4;
    else if (wide.has(letter)) ems += 0.95;
    else if (letter >= 'A' && letter <= 'Z') ems += 0.7;
    else ems += 0.6;
  }
  return ems * sizePx * (bold ? 1.05 : 1);
}

/**
 * Breaks text into lines no wider than asked, at spaces; a word that is wider stands alone, cut with an ellipsis when
 * it is wider than `mostPx`.
 */
export function wrapText(
  text: string,
  sizePx: number,
  widthPx: number,
  mostLines: number,
  bold = false,
): string[] {
  const lines: string[] = [];
  for (const word of text.split(' ').filter((one) => one !== '')) {
    const last = lines.at(-1);
    if (last !== undefined && textWidth(`${last} ${word}`, sizePx, bold) <= widthPx)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  if (lines.length > mostLines) {
    const rest = lines.splice(mostLines - 1).join(' ');
    lines.push(rest);
  }
  return lines.map((line) => cut(line, sizePx, widthPx * 1.4, bold));
}

function cut(line: string, sizePx: number, widthPx: number, bold: boolean): string {
  if (textWidth(line, sizePx, bold) <= widthPx) return line;
  let end = line.length;
  while (end > 1 && textWidth(`${line.slice(0, end)}…`, sizePx, bold) > widthPx) end -= 1;
  return `${line.slice(0, end).trimEnd()}…`;
}
