/** A captured trace as pasted: one sample a line, time in seconds and volts, with a tab, a semicolon or a comma between. */
export type PastedTrace = { ok: true; samples: [number, number][] } | { ok: false; message: string };

/**
 * Reads a pasted trace. A comma is decimal when the columns are parted by a tab or semicolon, and parts the columns
 * otherwise; heading lines before the first sample are passed over.
 */
export function readTrace(text: string): PastedTrace {
  const samples: [number, number][] = [];
  for (const [i, line] of text.split(/\r?\n/).entries()) {
    if (line.trim() === '') continue;
    const cells =
      line.includes('\t') || line.includes(';')
        ? line.split(/[\t;]/).map((cell) => cell.replace(',', '.'))
        : line.split(/[,\s]+/);
    const numbers = cells
      .map((cell) => cell.trim())
      .filter((cell) => cell !== '')
      .map(Number);
    const [time, voltage] = numbers;
    if (
      numbers.length !== 2 ||
      time === undefined ||
      voltage === undefined ||
      !numbers.every(Number.isFinite)
    ) {
      if (samples.length === 0) continue;
      return { ok: false, message: `line ${i + 1} is not a pair of numbers: ${line.slice(0, 40)}` };
    }
    samples.push([time, voltage]);
  }
  if (samples.length < 8)
    return { ok: false, message: `${samples.length} samples were read; at least 8 are needed` };
  const back = samples.findIndex(([time], j) => j > 0 && time <= samples[j - 1]![0]);
  if (back > 0) return { ok: false, message: `the time does not rise at sample ${back + 1}` };
  return { ok: true, samples };
}
