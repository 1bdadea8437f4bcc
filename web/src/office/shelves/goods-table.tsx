import { spell } from '@vectrum/core/quantity';
import { goodsKey, type ItemFacts, type StandingGoods } from '@vectrum/core/scan';
import { Link } from 'react-router';
import { Picture } from '../../ui/picture';
import { LinesTable, PictureCell } from '../../ui/table';
import { itemPath } from '../item-path';

/** Goods that have to be brought somewhere: what, how many, from where to where, and why. */
export function GoodsTable<G extends StandingGoods>({
  goods,
  items,
  from,
  whyHead,
  why,
}: {
  goods: readonly G[];
  items: Readonly<Record<string, ItemFacts>> | undefined;
  /** The head over where they are now. */
  from: string;
  whyHead: string;
  why: (goods: G, item: ItemFacts) => string;
}) {
  return (
    <LinesTable>
      <thead>
        <tr>
          <td />
          <th>Goods</th>
          <th className="num">How many</th>
          <th>{from}</th>
          <th>Goes to</th>
          <th>{whyHead}</th>
        </tr>
      </thead>
      <tbody>
        {goods.map((g) => {
          const item = items?.[g.itemId];
          return (
            <tr key={goodsKey(g)}>
              <PictureCell>
                <Picture name={item?.picture} size={30} />
              </PictureCell>
              <td>
                {item && (
                  <Link to={itemPath(item.sku)}>
                    <b>{item.name}</b>
                  </Link>
                )}
                <span className="note code">{g.lot}</span>
              </td>
              <td className="num">
                <b>{item && spell(g.units, item.packs)}</b>
              </td>
              <td className="code">{g.fromCode}</td>
              <td className="code strong">
                {g.suggestion?.code ?? 'no bin free'}
                {g.then.map((t) => (
                  <span key={t.code} className="note">
                    then {t.code}
                  </span>
                ))}
              </td>
              <td className="mid">{item && why(g, item)}</td>
            </tr>
          );
        })}
      </tbody>
    </LinesTable>
  );
}
