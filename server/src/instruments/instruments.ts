import { isOverdue, type Instrument, type InstrumentKind } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
import type { Writer } from '../journal/writer';
import { invalidInput, notFound } from '../http/errors';

/** An instrument of the shop, as it stands in the register. */
export interface RegisteredInstrument {
  id: string;
  kind: InstrumentKind;
  name: string;
  serial: string;
  /** Day (YYYY-MM-DD) through which its calibration holds; null: none is kept. */
  calibrationDue: string | null;
  retired: boolean;
}

interface Row {
  id: string;
  kind: InstrumentKind;
  name: string;
  serial: string;
  calibration_due: string | null;
  retired: boolean;
}

const ofRow = ({ calibration_due, ...row }: Row & { created_at?: string }): RegisteredInstrument => ({
  id: row.id,
  kind: row.kind,
  name: row.name,
  serial: row.serial,
  calibrationDue: calibration_due,
  retired: row.retired,
});

/** The register of instruments. Entries keep what it said at their time. */
export class Instruments {
  constructor(
    private readonly database: Database,
    private readonly writer: Writer,
    private readonly clock: Clock,
  ) {}

  async list(): Promise<RegisteredInstrument[]> {
    return (await this.database.query<Row>('SELECT * FROM instruments ORDER BY kind, name, serial')).map(
      ofRow,
    );
  }

  /** Takes one into the register; the same id again is the same one. */
  async create(one: Omit<RegisteredInstrument, 'retired'>, by: string): Promise<RegisteredInstrument> {
    const { id, kind: instrument, name, serial, calibrationDue } = one;
    await this.writer.write(async (turn) => {
      const known = await turn.db.query('SELECT id FROM instruments WHERE id = $1', [id]);
      if (known.length > 0) return;
      const createdAt = this.clock.now();
      await turn.shop({
        kind: 'instrument',
        id,
        instrument,
        name,
        serial,
        calibrationDue,
        retired: false,
        createdAt,
        by,
      });
    });
    return this.get(id);
  }

  async change(
    id: string,
    to: { calibrationDue: string | null; retired: boolean },
    by: string,
  ): Promise<RegisteredInstrument> {
    await this.writer.write(async (turn) => {
      const { calibrationDue, retired } = await this.get(id, turn.db);
      if (calibrationDue !== to.calibrationDue || retired !== to.retired)
        await turn.shop({ kind: 'instrument-change', id, ...to, by });
    });
    return this.get(id);
  }

  async get(id: string, on: Queryable = this.database): Promise<RegisteredInstrument> {
    const rows = await on.query<Row>('SELECT * FROM instruments WHERE id = $1', [id]);
    if (rows[0] === undefined) throw notFound('this instrument');
    return ofRow(rows[0]);
  }

  /**
   * What an entry keeps of an instrument.
   *
   * @param day the day of the measurement in the job's zone; a calibration holds through its own day
   */
  async forEntry(id: string, kind: InstrumentKind, day: string, on: Queryable): Promise<Instrument> {
    const rows = await on.query<Row>('SELECT * FROM instruments WHERE id = $1', [id]);
    const refused = (message: string) => invalidInput([{ path: 'instrument.id', message }]);
    if (rows[0] === undefined) throw refused('is not in the register');
    const one = ofRow(rows[0]);
    if (one.retired) throw refused('is retired');
    if (one.kind !== kind) throw refused(`is a ${one.kind}: this step asks for a ${kind}`);
    const { name, serial, calibrationDue } = one;
    return {
      kind,
      name,
      standIn: false,
      serial,
      calibrationDue,
      overdue: isOverdue(calibrationDue, day),
    };
  }
}
