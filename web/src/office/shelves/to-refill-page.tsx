import { useSite } from '../../api/queries';
import { useBook } from '../../flow/book';
import { useTask } from '../../flow/tasks';
import { ButtonLink } from '../../ui/button';
import { plural, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Page } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { GoodsTable } from './goods-table';
import { ShelvesWords } from './shelves-words';

/** What lies in reserve and is wanted where pickers go, what holds up a departure first. */
export function ToRefillPage() {
  const { site } = useSite();
  const book = useBook(site?.id);
  const task = useTask('refill', site?.id);
  return (
    <Page aria-label="To refill">
      <h1 className="sr">To refill</h1>
      <ShelvesWords at="refill">
        {task.data && task.data.task.metres > 0 && (
          <span className="note">in the order of one walk for each departure, {task.data.task.metres} m</span>
        )}
        <ButtonLink to="/floor/refill" next>
          Refill on the phone <Glyph name="go" size={13} />
        </ButtonLink>
      </ShelvesWords>
      <Shown query={task}>
        {({ task: t }) =>
          t.goods.length === 0 ? (
            <Empty title="Nothing to bring">
              What orders wait for and no pick face has shows here while the reserve has it; so does what runs low, for items that say below
              how many their pick face is refilled.
            </Empty>
          ) : (
            <>
              <GoodsTable
                goods={t.goods}
                items={book.data?.items}
                from="Lies in"
                whyHead="Wanted for"
                why={(g) =>
                  g.leavesAt === null ? 'the pick face runs low' : `${plural(g.orders, 'order', 'orders')} leaving ${when(g.leavesAt)}`
                }
              />
              {t.more > 0 && <p className="note mt-3">And {plural(t.more, 'more lot', 'more lots')} of goods, once these are brought.</p>}
            </>
          )
        }
      </Shown>
    </Page>
  );
}
