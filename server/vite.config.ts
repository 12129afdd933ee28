import { cpSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

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
        'database-thread': 'src/threads/database-thread.ts',
        'heavy-thread': 'src/threads/heavy-thread.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
  ssr: { noExternal: [/^@torvek\//] },
  plugins: [
    {
      name: 'migrations-beside-the-bundle',
      closeBundle: () =>
        cpSync(here('src/database/migrations'), here('dist/migrations'), { recursive: true }),
    },
  ],
});
