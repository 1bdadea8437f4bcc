import { whyThere } from '@vectrum/core/scan';
import { useSite } from '../../api/queries';
import { useBook } from '../../flow/book';
import { useTask } from '../../flow/tasks';
import { ButtonLink } from '../../ui/button';
import { Glyph } from '../../ui/glyph';
import { Page } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { GoodsTable } from './goods-table';
import { ShelvesWords } from './shelves-words';

/** What stands on the dock and where it should go. */
export function ToPutAwayPage() {
  const { site } = useSite();
  const book = useBook(site?.id);
  const task = useTask('store', site?.id);
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
            <Empty title="Nothing waits to be put away">What is received to the dock shows here until it has a bin.</Empty>
          ) : (
            <GoodsTable
              goods={t.goods}
              items={book.data?.items}
              from="Stands at"
              whyHead="Why there"
              why={(g, item) => (g.suggestion ? whyThere(g, g.units, item) : '')}
            />
          )
        }
      </Shown>
    </Page>
  );
}
