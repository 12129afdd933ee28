import { readdirSync, readFileSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';
import vue from '@vitejs/plugin-vue';
import { compile } from 'sass';
import { defineConfig, type Plugin } from 'vite';
import { notices } from '../scripts/notices.mjs';

const gzipped = promisify(gzip);
const brotlied = promisify(brotliCompress);
const here = (path: string) => fileURLToPath(new URL(path, import.meta.url));

/**
 * Compiles the theme in one synchronous go: Sass's asynchronous interface, which the bundler would use, takes four
 * times as long.
 */
function theme(): Plugin {
  const id = 'virtual:theme.css';
  return {
    name: 'theme',
    resolveId: (source) => (source === id ? `\0${id}` : null),
    load(resolved) {
      if (resolved !== `\0${id}`) return null;
      const file = here('src/theme/theme.scss');
      this.addWatchFile(file);
      return compile(file, {
        loadPaths: [here('../node_modules')],
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      }).css;
    },
  };
}

/** Compresses what is sent, once: beside each file of text lie one for every browser and one for those that know better. */
function compressed(): Plugin {
  return {
    name: 'compressed',
    apply: 'build',
    async closeBundle() {
      const folder = here('dist/assets');
      const texts = readdirSync(folder).filter((name) => /\.(js|css|svg|json)$/.test(name));
      await Promise.all(
        texts.map(async (name) => {
          const path = join(folder, name);
          const bytes = readFileSync(path);
          const quality = { [constants.BROTLI_PARAM_QUALITY]: 9 };
          await writeFile(`${path}.gz`, await gzipped(bytes, { level: 9 }));
          await writeFile(`${path}.br`, await brotlied(bytes, { params: quality }));
        }),
      );
    },
  };
}

/** What others wrote, with its licences: a module that only its page loads. */
function withNotices(): Plugin {
  const id = 'virtual:notices';
  return {
    name: 'notices',
    resolveId: (source) => (source === id ? `\0${id}` : null),
    load: (resolved) => (resolved === `\0${id}` ? `export default ${JSON.stringify(notices())}` : null),
  };
}

export default defineConfig({
  plugins: [vue(), theme(), withNotices(), compressed()],
  server: {
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.TORVEK_API_PORT ?? 4178}`, ws: true } },
  },
  build: { target: 'es2022', chunkSizeWarningLimit: 900, reportCompressedSize: false },
});
