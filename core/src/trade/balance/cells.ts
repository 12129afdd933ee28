import type { Design, Id } from '../../model/document';
import type { ModuleData } from '../../model/parts';

/** One cell of a module (cells side by side count as one), as balancing sees it. */
export interface BalanceCell {
  /** `${module}/cell-${number}`. */
  id: string;
  /** The module's tag, with the cell's number where a module has several. */
  tag: string;
  module: Id;
  moduleTag: string;
  data: ModuleData;
}

const cellId = (module: Id, number: number) => `${module}/cell-${number}`;

/** All cells of a design in order of the strings, those of modules in no string last. */
export function balanceCells({
  modules,
  strings,
  parts,
}: Pick<Design, 'modules' | 'strings' | 'parts'>): BalanceCell[] {
  const strung = Object.values(strings).flatMap((string) => string.modules);
  const order = [...new Set([...strung, ...Object.keys(modules)])];
  return order.flatMap((module): BalanceCell[] => {
    const item = modules[module];
    const part = parts[item?.part ?? ''];
    if (item === undefined || part?.kind !== 'module') return [];
    const { data } = part;
    return Array.from({ length: data.cellsInSeries }, (_, i) => ({
      id: cellId(module, i + 1),
      tag: data.cellsInSeries === 1 ? item.tag : `${item.tag}.${i + 1}`,
      module,
      moduleTag: item.tag,
      data,
    }));
  });
}

/** The module of a cell's id. */
export const moduleOfCell = (cell: string): Id => cell.slice(0, cell.lastIndexOf('/'));
