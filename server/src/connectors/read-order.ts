import { plainToInstance } from 'class-transformer';
import { validate, type ValidationError } from 'class-validator';
import { badForm } from '../platform/index.js';
import { ShopOrderDto } from './shop-order.dto.js';

/** What is against a message, field by field with the way to it: "lines.0.price". */
function faultsIn(errors: readonly ValidationError[], path = ''): Record<string, string> {
  return Object.assign(
    {},
    ...errors.map((e) => {
      const own = path ? `${path}.${e.property}` : e.property;
      const says = [...new Set(Object.values(e.constraints ?? {}))].join('. ');
      return { ...(says ? { [own]: `${inWords(own)}: ${says}` } : {}), ...faultsIn(e.children ?? [], own) };
    }),
  ) as Record<string, string>;
}

/** The way to a field as people count: "lines.0.price" is "Line 1, price". */
function inWords(path: string): string {
  const words = path.replace(/s\.(\d+)/g, (_, n: string) => ` ${Number(n) + 1}`).split('.');
  const text = words.join(', ').replace(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Reads an order as a channel sends it. Problem 400 with what is against it, field by field. */
export async function readOrder(message: unknown): Promise<ShopOrderDto> {
  let raw = message;
  if (typeof message === 'string') {
    try {
      raw = JSON.parse(message);
    } catch {
      throw badForm({ text: 'This is not readable JSON' });
    }
  }
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) throw badForm({ order: 'An order is a JSON object' });
  const order = plainToInstance(ShopOrderDto, raw);
  const faults = await validate(order, { whitelist: true });
  if (faults.length > 0) throw badForm(faultsIn(faults));
  return order;
}
