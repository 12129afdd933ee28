import type { Entry } from './entry';
import type { EntryBody } from './kinds';
import type { Look, Seen } from './kinds/intake';
import type { ItemState, Quotation, Quoted } from './kinds/stock';

/** Templates of steps that measure a thing, wherever it is: their results go where it goes. All others are of the place. */
export const itemTemplates = [
  'intake-voltage',
  'intake-insulation',
  'intake-resistance',
  'intake-capacity',
  'intake-rested',
  'intake-sensor',
] as const;

/** What a step measures, and of what: `${template}:${subject}`. */
export const stepParts = (step: string): { template: string; subject: string } => {
  const at = step.indexOf(':');
  return { template: step.slice(0, at), subject: step.slice(at + 1) };
};
export const isOfItem = (step: string): boolean =>
  (itemTemplates as readonly string[]).includes(stepParts(step).template);

/** What belongs to no job lies in a job of its own. */
export const shopShelf = { id: 'job-shop-shelf', name: 'Shelf of the shop' } as const;

/** A thing with its life, as the record tells it. */
export interface Item {
  id: string;
  /** What kind of part it is: a module, a reel’s cable, a fuse; `device` or `box` for what no part is of. */
  sort: string;
  /** Key of the part it is; null: whatever the design has in its place. */
  part: string | null;
  serial: string | null;
  donor: string | null;
  price: number | null;
  note: string | null;
  /** A reel of cable, of this length when it came, m; null: it is none. */
  lengthM: number | null;
  /** What was cut off it since, m. */
  cutM: number;
  look: Look | null;
  /** What else was seen of it. */
  seen: Seen;
  /** When it arrived; null: it was there before anybody said so. */
  arrivedAt: string | null;
  state: ItemState;
  /** Why it is in this state. */
  reason: string | null;
  /** Where it sits; null: on the shelf. */
  place: string | null;
  /** What the job tells that it came from; null: it came from none. */
  from: Quoted | null;
  /** The name of the job that it was sent to; null: it is here. */
  sentTo: string | null;
  /** The numbers of the entries that tell of it. */
  history: number[];
}

/** A thing that is measured and balanced, and sits in a place of the pack. */
export const isModule = ({ sort }: Pick<Item, 'sort'>): boolean => sort === 'module';

export interface Stock {
  items: ReadonlyMap<string, Item>;
  /** By place: the thing in it; a place that was emptied has null, one that nobody told of none. */
  inPlace: ReadonlyMap<string, string | null>;
  /** By the number of an entry and the place or thing that it names: whose it is. */
  whose(seq: number, named: string): string | null;
}

const empty = (id: string): Item => ({
  id,
  sort: 'module',
  part: null,
  serial: null,
  donor: null,
  price: null,
  note: null,
  lengthM: null,
  cutM: 0,
  look: null,
  seen: {},
  arrivedAt: null,
  state: 'untested',
  reason: null,
  place: null,
  from: null,
  sentTo: null,
  history: [],
});

/** The id of a thing that arrived: by the number of its arrival, and its row there. */
export const arrivedId = (seq: number, row: number) => `item-${seq}-${row + 1}`;

/** Lays one entry after the other. */
class Ledger implements Stock {
  readonly items = new Map<string, Item>();
  readonly inPlace = new Map<string, string | null>();
  private readonly owners = new Map<string, string>();

  whose(seq: number, named: string): string | null {
    return this.owners.get(`${seq} ${named}`) ?? null;
  }

  take(entry: Entry): void {
    const { body, seq, subjects } = entry;
    switch (body.kind) {
      case 'arrival':
        body.items.forEach((row, i) => {
          const item = this.make(arrivedId(seq, i), seq);
          const sort = row.sort ?? (row.lengthM === undefined ? 'module' : 'cable');
          Object.assign(item, row, { sort, arrivedAt: entry.takenAt });
        });
        break;
      case 'fit':
        this.put(this.known(body.item, seq), body.place);
        if (body.former !== null) this.known(body.former, seq);
        break;
      case 'remove': {
        const item = this.known(body.item, seq);
        this.leave(item);
        Object.assign(item, { state: body.state, reason: body.reason });
        break;
      }
      case 'part-fitted':
        this.fitPart(body, seq);
        break;
      case 'sent':
        this.leave(this.known(body.item, seq));
        this.known(body.item, seq).sentTo = body.toName;
        break;
      case 'cable-cut':
        if (body.reel != null) this.known(body.reel, seq).cutM += body.lengthM * (body.count ?? 1);
        break;
      case 'item-state':
        Object.assign(this.known(body.item, seq), { state: body.state, reason: body.reason });
        break;
      case 'intake':
        if (subjects[0] !== undefined) this.intake(subjects[0].id, body, seq);
        break;
      case 'result':
        if (isOfItem(body.step)) this.own(seq, stepParts(body.step).subject, body.item);
        break;
      case 'cell-voltages':
        for (const cell of body.cells) this.own(seq, moduleOf(cell.cell));
        break;
      case 'balance':
        for (const cell of body.cells) this.own(seq, moduleOf(cell));
        break;
      case 'levelled':
        for (const { id } of subjects) this.own(seq, id);
        break;
      default:
    }
  }

