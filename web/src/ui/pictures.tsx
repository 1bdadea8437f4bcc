import type { ReactNode } from 'react';

/** Small drawn pictures of goods, 64 by 64, in ink and kraft. */
export const PICTURES: Readonly<Record<string, ReactNode>> = {
  book: (
    <>
      <path d="M12 8h36l4 4v44H16c-2 0-4-2-4-4z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M12 52c0-3 2-4 4-4h36" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M22 20h20M22 27h14" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  box: (
    <>
      <path d="M8 20l24-10 24 10v28L32 58 8 48z" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M8 20l24 10 24-10M32 30v28" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M20 15l24 10" fill="var(--color-kraft-deep)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  cage: (
    <>
      <path d="M12 14h40v36H12z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M20 14v36M28 14v36M36 14v36M44 14v36" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M26 8h12v6H26z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  extractor: (
    <>
      <path d="M14 14h36v34H14z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M14 14c0-5 36-5 36 0M18 48v10M46 48v10M32 14V6h12" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M28 38h8v6h-8z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  feeder: (
    <>
      <path d="M8 26h48v26H8z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M12 26c0-6 40-6 40 0" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M26 26v-8h12v8" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M14 40h36" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  fondant: (
    <>
      <path d="M6 24 24 14l34 8-17 11z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M6 24l35 9v20L6 43z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M41 33l17-11v19L41 53z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M12 31l20 5v9l-20-5z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.2" />
    </>
  ),
  frames: (
    <>
      <path d="M10 6h50v5h-4v6" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M6 11h50v5h-4v8" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M2 17h52v6h-5v33H7V23H2z" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M49 23v33l7-5V20M56 20v-5" fill="var(--color-kraft-deep)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M12 27h32v24H12z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M18.8 29.4L18.8 32.6L16.0 34.2L13.2 32.6L13.2 29.4L16.0 27.8ZM24.3 29.4L24.3 32.6L21.5 34.2L18.8 32.6L18.8 29.4L21.5 27.8ZM29.9 29.4L29.9 32.6L27.1 34.2L24.3 32.6L24.3 29.4L27.1 27.8ZM35.4 29.4L35.4 32.6L32.6 34.2L29.9 32.6L29.9 29.4L32.6 27.8ZM40.9 29.4L40.9 32.6L38.2 34.2L35.4 32.6L35.4 29.4L38.2 27.8ZM21.5 34.2L21.5 37.4L18.8 39.0L16.0 37.4L16.0 34.2L18.8 32.6ZM27.1 34.2L27.1 37.4L24.3 39.0L21.5 37.4L21.5 34.2L24.3 32.6ZM32.6 34.2L32.6 37.4L29.9 39.0L27.1 37.4L27.1 34.2L29.9 32.6ZM38.2 34.2L38.2 37.4L35.4 39.0L32.6 37.4L32.6 34.2L35.4 32.6ZM43.7 34.2L43.7 37.4L40.9 39.0L38.2 37.4L38.2 34.2L40.9 32.6ZM18.8 39.0L18.8 42.2L16.0 43.8L13.2 42.2L13.2 39.0L16.0 37.4ZM24.3 39.0L24.3 42.2L21.5 43.8L18.8 42.2L18.8 39.0L21.5 37.4ZM29.9 39.0L29.9 42.2L27.1 43.8L24.3 42.2L24.3 39.0L27.1 37.4ZM35.4 39.0L35.4 42.2L32.6 43.8L29.9 42.2L29.9 39.0L32.6 37.4ZM40.9 39.0L40.9 42.2L38.2 43.8L35.4 42.2L35.4 39.0L38.2 37.4ZM21.5 43.8L21.5 47.0L18.8 48.6L16.0 47.0L16.0 43.8L18.8 42.2ZM27.1 43.8L27.1 47.0L24.3 48.6L21.5 47.0L21.5 43.8L24.3 42.2ZM32.6 43.8L32.6 47.0L29.9 48.6L27.1 47.0L27.1 43.8L29.9 42.2ZM38.2 43.8L38.2 47.0L35.4 48.6L32.6 47.0L32.6 43.8L35.4 42.2ZM43.7 43.8L43.7 47.0L40.9 48.6L38.2 47.0L38.2 43.8L40.9 42.2Z" fill="none" stroke="var(--color-kraft-deep)" strokeWidth="1" />
      <path d="M12 27h32v24H12z" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  gloves: (
    <>
      <path d="M14 58V34l-6-8 4-4 6 6V12h5v14h2V8h5v18h2V10h5v16h2V14h5v22l-4 10v12z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M14 50h22" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  hive: (
    <>
      <path d="M8 14h48v6H8z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M11 20h42v16H11z" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M11 36h42v18H11z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M26 26h12M26 43h12" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M24 54h16v4H24z" fill="var(--color-kraft-deep)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  jar: (
    <>
      <path d="M19 7h26v10H19z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M20 17c-9 5-9 12-9 20s2 21 9 21h24c7 0 9-13 9-21s0-15-9-20z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M17 30c-1 6 0 14 2 20" fill="none" stroke="var(--pic-ink)" strokeWidth="1.3" strokeLinecap="round" />
      <ellipse cx="34" cy="38" rx="11" ry="9" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.1" />
    </>
  ),
  label: (
    <>
      <path d="M10 16h32l12 16-12 16H10z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M18 26h18M18 33h18M18 40h10" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M44 32h.1" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  lid: (
    <>
      <path d="M6 28c0-14 52-14 52 0v10c0 14-52 14-52 0z" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" />
      <ellipse cx="32" cy="28" rx="26" ry="10.5" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" />
      <path d="M10 38v6M17 41v7M25 43v7M32 43.5v7M39 43v7M47 41v7M54 38v6" stroke="var(--pic-ink)" strokeWidth="1.2" />
    </>
  ),
  scale: (
    <>
      <path d="M6 30 20 18h40L46 30z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M6 30h40v7H6z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M46 30l14-12v7L46 37z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M10 37v8h32v-8" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M42 45l14-12v-6" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M15 47h18v9H15z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M19 51.5h10" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  smoker: (
    <>
      <path d="M21 18c1-8 7-12 15-13l5 4c-4 2-6 5-6 9z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M14 24c3-7 26-7 29 0v33H14z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M14 24h29M14 51h29" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" fill="none" />
      <path d="M20 30v14M37 30v14" stroke="var(--pic-ink)" strokeWidth="1.1" />
      <path d="M46 20l13 4v30l-13 4z" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M46 29l13-2M46 36h13M46 43l13 1M46 50l13 2" stroke="var(--pic-ink)" strokeWidth="1.1" />
      <path d="M43 46h3" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  strips: (
    <>
      <path d="M10 10h34l4 5v43H10z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M10 19h38" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M17 26h24v12H17z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.2" />
      <path d="M16 45h26M16 50h18" stroke="var(--pic-ink)" strokeWidth="1.2" />
      <path d="M50 24h6v34h-6zM48 15l6 4" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  suit: (
    <>
      <path d="M25 14c0-10 14-10 14 0v5H25z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M20 12c2-11 22-11 24 0" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M25 18 14 22 6 43l7 3 5-12v27h12l2-17 2 17h12V34l5 12 7-3-8-21-11-4c-3 4-11 4-14 0z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M32 21v23" stroke="var(--pic-ink)" strokeWidth="1.3" strokeDasharray="2 2.2" />
      <path d="M36 28h6v6h-6z" fill="none" stroke="var(--pic-ink)" strokeWidth="1.1" />
    </>
  ),
  syrup: (
    <>
      <path d="M13 20h9l4-6h20l6 8v36H13z" fill="var(--pic-white)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M14 8h9v6h-9z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M13 20v-6h11" fill="none" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M31 19c5-3 11-2 13 3l-3 2c-2-2-5-2-8 0z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M18 33h29v17H18z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.2" />
      <path d="M22 38h18M22 42h21M22 46h12" stroke="var(--pic-ink)" strokeWidth="1.1" />
    </>
  ),
  tool: (
    <>
      <path d="M40 6c6 0 12 4 14 10l-6-2-4 4 2 6c-6-2-10-8-10-14l-22 30-4 14 6-2 6-12 20-26z" fill="var(--pic-tint)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
    </>
  ),
  wax: (
    <>
      <path d="M14 8h44v34H14z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M10 13h44v34H10z" fill="var(--color-kraft-pale)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M6 18h44v38H6z" fill="var(--color-kraft)" stroke="var(--pic-ink)" strokeWidth="1.8" strokeLinejoin="round" strokeLinecap="round" />
      <path d="M13.6 21.2L13.6 24.8L10.5 26.6L7.4 24.8L7.4 21.2L10.5 19.4ZM19.9 21.2L19.9 24.8L16.7 26.6L13.6 24.8L13.6 21.2L16.7 19.4ZM26.1 21.2L26.1 24.8L23.0 26.6L19.9 24.8L19.9 21.2L23.0 19.4ZM32.3 21.2L32.3 24.8L29.2 26.6L26.1 24.8L26.1 21.2L29.2 19.4ZM38.6 21.2L38.6 24.8L35.4 26.6L32.3 24.8L32.3 21.2L35.4 19.4ZM44.8 21.2L44.8 24.8L41.7 26.6L38.6 24.8L38.6 21.2L41.7 19.4ZM16.7 26.6L16.7 30.2L13.6 32.0L10.5 30.2L10.5 26.6L13.6 24.8ZM23.0 26.6L23.0 30.2L19.9 32.0L16.7 30.2L16.7 26.6L19.9 24.8ZM29.2 26.6L29.2 30.2L26.1 32.0L23.0 30.2L23.0 26.6L26.1 24.8ZM35.4 26.6L35.4 30.2L32.3 32.0L29.2 30.2L29.2 26.6L32.3 24.8ZM41.7 26.6L41.7 30.2L38.6 32.0L35.4 30.2L35.4 26.6L38.6 24.8ZM47.9 26.6L47.9 30.2L44.8 32.0L41.7 30.2L41.7 26.6L44.8 24.8ZM13.6 32.0L13.6 35.6L10.5 37.4L7.4 35.6L7.4 32.0L10.5 30.2ZM19.9 32.0L19.9 35.6L16.7 37.4L13.6 35.6L13.6 32.0L16.7 30.2ZM26.1 32.0L26.1 35.6L23.0 37.4L19.9 35.6L19.9 32.0L23.0 30.2ZM32.3 32.0L32.3 35.6L29.2 37.4L26.1 35.6L26.1 32.0L29.2 30.2ZM38.6 32.0L38.6 35.6L35.4 37.4L32.3 35.6L32.3 32.0L35.4 30.2ZM44.8 32.0L44.8 35.6L41.7 37.4L38.6 35.6L38.6 32.0L41.7 30.2ZM16.7 37.4L16.7 41.0L13.6 42.8L10.5 41.0L10.5 37.4L13.6 35.6ZM23.0 37.4L23.0 41.0L19.9 42.8L16.7 41.0L16.7 37.4L19.9 35.6ZM29.2 37.4L29.2 41.0L26.1 42.8L23.0 41.0L23.0 37.4L26.1 35.6ZM35.4 37.4L35.4 41.0L32.3 42.8L29.2 41.0L29.2 37.4L32.3 35.6ZM41.7 37.4L41.7 41.0L38.6 42.8L35.4 41.0L35.4 37.4L38.6 35.6ZM47.9 37.4L47.9 41.0L44.8 42.8L41.7 41.0L41.7 37.4L44.8 35.6ZM13.6 42.8L13.6 46.4L10.5 48.2L7.4 46.4L7.4 42.8L10.5 41.0ZM19.9 42.8L19.9 46.4L16.7 48.2L13.6 46.4L13.6 42.8L16.7 41.0ZM26.1 42.8L26.1 46.4L23.0 48.2L19.9 46.4L19.9 42.8L23.0 41.0ZM32.3 42.8L32.3 46.4L29.2 48.2L26.1 46.4L26.1 42.8L29.2 41.0ZM38.6 42.8L38.6 46.4L35.4 48.2L32.3 46.4L32.3 42.8L35.4 41.0ZM44.8 42.8L44.8 46.4L41.7 48.2L38.6 46.4L38.6 42.8L41.7 41.0ZM16.7 48.2L16.7 51.8L13.6 53.6L10.5 51.8L10.5 48.2L13.6 46.4ZM23.0 48.2L23.0 51.8L19.9 53.6L16.7 51.8L16.7 48.2L19.9 46.4ZM29.2 48.2L29.2 51.8L26.1 53.6L23.0 51.8L23.0 48.2L26.1 46.4ZM35.4 48.2L35.4 51.8L32.3 53.6L29.2 51.8L29.2 48.2L32.3 46.4ZM41.7 48.2L41.7 51.8L38.6 53.6L35.4 51.8L35.4 48.2L38.6 46.4ZM47.9 48.2L47.9 51.8L44.8 53.6L41.7 51.8L41.7 48.2L44.8 46.4Z" fill="none" stroke="var(--color-kraft-deep)" strokeWidth="1.1" />
    </>
  ),
};
