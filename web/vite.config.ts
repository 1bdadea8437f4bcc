import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const SERVER = process.env.VECTRUM_URL ?? 'http://127.0.0.1:4600';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: { proxy: { '/api': SERVER } },
  build: { chunkSizeWarningLimit: 900, sourcemap: true },
});
