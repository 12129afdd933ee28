import { refuseMissingFolder } from '../refused';
import { command, withRooms } from './command';

/** `npm run rebuild`: builds the database anew from the journals, with the server stopped; the old one is set aside. */
command(async (_words, config) => {
  refuseMissingFolder(config);
  await withRooms(
    config,
    async ({ jobs, people }) => {
      const [listed, known] = [await jobs.list(), await people.list()];
      console.log(
        `Built: ${listed.length} jobs, ${known.length} people. npm run verify says whether all of it fits.`,
      );
    },
    { rebuild: true },
  );
  return 0;
});
