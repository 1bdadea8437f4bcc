/** Fixed-point amounts: a whole number of millionths, so that sums are exact. Scale 6 in the database too. */
export type Micro = bigint;
const SCALE = 1_000_000n;

/** Reads decimal text of up to 6 places. Throws RangeError on anything else. */
export function micro(text: string): Micro {
  const parts = /^(-?)(\d{1,15})(?:\.(\d{1,6}))?$/.exec(text.trim());
  if (!parts) throw new RangeError(`"${text}" is not an amount of up to 6 decimal places`);
  const value = BigInt(parts[2] ?? '0') * SCALE + BigInt((parts[3] ?? '').padEnd(6, '0'));
  return parts[1] ? -value : value;
}

/** An amount divided by a whole number above zero, rounded half away from zero. */
export function dividedBy(amount: Micro, by: number): Micro {
  const divisor = BigInt(by);
  if (divisor <= 0n) throw new RangeError('Divide by a whole number above zero');
  const half = divisor / 2n;
  return amount >= 0n ? (amount + half) / divisor : -((-amount + half) / divisor);
}

/** An amount times a whole number. */
export function times(amount: Micro, by: number): Micro {
  return amount * BigInt(by);
}

/** Decimal text with all six places, as the database keeps it. */
export function decimalText(amount: Micro): string {
  const size = amount < 0n ? -amount : amount;
  return `${amount < 0n ? '-' : ''}${size / SCALE}.${String(size % SCALE).padStart(6, '0')}`;
}

/** Decimal text for people: two places, four where the third or fourth is not nought ("0.42", "0.0480"). */
export function priceText(amount: Micro): string {
  const four = dividedBy(amount, 100);
  return four % 100n === 0n ? fixed(four / 100n, 2) : fixed(four, 4);
}

function fixed(value: bigint, places: number): string {
  const size = String(value < 0n ? -value : value).padStart(places + 1, '0');
  return `${value < 0n ? '−' : ''}${size.slice(0, -places)}.${size.slice(-places)}`;
}

const SIGNS: Readonly<Record<string, string>> = { GBP: '£', EUR: '€', USD: '$' };

/** Money for people, to the penny: "£1,739.52", with a true minus sign. */
export function moneyText(amount: Micro, currency = 'GBP'): string {
  const text = fixed(dividedBy(amount, 10_000), 2).replace('−', '');
  const [whole = '0', pence = '00'] = text.split('.');
  const sign = Object.hasOwn(SIGNS, currency) ? SIGNS[currency] : `${currency} `;
  return `${amount < 0n ? '−' : ''}${sign}${whole.replace(/\B(?=(\d{3})+(?!\d))/g, ',')}.${pence}`;
}
