import { randomBytes } from 'node:crypto';
import { refuseMissingFolder } from '../refused';
import { command, withRooms } from './command';

/**
 * `npm run owner -- <name>`, with the server stopped: gives a person a new password, and the role owner when nobody has it any more.
 * For a shop whose owner forgot theirs, or whose journal was lost. It stands in the shop's chain.
 */
command(async (words, config) => {
  refuseMissingFolder(config);
  const name = words.join(' ').trim();
  if (name === '') throw new Error('who? npm run owner -- <name>');
  const password = randomBytes(12).toString('base64url');
  await withRooms(
    config,
    async ({ people }) => {
      const known = (await people.list()).find((one) => one.name.toLowerCase() === name.toLowerCase());
      if (known === undefined) {
        if (!(await people.needsOwner())) throw new Error(`nobody here is called ${name}`);
        const id = `person-${randomBytes(6).toString('hex')}`;
        await people.create({ id, name, roles: ['owner'], password }, 'command line');
      } else {
        await people.setPassword(known.id, password, 'command line');
        if (await people.needsOwner())
          await people.change(known.id, { roles: ['owner'], active: true }, 'command line');
      }
    },
    { withoutPeople: true },
  );
  console.log(`${name} signs in with ${password} and should change it at once.`);
  return 0;
});
