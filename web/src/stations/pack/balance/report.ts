import { schools } from '@torvek/core/balance';
import { formatNumber, formatQuantity } from '@torvek/core/quantity';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Balance, BalanceRow } from './use-balance';
import { weekdayOf } from '../../../parts/dates';
import { halfWidthMv, verdictText } from './words';

export interface ReportLine {
  tag: string;
  serial: string;
  rounds: number;
  restH: number | null;
  settledV: number | null;
  halfMv: number | null;
  offMv: number | null;
  verdict: string;
}

export interface Report {
  title: string;
  facts: [label: string, value: string][];
  verdict: string;
  lines: ReportLine[];
}

/** What balancing came to: every cell with where it settled, and how the batch lies. */
export function reportOf(
  job: string,
  rows: readonly BalanceRow[],
  {
    plan,
    toleranceV,
    zone,
    nowMs,
    serialOf,
  }: {
    plan: Balance['plan']['value'];
    toleranceV: number;
    zone: string;
    nowMs: number;
    serialOf(module: string): string | undefined;
  },
): Report {
  const { targetV } = plan;
  const lines = rows.map((row): ReportLine => {
    const { outlook } = row;
    const settledV = row.phase === 'resting' ? outlook.settledV : null;
    return {
      tag: row.tag,
      serial: serialOf(row.module) ?? '',
      rounds: row.round,
      restH: row.samples.at(-1)?.[0] ?? null,
      settledV,
      halfMv: settledV === null || outlook.by === 'rested out' ? null : halfWidthMv(outlook),
      offMv: settledV === null || targetV === undefined ? null : (settledV - targetV) * 1000,
      verdict:
        row.phase === 'resting'
          ? verdictText(row, outlook)
          : row.phase === 'on'
            ? 'not off yet'
            : 'not begun',
    };
  });
  const known = lines.flatMap(({ settledV }) => (settledV === null ? [] : [settledV]));
  const inside = rows.filter(
    ({ phase, outlook }) => phase === 'resting' && outlook.verdict === 'will settle inside',
  ).length;
  const facts: [string, string][] = [
    ['way', schools.find(({ id }) => id === plan.school)?.title ?? 'not chosen'],
    [
      'target',
      targetV === undefined
        ? 'not given'
        : `${formatNumber(targetV, 4)} V ± ${formatNumber(toleranceV * 1000)} mV`,
    ],
    ['cells inside', `${inside} of ${rows.length}`],
    [
      'spread of those that settled',
      known.length < 2 ? '—' : `${formatNumber((Math.max(...known) - Math.min(...known)) * 1000)} mV`,
    ],
    ['state of', weekdayOf(nowMs, zone)],
  ];
  if (plan.school === 'bottom')
    facts.splice(2, 0, [
      'load',
      [
        plan.loadOhm === undefined ? null : formatQuantity(plan.loadOhm, 'Ω'),
        plan.cutOffV === undefined ? null : `cut off at ${formatNumber(plan.cutOffV, 4)} V`,
        plan.engageV === undefined ? null : `on again at ${formatNumber(plan.engageV, 4)} V`,
        plan.drawHours === undefined ? null : `${formatNumber(plan.drawHours)} h`,
      ]
        .filter((one) => one !== null)
        .join(', ') || 'not given',
    ]);
  const open = rows.length - inside;
  return {
    title: `Balancing of ${job}`,
    facts,
    verdict:
      open === 0
        ? 'Every cell has settled, or will settle, inside the tolerance.'
        : `${open} ${open === 1 ? 'cell is' : 'cells are'} not inside yet.`,
    lines,
  };
}

/** The report as a PDF. In the shipped type Ω is not drawn: it is written out. */
export function reportDocument(report: Report): TDocumentDefinitions {
  const plain = (text: string) => text.replace(/mΩ/g, 'mohm').replace(/Ω/g, 'ohm');
  const num = (value: number | null, digits: number) => (value === null ? '—' : formatNumber(value, digits));
  const right = (text: string) => ({ text, alignment: 'right' as const });
  return {
    pageSize: 'A4',
    pageMargins: [40, 46, 40, 46],
    footer: (page, pages) => ({
      text: `${report.title}, page ${page} of ${pages}`,
      alignment: 'right',
      margin: [40, 12],
      fontSize: 8,
    }),
    content: [
      { text: report.title, fontSize: 15, bold: true },
      { text: report.verdict, margin: [0, 4, 0, 8], fontSize: 11 },
      {
        table: {
          body: report.facts.map(([label, value]) => [{ text: label, color: '#55616c' }, plain(value)]),
        },
        layout: 'noBorders',
        margin: [0, 0, 0, 10],
      },
      {
        table: {
          headerRows: 1,
          widths: ['auto', '*', 'auto', 'auto', 'auto', 'auto', 'auto', '*'],
          body: [
            ['cell', 'serial', 'rounds', 'rest, h', 'settles at, V', '±, mV', 'off, mV', 'verdict'].map(
              (text) => ({
                text,
                bold: true,
              }),
            ),
            ...report.lines.map((one) => [
              one.tag,
              one.serial,
              right(String(one.rounds)),
              right(num(one.restH, 3)),
              right(one.settledV === null ? '—' : one.settledV.toFixed(4)),
              right(num(one.halfMv, 2)),
              right(num(one.offMv, 2)),
              one.verdict,
            ]),
          ],
        },
        layout: 'lightHorizontalLines',
      },
      {
        text: 'From the record of the job; predictions carry their 95 % interval. Makers’ documents and local rules come first.',
        margin: [0, 10, 0, 0],
        color: '#55616c',
      },
    ],
  };
}
