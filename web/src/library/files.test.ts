import { describe, expect, test } from '@jest/globals';
import { catalogue, catalogueOf, partKinds, type Part } from '@torvek/core/parts';
import { curveText, inOrder, readCurve, rounded } from './curve-text';
import { partsCsv, partsJson, readParts } from './files';

const problemsOf = (text: string) => {
  const read = readParts(text);
  return read.ok ? [] : read.problems;
};

describe('parts as files', () => {
  test('all of the catalogue goes out as JSON and comes back alike', () => {
    expect(readParts(partsJson(catalogue))).toEqual({ ok: true, parts: catalogue });
  });

  test.each(partKinds)('%s: out as CSV and back alike, curves included', (kind) => {
    const parts = catalogueOf(kind) as readonly Part[];
    expect(readParts(partsCsv(kind, parts))).toEqual({ ok: true, parts });
  });

  test('a source with commas and quotes survives', () => {
    const part: Part = { ...catalogueOf('resistor')[0]!, source: 'Sheet “7”, issue B, "final"' };
    expect(readParts(partsCsv('resistor', [part]))).toEqual({ ok: true, parts: [part] });
  });

  test('no cell of a CSV begins like a formula, and all come back as they were', () => {
    const labels = ['=1+1', '+49', '-20', '@sum', "'quoted", "'=1"];
    const parts = labels.map((source, i): Part => ({ ...catalogueOf('fuse')[i]!, source }));
    const text = partsCsv('fuse', parts);
    expect(text).not.toMatch(/(^|[,"\n])[=+@]/);
    expect(text).not.toMatch(/(^|[,"\n])-(?![\d.]+,)/);
    expect(readParts(text)).toEqual({ ok: true, parts });
  });

  test('what is wrong is named by line and field', () => {
    const lines = partsCsv('fuse', catalogueOf('fuse').slice(0, 2)).split('\n');
    expect(problemsOf([lines[0], lines[1], lines[2]!.replace(',500,', ',abc,')].join('\n'))).toEqual([
      'Line 3: ratedVoltageV: “abc” is not a number',
    ]);
    expect(
      problemsOf([lines[0], lines[1]!.replace('16 1000; ', '16 1000; 17 2000; ')].join('\n'))[0],
    ).toMatch(/^Line 2: curve must fall strictly/);
    expect(problemsOf('kind,id\nfuse,x')).toEqual([
      'The first line has no column “make”, “number”, “label”.',
    ]);
    expect(problemsOf('kind,id,make,number,label\nwheel,x,a,b,c')[0]).toMatch(/“wheel” is no kind of part/);
  });

  test('JSON of another kind, of a later version, broken or empty, says so', () => {
    expect(problemsOf('{"format":"torvek-job"}')[0]).toMatch(/no list of parts/);
    expect(problemsOf('{"format":"torvek-parts","formatVersion":2,"parts":[]}')[0]).toMatch(/version 2/);
    expect(problemsOf('{"format":')[0]).toMatch(/cannot be read/);
    expect(problemsOf('  ')).toEqual(['The file is empty.']);
    expect(problemsOf(partsJson([{ ...catalogue[0]!, revision: 0 }]))[0]).toBe(
      'Part 1: revision must be 1 or more.',
    );
  });
});

describe('a curve as text', () => {
  test.each([
    [
      '10 1000\n20 100',
      [
        [10, 1000],
        [20, 100],
      ],
    ],
    [
      'current time\n10\t1000\n\n20\t0,5',
      [
        [10, 1000],
        [20, 0.5],
      ],
    ],
    [
      '10; 1e3\n20; 1.5',
      [
        [10, 1000],
        [20, 1.5],
      ],
    ],
    [
      '10.0,1000\n20.0,0.5',
      [
        [10, 1000],
        [20, 0.5],
      ],
    ],
    ['-20 1.1', [[-20, 1.1]]],
  ])('%j is read', (text, rows) => {
    expect(readCurve(text)).toEqual({ ok: true, rows });
  });

  test.each([
    ['10 1000\n20 x', 'Line 2: “20 x” is not two numbers.'],
    ['10,5', 'Line 1: “10,5” is not two numbers; a comma is decimal, part them by a blank.'],
    ['1 2 3', 'Line 1: “1 2 3” is not two numbers.'],
    ['', 'A curve has at least one point.'],
  ])('%j is refused by its line', (text, message) => {
    expect(readCurve(text)).toEqual({ ok: false, message });
  });

  test('goes out as it comes in, in order, one point a current', () => {
    expect(
      readCurve(
        curveText([
          [1.5, 20],
          [3, 0.004],
        ]),
      ),
    ).toEqual({
      ok: true,
      rows: [
        [1.5, 20],
        [3, 0.004],
      ],
    });
    expect(
      inOrder([
        [3, 1],
        [1, 9],
        [3, 2],
      ]),
    ).toEqual([
      [1, 9],
      [3, 1],
    ]);
    expect([rounded(1234.5), rounded(0.00123456)]).toEqual([1230, 0.00123]);
  });
});
