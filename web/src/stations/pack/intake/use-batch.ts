import {
  lossOutlier,
  ownLoss,
  scoreIntake,
  shortestWaitH,
  type IntakeReadings,
  type OwnLoss,
} from '@torvek/core/balance';
import type { Id } from '@torvek/core/document';
import { partKey, type PartOf } from '@torvek/core/parts';
import { formatNumber } from '@torvek/core/quantity';
import { computed, type Ref } from 'vue';
import type { IntakeLine } from './columns';
import { measures, type IntakeRow } from './sheet';

interface Batch {
  rows: Readonly<Ref<readonly IntakeLine[]>>;
  /** What the record says, by place or thing. */
  readings: Readonly<Ref<ReadonlyMap<string, IntakeReadings>>>;
  kindOf(id: Id): PartOf<'module'> | null;
  /** With what is typed and not recorded yet. */
  typed(id: Id): IntakeRow;
}

/** Of a batch that is nearly even a score says no more than that. */
const scoreText = (score: number) => (score > 99 ? '> 99' : formatNumber(score, 2));

/** How each module lies in its batch: modules of one kind, each quantity by its own rule. */
export function useBatch({ rows, readings, kindOf, typed }: Batch) {
  /** What each lost by itself, by the record: a wait has a beginning and an end. */
  const losses = computed(
    () =>
      new Map(
        rows.value.flatMap(({ id }): [Id, OwnLoss][] => {
          const part = kindOf(id);
          const loss = part === null ? null : ownLoss(readings.value.get(id), part.data.cellsInSeries);
          return loss === null ? [] : [[id, loss]];
        }),
      ),
  );
  /** Quantities that are scored: those that are measured, and the loss that follows from two of them. */
  const scoredBy = [
    ...measures.flatMap(({ field, title, unit, scale, outlier }) =>
      outlier === null
        ? []
        : [{ id: field as string, title, unit, scale, rule: outlier, of: (id: Id) => typed(id)[field] }],
    ),
    {
      id: 'loss',
      title: 'own loss',
      unit: 'mV/day',
      scale: 1,
      rule: lossOutlier,
      of: (id: Id) => losses.value.get(id)?.mvPerDay,
    },
  ];
  const scored = computed(() => {
    const byKind = new Map<string, Id[]>();
    for (const { id } of rows.value) {
      const part = kindOf(id);
      const kind = part === null ? '' : partKey(part);
      byKind.set(kind, [...(byKind.get(kind) ?? []), id]);
    }
    return new Map(
      scoredBy.map(({ id: quantity, rule, of }) => {
        const scores = new Map<Id, { score: number | null; outlier: boolean }>();
        for (const batch of byKind.values()) {
          const result = scoreIntake(
            batch.map((id) => of(id) ?? null),
            rule,
          );
          batch.forEach((id, i) =>
            scores.set(id, { score: result.scores[i]!, outlier: result.outliers[i]! }),
          );
        }
        return [quantity, scores];
      }),
    );
  });
  return {
    losses,
    scoredBy,
    /** In what a module is an outlier, with the score. */
    offText: (id: Id) =>
      scoredBy
        .flatMap(({ id: quantity, title }) => {
          const own = scored.value.get(quantity)?.get(id);
          return own?.outlier === true
            ? [`${title}${own.score === null ? '' : ` ${scoreText(own.score)}`}`]
            : [];
        })
        .join(', '),
    /** One quantity over all modules. */
    plotOf(asked: string) {
      const quantity = scoredBy.find(({ id }) => id === asked) ?? scoredBy[0]!;
      const scores = scored.value.get(quantity.id);
      const points = rows.value.flatMap(({ id, name: tag }) => {
        const value = quantity.of(id);
        return value === undefined ? [] : [{ id, tag, value, outlier: scores?.get(id)?.outlier === true }];
      });
      return {
        quantity,
        points,
        scores: scoreIntake(
          points.map(({ value }) => value),
          quantity.rule,
        ),
      };
    },
    /** The voltage was recorded so long ago that a second one tells something. */
    waited(id: Id): boolean {
      const first = readings.value.get(id)?.get('intake-voltage');
      return first !== undefined && Date.now() - first.atMs >= shortestWaitH * 3_600_000;
    },
  };
}
