import { describe, expect, test } from '@jest/globals';
import { setAt, valueOf, type Design } from '@torvek/core/document';
import { starterLibrary } from '@torvek/core/library';
import { partKey } from '@torvek/core/parts';
import { createPinia, setActivePinia } from 'pinia';
import { computed, ref } from 'vue';
import { useEditing } from './editing';
import { partShelf } from './part-shelf';
import { useSelection } from './selection';
import type { GridColumn } from './columns';

interface Row {
  id: string;
  name: string;
}
const [first, second] = starterLibrary.of('fuse');
const key = partKey(first!);

/** Three branches with a fuse, a way of switching and a length; the first has all of them. */
function grid(growing = false) {
  setActivePinia(createPinia());
  const design = {
    parts: { [key]: first },
    circuits: {
      a: { tag: 'A', role: 'branch', fuse: key, poles: 'both', lengthM: 3 },
      b: { tag: 'B', role: 'branch' },
      c: { tag: 'C', role: 'branch' },
    },
  } as unknown as Design;
  const changes: string[] = [];
  let made = 0;
  const rows = ref<Row[]>(['a', 'b', 'c'].map((id) => ({ id, name: id.toUpperCase() })));
  const path = (field: string) => (row: Row) => `circuits.${row.id}.${field}`;
  const columns = ref<GridColumn<Row>[]>([
    {
      id: 'fuse',
      title: 'fuse',
      kind: 'part',
      part: 'fuse',
      label: 'Fuse',
      path: path('fuse'),
      none: () => 'none',
    },
    {
      id: 'poles',
      title: 'poles',
      kind: 'choice',
      label: 'Poles',
      path: path('poles'),
      choices: () => [
        { value: 'both', text: 'both poles' },
        { value: 'plus', text: 'plus alone' },
      ],
      none: () => 'not said',
    },
    { id: 'lengthM', title: 'long', kind: 'number', unit: 'm', label: 'Length', path: path('lengthM') },
  ]);
  const selection = useSelection(computed(() => ({ rows: 3, columns: 3 })));
  const editing = useEditing<Row>({
    label: () => 'Circuits',
    rows,
    columns,
    selection,
    sheet: {
      shown: design,
      committed: design,
      editable: true,
      parts: partShelf(() => design, { library: starterLibrary }),
      change(label, recipe) {
        changes.push(label);
        recipe(design);
      },
      preview: () => undefined,
    },
    // Two of the three may be followed by others of their kind.
    grow: () =>
      growing
        ? {
            own: 2,
            row: () => ({ id: `new${(made += 1)}`, name: 'new' }),
            make: (draft, added) => {
              for (const { id } of added)
                (draft as Design).circuits[id] = { tag: id, role: 'branch' } as Design['circuits'][string];
            },
          }
        : undefined,
  });
  const block = (top: number, left: number, bottom: number, right: number) => {
    selection.goTo({ row: top, column: left });
    selection.goTo({ row: bottom, column: right }, true);
  };
  const of = (at: string) => valueOf(design, `circuits.${at}`);
  return {
    design,
    changes,
    editing,
    block,
    of,
    set: (at: string, value: unknown) => setAt(design, at, value),
  };
}

describe('a block with choices and parts in it', () => {
  test('is filled down in one change: fuse, poles and length of the first row', () => {
    const { changes, editing, block, of } = grid();
    block(0, 0, 2, 2);
    editing.fillDown();
    expect(changes).toHaveLength(1);
    expect(['b', 'c'].map((id) => [of(`${id}.fuse`), of(`${id}.poles`), of(`${id}.lengthM`)])).toEqual([
      [key, 'both', 3],
      [key, 'both', 3],
    ]);
  });

  test('is copied by names and pasted back by them; a part of the library is pinned, one that nothing uses any more goes', () => {
    const { design, changes, editing, block, of } = grid();
    block(0, 0, 0, 1);
    expect(editing.copied()).toBe(`${first!.label}\tboth poles`);
    block(1, 0, 1, 0);
    editing.paste(`${second!.label}\tPLUS ALONE`);
    expect(changes).toHaveLength(1);
    expect([of('b.fuse'), of('b.poles')]).toEqual([partKey(second!), 'plus']);
    expect(Object.keys(design.parts).sort()).toEqual([key, partKey(second!)].sort());
    block(0, 0, 0, 0);
    editing.clear();
    expect(of('a.fuse')).toBeUndefined();
    expect(Object.keys(design.parts)).toEqual([partKey(second!)]);
  });

  test('what is none of the choices, and no part of that kind, stays marked in its cell and out of the design', () => {
    const { changes, editing, block, of } = grid();
    block(1, 0, 1, 0);
    editing.paste('No such fuse\tboth\t2');
    expect(of('b.lengthM')).toBe(2);
    expect([of('b.fuse'), of('b.poles')]).toEqual([undefined, undefined]);
    expect(changes).toHaveLength(1);
    expect(editing.refused.value['circuits.b.fuse']?.message).toBe('is no fuse of the library');
    expect(editing.refused.value['circuits.b.poles']?.message).toBe('is none of both poles, plus alone');
    // Another one is chosen there: the mark goes, and no other.
    editing.forgive('circuits.b.fuse');
    expect(Object.keys(editing.refused.value)).toEqual(['circuits.b.poles']);
    // A cable is no fuse, whatever its name.
    const cable = starterLibrary.of('cable')[0]!;
    block(2, 0, 2, 0);
    editing.paste(cable.label);
    expect(of('c.fuse')).toBeUndefined();
  });

  test('what it says for nothing is nothing', () => {
    const { editing, block, of } = grid();
    block(0, 0, 0, 0);
    editing.paste('none\tnot said');
    expect([of('a.fuse'), of('a.poles'), of('a.lengthM')]).toEqual([undefined, undefined, 3]);
  });

  test('a list that is longer than what can be added to makes its rows, in the same change; what follows is left alone', () => {
    const { changes, editing, block, of } = grid(true);
    block(1, 2, 1, 2);
    editing.paste('4\n5\n6.5');
    expect(changes).toEqual(['Circuits: 3 cells pasted']);
    expect([of('b.lengthM'), of('new1.lengthM'), of('new2.lengthM')]).toEqual([4, 5, 6.5]);
    expect([of('a.lengthM'), of('c.lengthM')]).toEqual([3, undefined]);
    expect(editing.note.value).toBeNull();
  });

  test('without that, and below what can be added to, a list ends where the table does', () => {
    const cut = grid();
    cut.block(1, 2, 1, 2);
    cut.editing.paste('4\n5\n6.5');
    expect([cut.of('b.lengthM'), cut.of('c.lengthM')]).toEqual([4, 5]);
    expect(cut.editing.note.value).toBe('1 cells lay outside the table and were left out');
    const below = grid(true);
    below.block(2, 2, 2, 2);
    below.editing.paste('4\n5');
    expect([below.of('c.lengthM'), below.of('new1.lengthM')]).toEqual([4, undefined]);
  });
});
