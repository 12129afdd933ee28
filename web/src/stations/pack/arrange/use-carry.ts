import type { Id } from '@torvek/core/document';
import Sortable from 'sortablejs';
import { nextTick, onBeforeUnmount, onMounted, watch, type Ref, type WatchSource } from 'vue';

/** Where a carried module is let go: over a box, or `none`, the shelf beside the vehicle; and over which module. */
export interface DropPlace {
  box: string | null;
  before: Id | null;
}

interface Carrying {
  root: Ref<HTMLElement | undefined>;
  editable(): boolean;
  /** Lists are found anew when one of these changes. */
  lists: WatchSource[];
  carry(module: Id): void;
  over(box: string | null): void;
  drop(where: DropPlace): void;
}

/** Modules carried by the pointer from list to list; nothing moves in the page until the design has changed. */
export function useCarry({ root, editable, lists, carry, over, drop }: Carrying): void {
  const sortables: Sortable[] = [];
  let carried: Id | null = null;
  let last: { clientX: number; clientY: number } | null = null;
  let frame = 0;

  /** What lies under the pointer: a box or the shelf, and a module that is not the carried one. */
  function under({ clientX, clientY }: { clientX: number; clientY: number }): DropPlace {
    const found = document.elementsFromPoint(clientX, clientY) as HTMLElement[];
    const box = found.find((one) => one.dataset?.box !== undefined)?.dataset.box ?? null;
    const isOther = (one: HTMLElement) =>
      one.dataset?.module !== undefined && one.dataset.module !== carried && root.value?.contains(one);
    return { box, before: found.find(isOther)?.dataset.module ?? null };
  }

  function follow({ clientX, clientY }: PointerEvent): void {
    last = { clientX, clientY };
    if (frame !== 0) return;
    frame = requestAnimationFrame(() => {
      frame = 0;
      if (last !== null && carried !== null) over(under(last).box);
    });
  }

  function letGo(): void {
    document.removeEventListener('pointermove', follow);
    cancelAnimationFrame(frame);
    frame = 0;
    const where = last === null ? { box: null, before: null } : under(last);
    carried = null;
    last = null;
    drop(where);
  }

  function install(): void {
    for (const one of sortables.splice(0)) one.destroy();
    if (!editable()) return;
    for (const list of root.value?.querySelectorAll<HTMLElement>('[data-box]') ?? [])
      sortables.push(
        Sortable.create(list, {
          group: { name: 'modules', pull: true, put: true },
          sort: false,
          draggable: '.chip',
          forceFallback: true,
          fallbackOnBody: true,
          fallbackTolerance: 4,
          fallbackClass: 'carried-chip',
          onStart: ({ item }) => {
            carried = item.dataset.module ?? null;
            if (carried !== null) carry(carried);
            document.addEventListener('pointermove', follow);
          },
          // The picture is drawn from the design.
          onMove: () => false,
          onEnd: letGo,
        }),
      );
  }

  onMounted(install);
  watch([...lists, editable], () => nextTick(install));
  onBeforeUnmount(() => {
    document.removeEventListener('pointermove', follow);
    for (const one of sortables) one.destroy();
  });
}
