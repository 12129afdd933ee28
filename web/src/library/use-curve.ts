import { readOff, type AxisMarks } from '@torvek/core/library';
import type { TableField } from '@torvek/core/parts';
import { parseQuantity } from '@torvek/core/quantity';
import { computed, reactive, ref } from 'vue';
import { inOrder, rounded } from './curve-text';

export const markIds = ['x1', 'x2', 'y1', 'y2'] as const;
export type MarkId = (typeof markIds)[number];
type At = [number, number];

interface Mark {
  /** On the picture, px; null: not placed. */
  at: At | null;
  /** Its value as typed. */
  text: string;
}

/** Marks on the axes of a pictured plot, and the points read off it. Places are pixels of the picture. */
export function useCurve(field: TableField) {
  const marks = reactive<Record<MarkId, Mark>>({
    x1: { at: null, text: '' },
    x2: { at: null, text: '' },
    y1: { at: null, text: '' },
    y2: { at: null, text: '' },
  });
  const scales = reactive({ x: field.columns[0].scale, y: field.columns[1].scale });
  const points = ref<At[]>([]);
  /** What the next press on the picture places. */
  const placing = ref<MarkId | 'point'>('x1');
  const picked = ref<MarkId | number | null>(null);

  const toPlace = (): MarkId | 'point' => markIds.find((id) => marks[id].at === null) ?? 'point';

  /**
   * A press on the picture: picks what lies within reach, else places what is next.
   *
   * @param reachPx how near a press must be to pick, px of the picture
   * @returns the mark whose value is asked for next, or null
   */
  function press(at: At, reachPx: number): { dragging: boolean; asks: MarkId | null } {
    const near = nearest(at, reachPx);
    if (near !== null) {
      picked.value = near;
      return { dragging: true, asks: null };
    }
    if (placing.value === 'point') {
      points.value = [...points.value, at];
      picked.value = points.value.length - 1;
      return { dragging: false, asks: null };
    }
    const id = placing.value;
    marks[id].at = at;
    picked.value = id;
    placing.value = toPlace();
    return { dragging: false, asks: id };
  }

  /** Puts what is picked somewhere. */
  function put(at: At): void {
    const which = picked.value;
    if (typeof which === 'number') points.value = points.value.map((old, i) => (i === which ? at : old));
    else if (which !== null) marks[which].at = at;
  }

  function nearest([x, y]: At, reachPx: number): MarkId | number | null {
    const placed: [MarkId | number, At][] = [
      ...markIds.flatMap((id): [MarkId, At][] => (marks[id].at === null ? [] : [[id, marks[id].at]])),
      ...points.value.map((at, i): [number, At] => [i, at]),
    ];
    const found = placed
      .map(([which, at]) => ({ which, far: Math.hypot(at[0] - x, at[1] - y) }))
      .filter(({ far }) => far <= reachPx)
      .sort((a, b) => a.far - b.far)[0];
    return found?.which ?? null;
  }

  /** Arrows move what is picked by a pixel, with Shift by a fifth; Delete takes a point away. Whether the key was one of these. */
  function nudge(key: string, fine: boolean): boolean {
    const which = picked.value;
    if (which === null) return false;
    if (key === 'Delete') {
      if (typeof which !== 'number') return false;
      points.value = points.value.filter((_, i) => i !== which);
      picked.value = null;
      return true;
    }
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[key];
    if (by === undefined) return false;
    const now = typeof which === 'number' ? points.value[which] : marks[which].at;
    const step = fine ? 0.2 : 1;
    if (now) put([now[0] + by[0]! * step, now[1] + by[1]! * step]);
    return true;
  }

  function anew(): void {
    points.value = [];
    picked.value = null;
  }

  const numbers = computed(() => {
    const of = (id: MarkId, unit: string) => {
      const read = parseQuantity(marks[id].text, unit);
      return read.ok ? read.value : null;
    };
    const [x, y] = field.columns;
    return { x1: of('x1', x.unit), x2: of('x2', x.unit), y1: of('y1', y.unit), y2: of('y2', y.unit) };
  });

  /** How pixels turn into values; null while a mark or its value is missing. */
  const reading = computed(() => {
    const axis = (name: 'x' | 'y'): AxisMarks | null => {
      const [a, b] = [marks[`${name}1`].at, marks[`${name}2`].at];
      const [from, to] = [numbers.value[`${name}1`], numbers.value[`${name}2`]];
      return a === null || b === null || from === null || to === null
        ? null
        : { scale: scales[name], at: [a, b], values: [from, to] };
    };
    const [x, y] = [axis('x'), axis('y')];
    return x === null || y === null ? null : readOff({ x, y });
  });
  const unset = computed(() => markIds.filter((id) => marks[id].at === null || numbers.value[id] === null));

  /** The points in values, rising; none while they cannot be read. */
  const rows = computed(() => {
    const found = reading.value;
    if (found?.ok !== true) return [];
    return inOrder(
      points.value.map((at): [number, number] => {
        const [x, y] = found.at(at);
        return [rounded(x), rounded(y)];
      }),
    );
  });

  return {
    marks,
    scales,
    points,
    placing,
    picked,
    numbers,
    reading,
    unset,
    rows,
    toPlace,
    press,
    put,
    nudge,
    anew,
  };
}
