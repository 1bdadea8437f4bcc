import type { Dto } from '../../api/client';
import { plural } from '../../ui/format';
import { LinesTable } from '../../ui/table';

type Share = Dto['ShareDto'];

function Figure({ says, share, of }: { says: string; share: Share; of: string }) {
  const percent = share.of === 0 ? null : Math.round((share.good * 100) / share.of);
  return (
    <tr>
      <td>{says}</td>
      <td className="num">
        <b>{percent === null ? '–' : `${percent} %`}</b>
      </td>
      <td>
        <span className="note">
          {share.of === 0 ? 'nothing to go by yet' : `${share.good.toLocaleString('en-GB')} of ${share.of.toLocaleString('en-GB')} ${of}`}
        </span>
      </td>
    </tr>
  );
}

/** How a supplier has done over the last year, with what each figure counts. */
export function Scorecard({ card, stated }: { card: Dto['ScorecardDto']; stated: number }) {
  return (
    <LinesTable aria-label="How they did">
      <thead>
        <tr>
          <th>The last year, {plural(card.orders, 'order', 'orders')} done with</th>
          <td />
          <td />
        </tr>
      </thead>
      <tbody>
        <Figure says="On time" share={card.onTime} of="lines by their day" />
        <Figure says="In full" share={card.inFull} of="lines, none closed short" />
        <Figure says="Price held" share={card.priceHeld} of="lines at the price ordered" />
        <Figure says="Unharmed" share={card.unharmed} of="units came in good condition" />
        <tr>
          <td>Lead time</td>
          <td className="num">
            <b>{card.leadDays === null ? '–' : `${card.leadDays} d`}</b>
          </td>
          <td>
            <span className="note">from placing to the first goods, on average; they state {stated} d</span>
          </td>
        </tr>
      </tbody>
    </LinesTable>
  );
}
