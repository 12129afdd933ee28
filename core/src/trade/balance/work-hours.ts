import { TZDate } from '@date-fns/tz';

/** When people are at the bench, in the job's zone. */
export interface WorkHours {
  /** IANA zone. */
  zone: string;
  /** Hours of the day, 0 to 24. */
  fromH: number;
  toH: number;
  weekends: boolean;
}

/** A stretch of time in which people are there, ms since 1970. */
export interface WorkWindow {
  fromMs: number;
  toMs: number;
}

/** The instant at which an hour of a calendar day comes in a zone, ms since 1970. */
function hourOf(day: TZDate, zone: string, hour: number): number {
  const minutes = Math.round(hour * 60);
  return new TZDate(
    day.getFullYear(),
    day.getMonth(),
    day.getDate(),
    Math.floor(minutes / 60),
    minutes % 60,
    zone,
  ).getTime();
}

/** The first instant of a day (YYYY-MM-DD) in a zone, ms since 1970; NaN for what is no day. */
export function dayStartMs(day: string, zone: string): number {
  const [year, month, date] = day.split('-').map(Number);
  if (year === undefined || month === undefined || date === undefined) return Number.NaN;
  const at = new TZDate(year, month - 1, date, zone);
  return at.getMonth() === month - 1 && at.getDate() === date ? at.getTime() : Number.NaN;
}

/**
 * The hours of work one after another from an instant on, worked out as they are asked for. A day of 23 or 25 hours
 * keeps its hours by the clock on the wall.
 */
export class WorkCalendar {
  private readonly windows: WorkWindow[] = [];
  private day: TZDate;

  constructor(
    private readonly hours: WorkHours,
    fromMs: number,
  ) {
    const first = new TZDate(fromMs, hours.zone);
    this.day = new TZDate(first.getFullYear(), first.getMonth(), first.getDate(), hours.zone);
  }

  private at(index: number): WorkWindow {
    while (this.windows.length <= index) {
      const weekday = this.day.getDay();
      if (this.hours.weekends || (weekday !== 0 && weekday !== 6))
        this.windows.push({
          fromMs: hourOf(this.day, this.hours.zone, this.hours.fromH),
          toMs: hourOf(this.day, this.hours.zone, this.hours.toH),
        });
      this.day = new TZDate(
        this.day.getFullYear(),
        this.day.getMonth(),
        this.day.getDate() + 1,
        this.hours.zone,
      );
    }
    return this.windows[index]!;
  }

  /** The first stretch of `lengthMs` within hours of work, not before an instant: where it begins; null: no day is as long. */
  fit(fromMs: number, lengthMs: number): number | null {
    const { fromH, toH } = this.hours;
    if (!(toH > fromH) || lengthMs > (toH - fromH) * 3.6e6) return null;
    for (let i = this.indexBefore(fromMs); ; i += 1) {
      const { fromMs: opens, toMs: closes } = this.at(i);
      const begins = Math.max(opens, fromMs);
      if (begins + lengthMs <= closes) return begins;
    }
  }

  /** The last window that is worked out and opens before an instant, so that far ones are found at once. */
  private indexBefore(fromMs: number): number {
    let low = 0;
    let high = this.windows.length - 1;
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.windows[middle]!.fromMs <= fromMs) low = middle;
      else high = middle - 1;
    }
    return low;
  }
}
