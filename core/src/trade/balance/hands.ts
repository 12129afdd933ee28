import type { WorkCalendar } from './work-hours';

/** People's hands: one connection at a time each. */
export class Hands {
  /** Beginnings of what is booked, rising. */
  private readonly booked: number[] = [];

  constructor(
    private readonly calendar: WorkCalendar,
    private readonly people: number,
    private readonly handMs: number,
  ) {}

  /** A connection not before an instant, with time behind it within the same hours of work: where it begins. */
  place(notBefore: number, behindMs: number): number {
    for (let at = notBefore; ;) {
      const begins = this.calendar.fit(at, this.handMs + behindMs)!;
      const from = this.before(begins - this.handMs + 1);
      const busy = this.booked.slice(from, this.before(begins + this.handMs - 1));
      if (busy.length < this.people) {
        this.booked.splice(this.before(begins), 0, begins);
        return begins;
      }
      at = busy[0]! + this.handMs;
    }
  }

  /** How many are booked to begin before an instant. */
  private before(instant: number): number {
    let low = 0;
    let high = this.booked.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.booked[middle]! < instant) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  take(notBefore: number): number {
    return this.place(notBefore, 0);
  }
}
