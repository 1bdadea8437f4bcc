import { micro, moneyText } from '@vectrum/core/money';
import type { Dto } from '../../api/client';

/** The foot of a document: net, tax by rate, and what it comes to. */
export function SumsFoot({
  sums,
  currency,
  says = 'To be paid',
}: {
  sums: Pick<Dto['PreviewDto'], 'taxes' | 'net' | 'tax' | 'gross'>;
  currency: string;
  says?: string;
}) {
  const money = (amount: string) => moneyText(micro(amount), currency);
  return (
    <table className="text-right self-start" style={{ width: 'auto' }} aria-label="Sums">
      <tbody>
        <tr>
          <td className="pr-6 mid">Without tax</td>
          <td>{money(sums.net)}</td>
        </tr>
        {sums.taxes.map((t) => (
          <tr key={`${t.taxCode}/${t.percent}`}>
            <td className="pr-6 mid">
              {t.taxCode || 'No tax'}, {t.percent} % on {money(t.net)}
            </td>
            <td>{money(t.tax)}</td>
          </tr>
        ))}
        <tr>
          <td className="pr-6 pt-1">
            <b>{says}</b>
          </td>
          <td className="pt-1" style={{ fontSize: 18 }}>
            <b>{money(sums.gross)}</b>
          </td>
        </tr>
      </tbody>
    </table>
  );
}
