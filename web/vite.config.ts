import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

const SERVER = process.env.VECTRUM_URL ?? 'http://127.0.0.1:4600';

/** The shell is kept on the device, so that a page that was open opens again without a network. */
const shell = VitePWA({
  injectRegister: null,
  registerType: 'prompt',
  manifest: {
    name: 'Vectrum',
    short_name: 'Vectrum',
    start_url: '/floor',
    scope: '/',
    display: 'standalone',
    background_color: '#050810',
    theme_color: '#050810',
    icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,woff2,wasm,svg}'],
    maximumFileSizeToCacheInBytes: 6_000_000,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /\.\w{2,5}$/],
    cleanupOutdatedCaches: true,
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), shell],
  server: { proxy: { '/api': SERVER } },
  worker: { format: 'es' },
  build: { chunkSizeWarningLimit: 1_100, sourcemap: true, manifest: true },
});
