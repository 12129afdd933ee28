import { computed, ref, shallowRef, type Ref } from 'vue';

/** Rows up to this many are all drawn; beyond it only those in view. */
const drawnWhole = 100;
/** Height of a row in a pane that scrolls, with its border, px: until one is drawn and can be measured. */
const usualRowPx = 29;
const spare = 8;
/** Rows come and go by so many: each time is a layout of the table. */
const block = 8;

/** Which rows of a long table are drawn, and the empty height above and below them. */
export function useRowWindow(count: Ref<number>) {
  const pane = shallowRef<HTMLElement | null>(null);
  const top = ref(0);
  const tall = computed(() => count.value > drawnWhole);
  const rowPx = ref(usualRowPx);
  const visible = () => Math.ceil((pane.value?.clientHeight ?? 420) / rowPx.value);
  const first = computed(() => {
    if (!tall.value) return 0;
    const seen = Math.min(count.value, Math.floor(top.value / rowPx.value));
    return Math.max(0, Math.floor((seen - spare) / block) * block);
  });
  const end = computed(() =>
    tall.value ? Math.min(count.value, first.value + visible() + 2 * spare + block) : count.value,
  );
  const above = computed(() => first.value * rowPx.value);
  const below = computed(() => (count.value - end.value) * rowPx.value);

  function scrolled(): void {
    const row = pane.value?.querySelector<HTMLElement>('tbody tr[role=row]')?.offsetHeight ?? 0;
    if (row > 0) rowPx.value = row;
    top.value = pane.value?.scrollTop ?? 0;
  }

  /** Scrolls so that a row is drawn. */
  function bring(row: number): void {
    if (!tall.value || pane.value === null) return;
    if (row >= first.value + 2 && row < end.value - 2) return;
    pane.value.scrollTop = Math.max(0, (row - visible() / 2) * rowPx.value);
    scrolled();
  }

  return { pane, tall, first, end, above, below, scrolled, bring };
}
