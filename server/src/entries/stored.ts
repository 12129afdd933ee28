import type { Entry } from '@torvek/core/record';
import type { RecordedEntry } from './court';

/** What is read of an entry's row. */
export interface EntryRow {
  job_id: string;
  sha256: string;
  content: string;
}

export const recorded = ({ content, sha256 }: EntryRow): RecordedEntry => ({
  ...(JSON.parse(content) as Entry),
  sha256,
});
