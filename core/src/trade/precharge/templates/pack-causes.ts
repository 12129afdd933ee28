import { figureId } from '../../../ground/figure';
import { formatQuantity } from '../../../ground/quantity';
import type { Case, Hypothesis } from '../../../model/procedure';

export function packCauses({ design, evaluation }: Case): Hypothesis[] {
  const nominal = evaluation.figures[figureId('pack.pack', 'pack', 'voltageNominalV')]?.value;
  const string = Object.values(design.strings)[0];
  if (nominal === null || nominal === undefined || string === undefined || string.modules.length === 0)
    return [];
  const count = string.modules.length;
  const each = nominal / count;
  const causes: Hypothesis[] = [];
  for (let missing = 1; missing <= Math.min(3, count - 1); missing += 1) {
    const s = missing === 1 ? '' : 's';
    causes.push({
      cause: `${missing} module${s} of the string bridged or not in it`,
      because: `${count - missing} of ${count} modules make about ${formatQuantity(each * (count - missing), 'V', 4)}`,
      check: 'Count the links against the drawing, box by box, disconnect out.',
      predicts: each * (count - missing),
    });
    if (2 * missing < count)
      causes.push({
        cause: `${missing} module${s} the wrong way round`,
        because: `${count} modules less twice ${missing} make about ${formatQuantity(each * (count - 2 * missing), 'V', 4)}`,
        check: 'Look at the polarity of every module; a reversed one heats its links.',
        predicts: each * (count - 2 * missing),
      });
  }
  causes.push({
    cause: 'A link or the service disconnect is open',
    because: 'an open string reads whatever the meter’s own resistance lets through',
    check: 'Measure box by box toward the open place.',
    predicts: null,
  });
  return causes;
}

export function deadBusCauses({ evaluation }: Case, value: number): Hypothesis[] {
  const pack = evaluation.figures[figureId('pack.pack', 'pack', 'voltageNominalV')]?.value ?? null;
  const causes: Hypothesis[] = [];
  if (pack !== null)
    causes.push({
      cause: 'The bus is on the pack: a contactor is welded or closed',
      because: `the pack has about ${formatQuantity(pack, 'V', 4)}`,
      check: 'Do not go on. Service disconnect out, then measure each contactor.',
      predicts: pack,
    });
  causes.push({
    cause: 'The capacitors are not empty yet',
    because: `${formatQuantity(value, 'V', 3)} stands on the bus`,
    check: 'Wait and measure again: it must fall by the bleed.',
    predicts: null,
  });
  return causes;
}
