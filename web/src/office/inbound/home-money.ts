import { micro, moneyText } from '@vectrum/core/money';
import type { Dto } from '../../api/client';

const RATE_PLACES = 8;

/** ", about £1,496.00" for an order in another currency whose rate the company has typed in; nothing otherwise. Exact until it is shown. */
export function inHomeMoney(
  order: { currency: string; goods?: string | null },
  money: Dto['MoneyDto'] | undefined,
  home: string | undefined,
): string {
  const rate = money?.currencies.find((c) => c.code === order.currency)?.rate;
  if (!home || order.currency === home || !rate || !order.goods) return '';
  const [whole = '0', part = ''] = rate.split('.');
  const scaled = BigInt(whole + part.padEnd(RATE_PLACES, '0'));
  return `, about ${moneyText((micro(order.goods) * scaled) / 10n ** BigInt(RATE_PLACES), home)}`;
}
