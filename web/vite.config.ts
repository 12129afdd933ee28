import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [vue()],
  server: { proxy: { '/api': `http://127.0.0.1:${process.env.TORVEK_API_PORT ?? 4178}` } },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
});
