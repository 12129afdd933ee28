import type { Id, RunItem } from '@torvek/core/document';
import { computed, ref, type Ref } from 'vue';
import { useJob } from '../../../stores/job';
import { axesOf, snapped, snapsAlong, unitsPerM, type Axis, type Side } from './drawing';

/** Points of a run moved by mouse and by keys, and added where its way is clicked; each gesture is one change. */
export function useHand(
  props: { readonly side: Side; readonly runId: Id },
  svg: Ref<SVGSVGElement | null>,
  things: Ref<Parameters<typeof snapsAlong>[3]>,
  pick: (point: number) => void,
) {
  const job = useJob();
  const run = computed((): RunItem | undefined => job.design.runs?.[props.runId]);
  const axes = computed(() => axesOf[props.side]);

  /** What is being drawn about: the point, and where it is now. */
  const dragging = ref<{ i: number; across: number; up: number; said: string | null } | null>(null);
  function paperOf(event: PointerEvent): [number, number] | null {
    const matrix = svg.value?.getScreenCTM();
    if (matrix == null) return null;
    const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
    return [x / unitsPerM, -y / unitsPerM];
  }
  function put(draft: object, i: number, values: Partial<Record<Axis, number>>): void {
    const point = (draft as { runs?: Record<Id, RunItem> }).runs?.[props.runId]?.points?.[i];
    if (point !== undefined) Object.assign(point, values);
  }
  function start(i: number, event: PointerEvent): void {
    pick(i);
    if (!job.editable || event.button !== 0) return;
    (event.target as Element).setPointerCapture(event.pointerId);
    const at = paperOf(event);
    if (at !== null) dragging.value = { i, across: at[0], up: at[1], said: null };
  }
  function move(event: PointerEvent): void {
    const now = dragging.value;
    const at = paperOf(event);
    if (now === null || at === null) return;
    const points = job.committed.runs?.[props.runId]?.points ?? [];
    const { across, up } = axes.value;
    const snap = (axis: Axis, value: number) =>
      event.shiftKey
        ? { value: Number(value.toFixed(3)), to: null }
        : snapped(value, snapsAlong(axis, points, now.i, things.value));
    const [x, y] = [snap(across, at[0]), snap(up, at[1])];
    dragging.value = {
      i: now.i,
      across: x.value,
      up: y.value,
      said: [x.to, y.to].filter((one) => one !== null).join('; ') || null,
    };
    job.preview((draft) => put(draft, now.i, { [across]: x.value, [up]: y.value }));
  }
  function end(): void {
    const now = dragging.value;
    dragging.value = null;
    if (now === null) return;
    const { across, up } = axes.value;
    const before = job.committed.runs?.[props.runId]?.points?.[now.i];
    job.preview(null);
    if (before === undefined || (before[across] === now.across && before[up] === now.up)) return;
    job.change(`Point ${now.i + 1} of ${run.value?.tag ?? ''} moved`, (draft) =>
      put(draft, now.i, { [across]: now.across, [up]: now.up }),
    );
  }
  function cancel(): void {
    if (dragging.value === null) return;
    dragging.value = null;
    job.preview(null);
  }

  const arrows: Record<string, [across: number, up: number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  };
  function keyed(i: number, event: KeyboardEvent): void {
    if (event.key === 'Escape') return cancel();
    const way = arrows[event.key];
    if (way === undefined || !job.editable) return;
    event.preventDefault();
    const step = event.shiftKey ? 0.1 : 0.01;
    const point = run.value?.points?.[i];
    const { across, up } = axes.value;
    if (point?.[across] === undefined || point[up] === undefined) return;
    const next = (value: number, by: number) => Number((value + by * step).toFixed(4));
    job.change(`Point ${i + 1} of ${run.value?.tag ?? ''} moved`, (draft) =>
      put(draft, i, { [across]: next(point[across]!, way[0]), [up]: next(point[up]!, way[1]) }),
    );
  }
  /** A point is added on the leg that was clicked, between its ends. */
  function insert(event: MouseEvent): void {
    const at = paperOf(event as PointerEvent);
    const points = run.value?.points ?? [];
    if (at === null || !job.editable || points.length < 2) return;
    const { across, up } = axes.value;
    let best = { leg: 0, share: 0.5, off: Infinity };
    points.slice(1).forEach((to, leg) => {
      const from = points[leg]!;
      const [dx, dy] = [(to[across] ?? 0) - (from[across] ?? 0), (to[up] ?? 0) - (from[up] ?? 0)];
      const square = dx * dx + dy * dy;
      const share =
        square === 0
          ? 0.5
          : Math.min(
              1,
              Math.max(0, ((at[0] - (from[across] ?? 0)) * dx + (at[1] - (from[up] ?? 0)) * dy) / square),
            );
      const off = Math.hypot(at[0] - (from[across] ?? 0) - share * dx, at[1] - (from[up] ?? 0) - share * dy);
      if (off < best.off) best = { leg, share, off };
    });
    const [from, to] = [points[best.leg]!, points[best.leg + 1]!];
    const value = (axis: Axis) => {
      const [a, b] = [from[axis], to[axis]];
      return a === undefined || b === undefined ? undefined : Number((a + (b - a) * best.share).toFixed(3));
    };
    const made = { xM: value('xM'), yM: value('yM'), zM: value('zM') };
    job.change(`Point added to ${run.value?.tag ?? ''}`, (draft) => {
      draft.runs?.[props.runId]?.points?.splice(
        best.leg + 1,
        0,
        Object.fromEntries(Object.entries(made).filter(([, one]) => one !== undefined)),
      );
    });
    pick(best.leg + 1);
  }

  return { dragging, start, move, end, cancel, keyed, insert };
}
