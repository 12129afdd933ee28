import { refuseMissingData } from '../refused';
import { checkPaper, paperInWords } from '../take-away/paper';
import type { Verification } from '@torvek/core/record';
import { command, withRooms } from './command';

/**
 * `npm run verify`: holds every chain, database and file against each other, with the server stopped; exit 1 when something does
 * not fit. `npm run verify -- --paper "<text>"` holds a printed head against the chain it is of.
 */
command(async ([flag, ...words], config) => {
  refuseMissingData(config);
  return withRooms(config, async (rooms) => {
    if (flag === '--paper') {
      const answer = await checkPaper(rooms, words.join(' '));
      console.log(paperInWords(answer));
      return answer.fits ? 0 : 1;
    }
    const { jobs, verifier, journal } = rooms;
    let whole = say('the shop', await verifier.shop());
    const listed = await jobs.list();
    const names = new Map(listed.map(({ id, name }) => [id, name]));
    for (const id of new Set([...journal.jobs(), ...names.keys()]))
      whole = say(`${names.get(id) ?? 'a job'} (${id})`, await verifier.job(id)) && whole;
    console.log(
      whole
        ? 'Every link fits the one before it, every version its hash, every row and file what was recorded. A complete rewrite of ' +
            'journals and database together shows only against a head that is kept elsewhere: npm run verify -- --paper "<text>".'
        : 'The record does not fit.',
    );
    return whole ? 0 : 1;
  });
});

function say(
  what: string,
  { ok, entries, versions, files, problems, repairs, notWitnessed }: Verification,
): boolean {
  console.log(
    `${ok ? 'fits   ' : 'BROKEN '} ${what}: ${entries} entries, ${versions} versions, ${files} files`,
  );
  for (const one of problems) console.log(`        ${one.what} ${one.message}`);
  for (const one of repairs) console.log(`        (repaired: ${one})`);
  if (notWitnessed !== null)
    console.log(
      `        (not witnessed: ${notWitnessed.links} links, taken up on ${notWitnessed.at.slice(0, 10)})`,
    );
  for (const one of notWitnessed?.problems ?? []) console.log(`        (then already: ${one})`);
  return ok;
}
