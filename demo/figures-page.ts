import { evaluate } from '@torvek/core/design';
import { edit, type Design } from '@torvek/core/document';
import { pin } from '@torvek/core/pack';
import { catalogueOf } from '@torvek/core/parts';
import { libraryBus } from './library-bus';
import { orchardTruck } from './orchard-truck';

/**
 * Both demos, the truck with a fan that blows through its box, and the bus with a shell that is not drilled and a piece of a loop to come:
 * together they show every figure there is.
 */
export const designsOfPage = (): Design[] => [
  libraryBus.design,
  orchardTruck.design,
  edit(orchardTruck.design, (draft) => {
    const fan = pin(draft as Design, catalogueOf('fan')[0]!);
    Object.assign(draft.boxes['box-seat']!, { fan, airAreaM2: 0.9 });
  })!.design,
  edit(libraryBus.design, (draft) => {
    draft.vehicle.noNewHoles = true;
    draft.standIns = {
      'standin-1': { tag: 'Later', loop: 'loop-pack', instead: ['piece-plate-tail-1'] },
    };
  })!.design,
];

/** A label that names one thing of the design stands for those of all. */
const plain = (label: string) => label.replaceAll('|', '/');

/** The page of figures: every id that some designs show, its subject left open, with label and unit. */
export function figuresPage(designs: readonly Design[]): string {
  const rows = new Map<string, { labels: Set<string>; unit: string }>();
  for (const design of designs)
    for (const { id, label, unit } of Object.values(evaluate(design).figures)) {
      const [step, ...rest] = id.split(':');
      const key = `${step}:*:${rest.at(-1)}`;
      const row = rows.get(key) ?? { labels: new Set(), unit };
      row.labels.add(plain(label));
      rows.set(key, row);
    }
  const lines = [...rows]
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, { labels, unit }]) => `| \`${key}\` | ${[...labels].sort()[0]} | ${unit} |`);
  return ['| Figure | What it is | Unit |', '| --- | --- | --- |', ...lines].join('\n');
}
