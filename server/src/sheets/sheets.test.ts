import { describe, expect, test } from '@jest/globals';
import { procedureFor } from '@torvek/core/commissioning';
import { assess, evaluate, liveStateOf } from '@torvek/core/design';
import { makeSheet, sheetKinds, subjectsOfSheet, type Sheet, type SheetId } from '@torvek/core/sheets';
import { libraryBus } from '../../../demo/library-bus';
import { orchardTruck } from '../../../demo/orchard-truck';
import { cellPadPt, fitTable, lines, ptPerMm, rulePt, splitTable } from './fit';
import { papers, type Paper } from './paper';
import { orientationOf, printSheet, tablesOf } from './print';
import { paperMeasure } from './type';

const measure = paperMeasure();
/** Every character one half wide. */
const even = (text: string) => text.length / 2;
const table = (titles: string[], rows: string[][]) => ({ columns: titles.map((title) => ({ title })), rows });

describe('columns on paper', () => {
  test('each is at least its longest word, and what is left goes to those whose lines would break', () => {
    const fitted = fitTable(table(['a', 'b'], [['word', 'two longwords here']]), 200, even)!;
    expect(fitted.sizePt).toBe(8.5);
    expect(fitted.widthsPt[0]).toBeCloseTo(4 * 0.5 * 8.5 + 0.5 + 2 * cellPadPt, 9);
    expect(fitted.widthsPt[1]).toBeCloseTo(18 * 0.5 * 8.5 + 0.5 + 2 * cellPadPt, 9);
    const tight = fitTable(table(['a', 'b'], [['word', 'two longwords here']]), 80, even)!;
    const used = tight.widthsPt.reduce((sum, one) => sum + one, 0);
    expect(used).toBeCloseTo(80 - 3 * rulePt, 9);
    expect(tight.widthsPt[1]).toBeGreaterThanOrEqual(9 * 0.5 * tight.sizePt + 2 * cellPadPt);
  });

  test('smaller type before a table is given up; a column for the hand keeps its room', () => {
    const words = table(['a'], [['x'.repeat(40)]]);
    expect(fitTable(words, 175, even)!.sizePt).toBe(8);
    expect(fitTable(words, 130, even)).toBeNull();
    const hand = { columns: [{ title: 'read', handMm: 20 }], rows: [['']] };
    expect(fitTable(hand, 200, even)!.widthsPt[0]).toBeCloseTo(20 * ptPerMm + 2 * cellPadPt, 9);
  });

  test('a table too wide goes on in another that begins with the first column again', () => {
    const wide = table(['key', 'b', 'c', 'd'], [['k1', 'b'.repeat(20), 'c'.repeat(20), 'd'.repeat(20)]]);
    const pieces = splitTable(wide, 165, even);
    expect(pieces.map(({ columns }) => columns.map(({ title }) => title))).toEqual([
      ['key', 'b', 'c'],
      ['key', 'd'],
    ]);
    expect(pieces[1]!.rows).toEqual([['k1', 'd'.repeat(20)]]);
  });

  test('lines break between words alone', () => {
    expect(lines('one two three', 40, 10, even)).toEqual(['one two', 'three']);
    expect(lines('extraordinarily', 10, 10, even)).toEqual(['extraordinarily']);
    expect(lines('a\n\nb', 100, 10, even)).toEqual(['a', '', 'b']);
    expect(lines('', 100, 10, even)).toEqual(['']);
  });
});

const contextOf = ({ design }: typeof libraryBus) => {
  const evaluation = evaluate(design);
  const procedure = procedureFor(design, evaluation);
  return {
    design,
    evaluation,
    procedure,
    assessment: assess(evaluation, procedure, []),
    live: liveStateOf(design, null, []),
  };
};
const sheets = [libraryBus, orchardTruck].flatMap((job) => {
  const context = contextOf(job);
  return (Object.keys(sheetKinds) as SheetId[]).flatMap((id) => {
    const subjects = subjectsOfSheet(id, context.design).map((one) => one.id);
    return (subjects.length === 0 ? [null] : subjects).map((subject): [string, Sheet] => [
      `${job.id} ${id} ${subject ?? ''}`,
      makeSheet(id, context, subject)!,
    ]);
  });
});

describe('no sheet of the demos cuts a word or a column', () => {
  test.each(Object.keys(papers) as Paper[])('on %s', (paper) => {
    expect(sheets.length).toBeGreaterThan(30);
    for (const [name, sheet] of sheets)
      for (const { table: one, roomPt } of tablesOf(sheet, paper, measure)) {
        const fitted = fitTable(one, roomPt, measure);
        expect([name, fitted === null]).toEqual([name, false]);
        const { sizePt, widthsPt } = fitted!;
        const used = widthsPt.reduce((sum, width) => sum + width, rulePt * (widthsPt.length + 1));
        expect(used).toBeLessThanOrEqual(roomPt + 1e-6);
        one.rows.forEach((row) =>
          row.forEach((text, i) => {
            const inner = widthsPt[i]! - 2 * cellPadPt;
            for (const line of lines(text, inner, sizePt, measure))
              expect(measure(line) * sizePt).toBeLessThanOrEqual(inner + 1e-6);
          }),
        );
      }
  });

  test('a wide sheet lies on its side', () => {
    const wide: Sheet = {
      id: 'x',
      title: 'x',
      about: '',
      blocks: [
        { kind: 'table', columns: Array.from({ length: 12 }, () => ({ title: 'tenletters' })), rows: [] },
      ],
    };
    expect(orientationOf(wide, 'A4', measure)).toBe('landscape');
    expect(orientationOf({ ...wide, blocks: [] }, 'A4', measure)).toBe('portrait');
  });

  test('every character on them is in the type', () => {
    const characters = new Set(sheets.flatMap(([, sheet]) => [...JSON.stringify(sheet)]));
    // A character that the type lacks has the width of its empty box.
    const box = measure('\u{10FFFD}');
    const lacking = [...characters].filter(
      (one) => one !== ' ' && measure(one) === box && !/[\x20-\x7e]/.test(one),
    );
    expect(lacking).toEqual([]);
    expect(characters.has('Ω')).toBe(true);
  });
});

test('a sheet becomes a PDF with its pages', async () => {
  const [, sheet] = sheets.find(([name]) => name.includes('circuits'))!;
  const imprint = {
    job: 'Ashmarch County mobile library',
    stand: 'version 5',
    head: `torvek-head 1 ${'a'.repeat(64)}`,
  };
  const bytes = Buffer.from(await printSheet({ sheet, imprint, paper: 'letter' }));
  expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
  expect(bytes.toString('latin1')).toContain('/MediaBox [0 0 612 792]');
});
