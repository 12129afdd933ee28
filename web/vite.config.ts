import { fileURLToPath } from 'node:url';
import vue from '@vitejs/plugin-vue';
import { compile } from 'sass';
import { defineConfig, type Plugin } from 'vite';

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

export default defineConfig({
  plugins: [vue(), theme()],
  server: {
    proxy: { '/api': { target: `http://127.0.0.1:${process.env.TORVEK_API_PORT ?? 4178}`, ws: true } },
  },
  build: { target: 'es2022', chunkSizeWarningLimit: 900, reportCompressedSize: false },
});
