import { computed } from 'vue';
import { useJob } from '../../../stores/job';
import { frameOf, onPaper, type Side } from './drawing';
import type { useDrawn } from './use-drawn';

/** What of the vehicle a view shows: as long as the vehicle, as high or wide as what is in it; or one run alone. */
export function useFrame(
  props: { side: Side; close: boolean },
  { body, rects, zones, hazards, handles }: ReturnType<typeof useDrawn>,
) {
  const job = useJob();
  return computed(() => {
    const own = handles.value.map(({ x, y }): [number, number] => [x, y]);
    if (props.close && own.length > 1) return frameOf([], own, 40);
    const lines = hazards.value.flatMap(({ points }) => points.map((one) => onPaper(one, props.side)));
    const others = Object.values(job.design.runs ?? {}).flatMap(({ points = [] }) =>
      points.flatMap(({ xM, yM, zM }) =>
        xM === undefined || yM === undefined || zM === undefined ? [] : [onPaper([xM, yM, zM], props.side)],
      ),
    );
    const ground: [number, number][] = props.side === 'side' ? [[0, 0]] : [];
    const inside = frameOf(
      rects.value.length + zones.value.length === 0
        ? [body.value]
        : [...rects.value, ...zones.value].map(({ rect }) => rect),
      [...own, ...others, ...lines, ...ground],
      16,
    );
    const { x, w } = body.value;
    return { ...inside, left: x - 14, width: w + 28 };
  });
}