  /** An intake of a place: a first one implies a thing, another serial is a swap, anything else is of what is there. */
  private intake(place: string, body: IntakeOf, seq: number): void {
    const { serial, look, same, dateCode, drained, seals, terminals } = body;
    let item = this.at(place, seq);
    if (serial !== null && item.serial !== null && item.serial !== serial && same !== true) {
      item = this.shelved('module', serial) ?? this.make(`item-${seq}`, seq);
      this.put(item, place);
    }
    if (serial !== null) item.serial = serial;
    if (look !== null) item.look = look;
    const seen = { dateCode, drained, seals, terminals };
    for (const [name, value] of Object.entries(seen))
      if (value !== undefined) item.seen = { ...item.seen, [name]: value };
    this.note(item, seq, place);
  }

  /**
   * A part in a place: the thing that is named; else what was told of that place, better known; else one on the shelf with its serial, or
   * a thing of which nobody told before. What sat there lies on the shelf.
   */
  private fitPart({ place, part, serial, sort, item: named, exchanged }: PartFittedBody, seq: number): void {
    const there = this.items.get(this.inPlace.get(place) ?? '');
    if (named === undefined && serial === null && there === undefined) return;
    const same =
      there !== undefined &&
      !exchanged &&
      (serial === null || there.serial === null || there.serial === serial);
    const item =
      named !== undefined
        ? this.known(named, seq)
        : same
          ? there
          : ((serial === null ? undefined : this.shelved(sort, serial, part)) ??
            this.make(`item-${seq}`, seq));
    if (named === undefined)
      Object.assign(item, { sort: sort ?? item.sort, part, serial: serial ?? item.serial });
    if (named === undefined && sort === undefined && item.sort === 'module') item.sort = 'part';
    if (item !== there) this.put(item, place);
    this.note(item, seq, place);
  }

  private leave(item: Item): void {
    if (item.place !== null) this.inPlace.set(item.place, null);
    item.place = null;
  }

  private own(seq: number, named: string, told?: string): void {
    const item = (told === undefined ? undefined : this.items.get(told)) ?? this.at(named, seq);
    this.note(item, seq, named);
  }

  private note(item: Item, seq: number, named: string): void {
    this.owners.set(`${seq} ${named}`, item.id);
    if (item.history.at(-1) !== seq) item.history.push(seq);
  }

  /** What is in a place, or the thing of this id; where nobody told of one, what is said of the place implies it. */
  private at(named: string, seq: number): Item {
    const itself = this.items.get(named);
    if (itself !== undefined) return itself;
    const id = this.inPlace.get(named);
    if (id != null) return this.items.get(id)!;
    const implied = `item-of-${named}`;
    const item = this.make(this.items.has(implied) ? `${implied}-${seq}` : implied, seq);
    this.put(item, named);
    return item;
  }

  /** A thing on the shelf by its serial, of this kind and of this part where both are known. */
  private shelved(sort: string | undefined, serial: string, part?: string | null): Item | undefined {
    return [...this.items.values()].find(
      (one) =>
        one.serial === serial &&
        one.place === null &&
        one.sentTo === null &&
        (one.sort === sort || one.sort === 'part') &&
        (part == null || one.part === null || one.part === part),
    );
  }

  private put(item: Item, place: string): void {
    const former = this.items.get(this.inPlace.get(place) ?? '');
    if (former !== undefined) former.place = null;
    this.leave(item);
    item.place = place;
    this.inPlace.set(place, item.id);
  }

  private known(id: string, seq: number): Item {
    const item = this.items.get(id) ?? this.make(id, seq);
    if (item.history.at(-1) !== seq) item.history.push(seq);
    return item;
  }

  private make(id: string, seq: number): Item {
    const item = { ...empty(id), history: [seq] };
    this.items.set(id, item);
    return item;
  }
}

type PartFittedBody = Extract<EntryBody, { kind: 'part-fitted' }>;
type IntakeOf = Extract<EntryBody, { kind: 'intake' }>;
export const moduleOf = (cell: string) => cell.split('/')[0]!;

/** Entries that were not corrected. */
export const counting = (entries: readonly Entry[]): readonly Entry[] => {
  const corrected = new Set(entries.flatMap(({ body }) => (body.kind === 'correction' ? [body.of] : [])));
  return corrected.size === 0 ? entries : entries.filter(({ seq }) => !corrected.has(seq));
};

const stocks = new WeakMap<readonly Entry[], Stock>();

/** Of a list that tells of the same things: they need not be counted again. */
export const tellsOf = (entries: readonly Entry[], stock: Stock): void => void stocks.set(entries, stock);

/** Things of a job with where each is, by the entries that count, in the order of the chain. */
export function stockOf(entries: readonly Entry[]): Stock {
  const known = stocks.get(entries);
  if (known !== undefined) return known;
  const ledger = new Ledger();
  for (const entry of counting(entries)) ledger.take(entry);
  stocks.set(entries, ledger);
  return ledger;
}

/** What was measured of a thing elsewhere, by the template of the step: the last of each, with the hash of its entry. */
export function quotedValues({ from }: Pick<Item, 'from'>): Map<string, { value: number; of: Quotation }> {
  const values = new Map<string, { value: number; of: Quotation }>();
  for (const of of from?.entries ?? []) {
    if (of.text === null) continue;
    const { body } = JSON.parse(of.text) as Pick<Entry, 'body'>;
    if (body.kind === 'result' && isOfItem(body.step) && body.measured.kind === 'value')
      values.set(stepParts(body.step).template, { value: body.measured.value, of });
  }
  return values;
}
