import { describe, expect, test } from '@jest/globals';
import { edit, mainCircuit } from '@torvek/core/document';
import { evaluate } from '@torvek/core/design';
import type { EntryBody } from '@torvek/core/record';
import { libraryBus } from '../../../../../demo/library-bus';
import { builtRows, cutRows, movedFigures } from './rows';

const { design } = libraryBus;
const told = (seq: number, body: object) => ({
  seq,
  takenAt: '2026-11-20T08:00:00Z',
  by: 'T. Halloway',
  attachments: [],
  body: body as EntryBody,
});

describe('what was built, place by place', () => {
  test('the last that was said of a place stands in its row; what has serials comes first', () => {
    const place = `circuits.${mainCircuit}.fuse`;
    const rows = builtRows(design, [
      told(4, { kind: 'part-fitted', place, serial: 'A' }),
      told(7, { kind: 'part-fitted', place, serial: 'B' }),
      told(9, { kind: 'part-fitted', place: 'circuits.gone.fuse', serial: 'C' }),
    ]);
    expect(
      rows.flatMap(({ path, told: one }) => (one === null ? [] : [[path, one.seq, one.body.serial]])),
    ).toEqual([[place, 7, 'B']]);
    const kinds = rows.map(({ kind }) => kind);
    expect(kinds.lastIndexOf('fuse')).toBeLessThan(kinds.indexOf('cable'));
    expect(kinds.lastIndexOf('device')).toBeLessThan(kinds.indexOf('lug'));
  });

  test('lengths beside what is designed', () => {
    const rows = cutRows(design, [
      told(3, { kind: 'cable-cut', place: `circuits.${mainCircuit}.lengthM`, lengthM: 7, batch: null }),
    ]);
    const main = rows.find(({ holder }) => holder === mainCircuit)!;
    expect([main.lengthM, main.told?.body.lengthM]).toEqual([design.circuits[mainCircuit]!.lengthM, 7]);
    expect(rows.filter(({ told: one }) => one !== null)).toHaveLength(1);
  });

  test('figures that moved by half a percent or more, those that moved most first', () => {
    const designed = evaluate(design);
    expect(movedFigures(designed, designed)).toEqual([]);
    const at = (share: number) =>
      evaluate(edit(design, (draft) => void (draft.circuits[mainCircuit]!.lengthM! *= share))!.design);
    expect(movedFigures(designed, at(1.004)).filter(({ label }) => label === 'Voltage drop')).toEqual([]);
    const moved = movedFigures(designed, at(1.5));
    const drop = moved.find(({ label, subject }) => label === 'Voltage drop' && subject === mainCircuit)!;
    expect(drop.built! / drop.designed!).toBeGreaterThan(1.4);
    const shares = moved.map(({ designed: was, built: is }) => Math.abs(is! - was!) / Math.abs(was!));
    expect([...shares].sort((a, b) => b - a)).toEqual(shares);
  });
});
