import { isConductor } from './elements';
import type { DerivedElement } from './network-builder';
import { PotentialGroups } from './islands';

/**
 * Terminals that hang on at least one module over closed conductors and pre-charge resistors. Devices join nothing here:
 * through them both poles would always look connected.
 *
 * @param isOpen which elements stand open
 * @returns what each fed terminal hangs together with, as a number
 */
export function fedTerminals(
  elements: readonly DerivedElement[],
  isOpen: (element: DerivedElement) => boolean,
): Map<string, number> {
  const index = new Map<string, number>();
  const node = (name: string) => {
    const known = index.get(name);
    if (known !== undefined) return known;
    index.set(name, index.size);
    return index.size - 1;
  };
  const ends = elements.map(({ a, b }) => [node(a), node(b)] as const);
  const groups = new PotentialGroups(index.size);
  elements.forEach((element, i) => {
    const bleed = element.kind === 'resistor' && !element.id.endsWith('/resistor');
    if (element.kind === 'load' || bleed || (isConductor(element.kind) && isOpen(element))) return;
    groups.join(ends[i]![0], ends[i]![1], 0);
  });
  const fed = new Set<number>();
  elements.forEach(({ kind }, i) => kind === 'module' && fed.add(groups.root(ends[i]![0])));
  const found = new Map<string, number>();
  for (const [name, at] of index) {
    const root = groups.root(at);
    if (fed.has(root)) found.set(name, root);
  }
  return found;
}
