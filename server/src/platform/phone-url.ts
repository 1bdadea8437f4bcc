import { ownAddresses } from './certificate.js';
import type { Config } from './config.js';

/** Where phones open this house over HTTPS: the address it is known by, or this machine's own; null where neither is secure. */
export function phoneUrl(config: Pick<Config, 'VECTRUM_URL' | 'VECTRUM_HTTPS_PORT' | 'VECTRUM_HOST'>): string | null {
  if (config.VECTRUM_URL?.startsWith('https:')) return config.VECTRUM_URL.replace(/\/$/, '');
  if (config.VECTRUM_HTTPS_PORT === 0) return null;
  const reached = config.VECTRUM_HOST === '0.0.0.0' ? ownAddresses().find((a) => a !== '127.0.0.1') : config.VECTRUM_HOST;
  return `https://${reached ?? '127.0.0.1'}:${config.VECTRUM_HTTPS_PORT}`;
}
