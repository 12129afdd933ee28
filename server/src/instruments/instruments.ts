import { isOverdue, type Instrument, type InstrumentKind } from '@torvek/core/record';
import type { Clock } from '../clock';
import type { Database, Queryable } from '../database';
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
    private readonly clock: Clock,
  ) {}

  async list(): Promise<RegisteredInstrument[]> {
    return (await this.database.query<Row>('SELECT * FROM instruments ORDER BY kind, name, serial')).map(
      ofRow,
    );
  }

  async create(one: Omit<RegisteredInstrument, 'retired'>): Promise<RegisteredInstrument> {
    const { id, kind, name, serial, calibrationDue } = one;
    await this.database.query(
      `INSERT INTO instruments (id, kind, name, serial, calibration_due, created_at)
       VALUES ($1, $2, $3, $4, $5, $6) ON CONFLICT (id) DO NOTHING`,
      [id, kind, name, serial, calibrationDue, this.clock.now()],
    );
    return this.get(id);
  }

  async change(
    id: string,
    to: { calibrationDue: string | null; retired: boolean },
  ): Promise<RegisteredInstrument> {
    await this.get(id);
    await this.database.query('UPDATE instruments SET calibration_due = $2, retired = $3 WHERE id = $1', [
      id,
      to.calibrationDue,
      to.retired,
    ]);
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
