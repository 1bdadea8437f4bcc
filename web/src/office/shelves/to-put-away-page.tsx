import { spell } from '@vectrum/core/quantity';
import { goodsKey, whyThere } from '@vectrum/core/scan';

import { useMe } from '../../api/queries';
import { useBook } from '../../flow/book';
import { useTask } from '../../flow/tasks';
import { Glyph } from '../../ui/glyph';
import { Picture } from '../../ui/picture';
import { Empty, Shown } from '../../ui/states';
import { ShelvesWords } from './shelves-words';
import { Page } from '../../ui/page';
import { ButtonLink } from '../../ui/button';
import { LinesTable, PictureCell } from '../../ui/table';

/** What stands on the dock and where it should go. */
export function ToPutAwayPage() {
  const me = useMe();
  const siteId = me.data?.sites[0]?.id;
  const book = useBook(siteId);
  const task = useTask('store', siteId);
  return (
    <Page aria-label="To put away">
      <h1 className="sr">To put away</h1>
      <ShelvesWords at="store">
        {task.data && task.data.task.metres > 0 && <span className="note">in the order of one walk, {task.data.task.metres} m</span>}
        <ButtonLink to="/floor/store" next>
          Put away on the phone <Glyph name="go" size={13} />
        </ButtonLink>
      </ShelvesWords>
      <Shown query={task}>
        {({ task: t }) =>
          t.goods.length === 0 ? (
            <Empty title="The dock is clear">What is received to the dock shows here until it has a bin.</Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <th>Goods</th>
                  <th className="num">How many</th>
                  <th>Stands at</th>
                  <th>Goes to</th>
                  <th>Why there</th>
                </tr>
              </thead>
              <tbody>
                {t.goods.map((g) => {
                  const item = book.data?.items[g.itemId];
                  return (
                    <tr key={goodsKey(g)}>
                      <PictureCell>
                        <Picture name={item?.picture} size={30} />
                      </PictureCell>
                      <td>
                        <b>{item?.name}</b>
                        <span className="note">{g.lot && `lot ${g.lot}`}</span>
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
                      <td className="mid">{item && g.suggestion && whyThere(g, g.units, item)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
    </Page>
  );
}
