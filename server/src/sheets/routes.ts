import { laid } from '@torvek/core/document';
import {
  isSheet,
  makeSheet,
  sheetKinds,
  subjectsOfSheet,
  type SheetContext,
  type SheetId,
} from '@torvek/core/sheets';
import { HttpError, invalidInput } from '../http/errors';
import { heavy } from '../heavy/heavy';
import { Download, route, type Route } from '../http/route';
import { asItStands } from '../jobs/as-it-stands';
import type { Job } from '../jobs/jobs';
import type { Rooms } from '../rooms';
import { anchorOf } from '../take-away/paper';
import { isPaper, papers } from './paper';

/** Sheets for paper: which there are, and each as a PDF. */
export function sheetRoutes(rooms: Rooms): Route[] {
  return [
    route({
      method: 'get',
      path: '/jobs/:job/sheets',
      role: 'witness',
      async handle({ params }) {
        const { design } = await rooms.jobs.get(params.job!);
        return {
          papers: Object.keys(papers),
          sheets: Object.keys(sheetKinds).map((id) => ({
            id,
            title: sheetKinds[id as SheetId].title,
            subjects: subjectsOfSheet(id as SheetId, design),
          })),
        };
      },
    }),
    route({
      method: 'get',
      path: '/jobs/:job/sheets/:sheet',
      role: 'witness',
      async handle({ params, query }) {
        const { paper = 'A4', subject = null } = query;
        if (!isPaper(paper))
          throw invalidInput([
            { path: 'paper', message: `must be one of ${Object.keys(papers).join(', ')}` },
          ]);
        const id = params.sheet!;
        const job = await rooms.jobs.get(params.job!);
        const sheet = isSheet(id) ? makeSheet(id, await contextOf(rooms, job), subject) : null;
        if (sheet === null) throw new HttpError(404, 'no-sheet', 'there is no such sheet');
        const anchor = await anchorOf(rooms, job.id);
        const imprint = {
          job: job.name,
          stand: `version ${job.version} · ${dayIn(rooms.clock.now(), job)} · record at link ${anchor.n}`,
          head: anchor.text,
        };
        const bytes = await heavy('printSheet', { sheet, imprint, paper }, Infinity);
        return new Download(bytes, 'application/pdf', `${fileName(job.name)}-${sheet.id}.pdf`, true);
      },
    }),
  ];
}

/** The vehicle as built: what is printed is worked by. */
async function contextOf(rooms: Rooms, job: Job): Promise<SheetContext> {
  const { design, ...rest } = await asItStands(rooms, job);
  return { ...rest, design: laid(design) };
}

const dayIn = (instant: string, { design }: Job) =>
  new Date(instant).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    timeZone: design.settings.zone ?? 'UTC',
  });

const fileName = (job: string) => job.replace(/[^\w-]+/g, '-').replace(/^-+|-+$/g, '') || 'job';
