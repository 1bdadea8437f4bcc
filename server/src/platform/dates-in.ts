import { Transform } from 'class-transformer';

/**
 * Reads a time from a request, before `IsDate` judges it. Only text and numbers are times: what a constructor of dates makes of other
 * values, or breaks at, is not asked.
 */
export const DateIn = (): PropertyDecorator =>
  Transform(({ value }: { value: unknown }) => {
    if (value === null || value === undefined) return value;
    return new Date(typeof value === 'string' || typeof value === 'number' ? value : Number.NaN);
  });
