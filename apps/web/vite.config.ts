import react from '@vitejs/plugin-react';
import { defaultClientConditions, defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  resolve: { conditions: ['@coomb/source', ...defaultClientConditions] },
  server: { port: 4281, proxy: { '/api': 'http://127.0.0.1:4280' } },
  build: { target: 'es2023', sourcemap: false, chunkSizeWarningLimit: 900 },
});
