import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  resolve: { conditions: ['decurio-source', 'module', 'browser', 'development|production'] },
  build: { outDir: 'dist/app', emptyOutDir: true, manifest: true, target: 'es2022', chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': process.env['DECURIO_API'] ?? 'http://127.0.0.1:8080' } },
});
