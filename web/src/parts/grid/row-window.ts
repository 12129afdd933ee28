import { computed, ref, shallowRef, type Ref } from 'vue';

/** Rows up to this many are all drawn; beyond it only those in view. */
const drawnWhole = 100;
/** Height of a row in a pane that scrolls, with its border, px. */
const rowPx = 29;
const spare = 8;

/** Which rows of a long table are drawn, and the empty height above and below them. */
export function useRowWindow(count: Ref<number>) {
  const pane = shallowRef<HTMLElement | null>(null);
  const top = ref(0);
  const tall = computed(() => count.value > drawnWhole);
  const visible = () => Math.ceil((pane.value?.clientHeight ?? 420) / rowPx);
  const first = computed(() =>
    tall.value ? Math.max(0, Math.min(count.value, Math.floor(top.value / rowPx)) - spare) : 0,
  );
  const end = computed(() =>
    tall.value ? Math.min(count.value, first.value + visible() + 2 * spare) : count.value,
  );
  const above = computed(() => first.value * rowPx);
  const below = computed(() => (count.value - end.value) * rowPx);

  function scrolled(): void {
    top.value = pane.value?.scrollTop ?? 0;
  }

  /** Scrolls so that a row is drawn. */
  function bring(row: number): void {
    if (!tall.value || pane.value === null) return;
    if (row >= first.value + 2 && row < end.value - 2) return;
    pane.value.scrollTop = Math.max(0, (row - visible() / 2) * rowPx);
    scrolled();
  }

  return { pane, tall, first, end, above, below, scrolled, bring };
}
