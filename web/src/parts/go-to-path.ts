import { stationOfPath } from '@torvek/core/document';
import { nextTick } from 'vue';
import type { Router } from 'vue-router';

/** Opens the station in which a place of the design is edited, and puts the focus there. */
export async function goToPath(router: Router, job: string, path: string): Promise<void> {
  await router.push({ name: stationOfPath(path), params: { job }, query: { at: path } });
  for (let i = 0; i < 20; i += 1) {
    await nextTick();
    if (focusPath(path)) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

function focusPath(path: string): boolean {
  const places = [...document.querySelectorAll<HTMLElement>('[data-path]')];
  const place =
    places.find((one) => one.dataset.path === path) ??
    places.find((one) => path.startsWith(`${one.dataset.path}.`));
  if (place === undefined) return false;
  if (place.matches('[role="gridcell"]')) {
    place.scrollIntoView({ block: 'center' });
    place.dispatchEvent(new MouseEvent('mousedown', { bubbles: true }));
    return true;
  }
  const target = place.querySelector<HTMLElement>('input, select, button') ?? place;
  target.scrollIntoView({ block: 'center' });
  target.focus();
  return true;
}
