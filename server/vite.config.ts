import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/** An empty, migrated database, made once for these migrations and this version of the database. */
function templateDatabase(): string {
  const migrations = here('src/database/migrations');
  const hash = createHash('sha256').update(readFileSync(here('package.json')));
  for (const name of readdirSync(migrations).sort()) hash.update(readFileSync(join(migrations, name)));
  const folder = here(`../.cache/template-database-${hash.digest('hex').slice(0, 16)}`);
  if (existsSync(folder)) return folder;
  mkdirSync(here('../.cache'), { recursive: true });
  rmSync(`${folder}.part`, { recursive: true, force: true });
  const { status } = spawnSync(process.execPath, [here('dist/template.js'), `${folder}.part`], {
    stdio: 'inherit',
  });
  if (status !== 0) throw new Error('the template database could not be made');
  renameSync(`${folder}.part`, folder);
  return folder;
}

/** One bundle for Node: the core is inlined, packages stay outside. */
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    rollupOptions: {
      input: {
        main: 'src/main.ts',
        verify: 'src/commands/verify.ts',
        backup: 'src/commands/backup.ts',
        restore: 'src/commands/restore.ts',
        rebuild: 'src/commands/rebuild.ts',
        owner: 'src/commands/owner.ts',
        template: 'src/commands/template.ts',
        'database-thread': 'src/threads/database-thread.ts',
        'heavy-thread': 'src/threads/heavy-thread.ts',
        'evaluate-thread': 'src/threads/evaluate-thread.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@torvek\//] },
  plugins: [
    {
      name: 'beside-the-bundle',
      closeBundle() {
        cpSync(here('src/database/migrations'), here('dist/migrations'), { recursive: true });
        cpSync(templateDatabase(), here('dist/template-database'), { recursive: true });
      },
    },
  ],
});
