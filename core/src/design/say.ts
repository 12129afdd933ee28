import { snagGates } from '../commissioning';
import { formatQuantity } from '../quantity';
import type { Entry, EntryBody } from '../record';
import { positionText } from './live-state';

const gateTitle = (id: string) => snagGates.find((gate) => gate.id === id)?.title ?? id;

/** What an entry is about, in one line. */
export function entryTitle(body: EntryBody): string {
  switch (body.kind) {
    case 'result':
      return body.title;
    case 'acceptance':
      return `Accepted: ${body.message}`;
    case 'position':
      return positionText(body);
    case 'work':
      return body.what;
    case 'correction':
      return `Entry ${body.of} corrected`;
    case 'gate':
      return body.alone === null
        ? `Gate “${body.title}” confirmed by a second person`
        : `Gate “${body.title}” opened alone: ${body.alone.replacedBy.join(', ')}`;
    case 'deviation':
      return `On the failed entry ${body.of}: ${body.tried}`;
    case 'snag':
      return `Snag: ${body.what}`;
    case 'snag-gone':
      return `Snag ${body.of} is gone: ${body.how}`;
    case 'intake':
      return `Module received${body.serial === null ? '' : `, serial ${body.serial}`}`;
    case 'note':
      return body.text;
  }
}

/** How it came out, in a few words; empty where nothing was judged. */
export function entryOutcome({ body, witness }: Pick<Entry, 'body' | 'witness'>): string {
  switch (body.kind) {
    case 'result': {
      const value =
        body.measured.kind === 'value'
          ? formatQuantity(body.measured.value, body.measured.unit, 4)
          : `${body.measured.samples.length} samples`;
      return `${value}, ${body.verdict === 'pass' ? 'passed' : 'failed'}`;
    }
    case 'gate':
      return witness === null ? 'solo concession' : `witness ${witness}`;
    case 'intake':
      return body.look ?? '';
    case 'deviation':
      return body.cured ? 'cured it' : 'did not cure it';
    case 'snag':
      return `due by ${gateTitle(body.gate).toLowerCase()}`;
    default:
      return '';
  }
}
