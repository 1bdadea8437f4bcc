import fc from 'fast-check';
import { fractionOf } from '../money/index.js';
import { matchPayment, microOf, pence, penceOf, shareOf, sumsOf, type TaxedLine } from './index.js';

const line = (amount: bigint, percent = '20', taxCode = `T${percent}`): TaxedLine => ({ amount, percent, taxCode });
const amounts = fc.bigInt({ min: -1_000_000n, max: 10_000_000n });
const lines = fc.array(
  fc.tuple(amounts, fc.constantFrom('0', '5.5', '7', '19', '20', '25.0001')).map(([amount, percent]) => line(amount, percent)),
  { minLength: 1, maxLength: 40 },
);

describe('the sums of a document', () => {
  it('reckon tax once for each rate', () => {
    const { taxes, net, tax, gross } = sumsOf([line(333n), line(333n), line(333n), line(1000n, '5.5')], false);
    expect(taxes).toEqual([
      { taxCode: 'T20', percent: '20', net: 999n, tax: 200n },
      { taxCode: 'T5.5', percent: '5.5', net: 1000n, tax: 55n },
    ]);
    expect([net, tax, gross]).toEqual([1999n, 255n, 2254n]);
  });

  it('leave the gross as it was said where prices hold the tax', () => {
    const sums = sumsOf([line(999n), line(999n), line(1n)], true);
    expect(sums).toMatchObject({ gross: 1999n, net: 1666n, tax: 333n });
    expect(sums.lines.reduce((a, b) => a + b, 0n)).toBe(1666n);
  });

  it('agree with their lines and with each other to the penny, whatever stands on them', () => {
    fc.assert(
      fc.property(lines, fc.boolean(), (all, hold) => {
        const sums = sumsOf(all, hold);
        expect(sums.lines.reduce((a, b) => a + b, 0n)).toBe(sums.net);
        expect(sums.taxes.reduce((a, t) => a + t.net, 0n)).toBe(sums.net);
        expect(sums.net + sums.tax).toBe(sums.gross);
        const said = all.reduce((a, l) => a + l.amount, 0n);
        expect(hold ? sums.gross : sums.net).toBe(said);
      }),
    );
  });

  it('are those of a credit note with the other sign', () => {
    fc.assert(
      fc.property(lines, fc.boolean(), (all, hold) => {
        const [there, back] = [
          sumsOf(all, hold),
          sumsOf(
            all.map((l) => ({ ...l, amount: -l.amount })),
            hold,
          ),
        ];
        expect([back.net, back.tax, back.gross]).toEqual([-there.net, -there.tax, -there.gross]);
      }),
    );
  });

  it('refuse what is no rate', () => {
    for (const percent of ['', '-5', 'x', '1000000', '20,5']) expect(() => sumsOf([line(1n, percent)], false)).toThrow(RangeError);
  });
});

describe('a share of an amount', () => {
  it('is the whole however it is parted', () => {
    fc.assert(
      fc.property(
        fc.nat(99_999),
        fc.integer({ min: 1, max: 500 }),
        fc.array(fc.integer({ min: 1, max: 60 }), { maxLength: 12 }),
        (price, of, cuts) => {
          const amount = fractionOf(`${price}.333333`);
          let [before, sum] = [0, 0n];
          for (const cut of cuts) {
            const units = Math.min(cut, of - before);
            sum += shareOf(amount, units, before, of);
            before += units;
          }
          sum += shareOf(amount, of - before, before, of);
          expect(sum).toBe(pence(amount));
        },
      ),
    );
  });

  it('is in pence as money is rounded', () => {
    expect([pence(fractionOf('0.005')), pence(fractionOf('-0.005')), penceOf(1_234_999n), microOf(5n)]).toEqual([1n, -1n, 123n, 50_000n]);
    expect(() => shareOf(fractionOf('1'), 1, 0, 0)).toThrow(RangeError);
  });
});

describe('a payment', () => {
  const open = [
    { code: 'I-0007', open: 5_000n },
    { code: 'I-0008', open: 2_000n },
    { code: 'I-00080', open: 9_000n },
  ];
  it('goes to the invoices that it names, in their order, until it is used up', () => {
    expect(matchPayment(6_000n, 'inv. i-0008 + I-0007, thank you', open)).toEqual([
      { code: 'I-0008', amount: 2_000n },
      { code: 'I-0007', amount: 4_000n },
    ]);
  });
  it('is for none where it names none, or a longer number', () => {
    expect(matchPayment(6_000n, 'thanks', open)).toEqual([]);
    expect(matchPayment(6_000n, 'XI-0007', open)).toEqual([]);
    expect(matchPayment(9_500n, 'I-00080', open)).toEqual([{ code: 'I-00080', amount: 9_000n }]);
    expect(matchPayment(0n, 'I-0007', open)).toEqual([]);
  });
});
