import { snagGates } from '../commissioning';
import { formatNumber, formatQuantity } from '../../ground/quantity';
import type { BalanceGear, Entry, EntryBody, JointsBody, JointWork } from '../../record';
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
    case 'cell-voltages':
      return `Voltages of ${cellNames(body.cells.map(({ tag }) => tag))}`;
    case 'balance':
      return `${gearText[body.gear][body.act]} ${body.cells.length === 1 ? 'one cell' : `${body.cells.length} cells`}${body.place === null ? '' : `, bench ${body.place}`}`;
    case 'joints':
      return `${workText[body.work]} ${jointNames(body)}`;
    case 'note':
      return body.text;
  }
}

const gearText: Record<BalanceGear, { on: string; off: string }> = {
  load: { on: 'Load onto', off: 'Load off' },
  bleed: { on: 'Bleeding begun on', off: 'Bleeding ended on' },
  charger: { on: 'Charger onto', off: 'Charger off' },
  joined: { on: 'Joined to the bars:', off: 'Parted from the bars:' },
};

const workText: Record<JointWork, string> = {
  torque: 'Torqued',
  drop: 'Drops read at',
  bond: 'Bonds measured of',
};

const jointNames = ({ joints, work }: JointsBody) =>
  joints.length <= 3
    ? joints.map(({ tag }) => tag).join(', ')
    : `${joints.length} ${work === 'bond' ? 'bodies' : 'joints'}`;

/** A few by name, many by number. */
const cellNames = (tags: string[]) => (tags.length <= 4 ? tags.join(', ') : `${tags.length} cells`);

/** How it came out, in a few words; empty where nothing was judged. */
export function entryOutcome({ body, witness }: Pick<Entry, 'body' | 'witness'>): string {
  switch (body.kind) {
    case 'result': {
      const value =
        body.measured.kind === 'value'
          ? `${body.measured.over === true ? 'more than ' : ''}${formatQuantity(body.measured.value, body.measured.unit, 4)}`
          : `${body.measured.samples.length} samples`;
      return `${value}, ${body.verdict === 'pass' ? 'passed' : 'failed'}`;
    }
    case 'gate':
      return witness === null ? 'solo concession' : `witness ${witness}`;
    case 'intake':
      return body.look ?? '';
    case 'cell-voltages': {
      const volts = body.cells.flatMap(({ samples }) => samples.map(([, voltageV]) => voltageV));
      const [low, high] = [Math.min(...volts), Math.max(...volts)];
      return low === high
        ? formatQuantity(low, 'V', 4)
        : `${formatNumber(low, 4)} to ${formatQuantity(high, 'V', 4)}`;
    }
    case 'joints': {
      const torqued = body.work === 'torque';
      const values = body.joints.map(({ value }) => Math.abs(value) * (torqued ? 1 : 1000));
      const [low, high] = [Math.min(...values), Math.max(...values)];
      const unit = torqued ? 'N·m' : 'mV';
      const range =
        low === high
          ? `${formatNumber(low)} ${unit}`
          : `${formatNumber(low)} to ${formatNumber(high)} ${unit}`;
      return body.currentA === null ? range : `${range} at ${formatQuantity(body.currentA, 'A')}`;
    }
    case 'deviation':
      return body.cured ? 'cured it' : 'did not cure it';
    case 'snag':
      return `due by ${gateTitle(body.gate).toLowerCase()}`;
    default:
      return '';
  }
}
