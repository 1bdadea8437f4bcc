import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe, useSite } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { plural, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { BlockHead, Page, Sentence } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { ChooseCell, DenseTable, LinesTable, PictureCell } from '../../ui/table';
import { itemPath } from '../item-path';
import { homesAfter } from './slotting-homes';
import { ShelvesWords } from './shelves-words';

type Slotting = Dto['SlottingDto'];

/** Which goods should change their pick faces so that pickers walk less, and what is still to be carried there. */
export function SlottingPage() {
  const { site } = useSite();
  const query = useQuery({
    queryKey: key('slotting', site?.id),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/slotting', { params: { path: { siteId: site?.id ?? 0 } } })),
    enabled: site !== undefined,
  });
  return (
    <Page aria-label="Slotting">
      <h1 className="sr">Slotting</h1>
      <ShelvesWords at="slotting" />
      <Shown query={query}>
        {(slotting) => (
          <>
            <Advice key={JSON.stringify(slotting.moves)} slotting={slotting} siteId={site?.id ?? 0} />
            <OffHome goods={slotting.offHome} />
          </>
        )}
      </Shown>
    </Page>
  );
}

/** What the walks say in a sentence, with all that is proposed done. */
function says({ orders, weeks, metresAWeek, metresAfter, moves }: Slotting): string {
  const were = `${plural(orders, 'order', 'orders')} of ${weeks < 1.5 ? 'the last week' : `the last ${Math.round(weeks)} weeks`} walk ${whole(metresAWeek)} m a week, each picked alone`;
  if (moves.length === 0) return `${were}. No single change of places would save a metre.`;
  return `${were}. With ${plural(moves.length, 'change', 'changes')} of places it would be ${whole(metresAfter)} m: ${whole(metresAWeek - metresAfter)} m less.`;
}

function Advice({ slotting, siteId }: { slotting: Slotting; siteId: number }) {
  const me = useMe();
  const may = me.data?.rights.includes('items') ?? false;
  const { moves } = slotting;
  // Each saves what it says once those before it are made: they are made from the first on.
  const [first, setFirst] = useState(moves.length);
  const change = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/items/homes', { body: { siteId, homes: homesAfter(moves.slice(0, first)) }, headers: once })),
  });
  if (slotting.orders === 0)
    return (
      <Empty title="No order says yet where goods should stand">
        Once orders of the last eight weeks want goods that have a pick face on the plan, this page says what should stand nearer, and what
        should stand side by side.
      </Empty>
    );
  return (
    <section aria-label="Changes of places">
      <Sentence>{says(slotting)}</Sentence>
      {moves.length > 0 && (
        <>
          <LinesTable className="mt-3">
            <thead>
              <tr>
                {may && <td />}
                <td />
                <th>Goods</th>
                <th className="num">Orders a week</th>
                <th>Stands at</th>
                <th>Goes to</th>
                <th>Comes to its place</th>
                <th className="num">To carry</th>
                <th className="num">Metres a week</th>
              </tr>
            </thead>
            <tbody>
              {moves.map((m, i) => (
                <tr key={`${m.sku} ${m.to}`}>
                  {may && <ChooseCell says={`${m.item} to ${m.to}`} checked={i < first} onChoose={(on) => setFirst(on ? i + 1 : i)} />}
                  <PictureCell>
                    <Picture name={m.picture} size={30} />
                  </PictureCell>
                  <td>
                    <Link to={itemPath(m.sku)}>
                      <b>{m.item}</b>
                    </Link>
                    <span className="note code">{m.sku}</span>
                  </td>
                  <td className="num">{m.ordersAWeek}</td>
                  <td className="code">{m.from}</td>
                  <td className="code strong">{m.to}</td>
                  <td>
                    {m.changeSku ? (
                      <Link to={itemPath(m.changeSku)}>{m.changeItem}</Link>
                    ) : (
                      <span className="mid">nothing, it is empty</span>
                    )}
                  </td>
                  <td className="num">{whole(m.units + m.changeUnits)}</td>
                  <td className="num">
                    <b>−{whole(m.metresAWeek)}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </LinesTable>
          <ProblemNote problem={change.error} />
          {may && (
            <div className="flex flex-wrap gap-4 items-center mt-4">
              <Button type="button" next disabled={first === 0 || change.isPending} onClick={() => change.mutate()}>
                {first === moves.length ? 'Make these changes' : `Make the first ${first}`}
              </Button>
              <span className="note">gives them their new pick faces; the goods are then carried over with a phone</span>
            </div>
          )}
        </>
      )}
    </section>
  );
}

/** What lies at a face that is another’s: to be carried to its own by two scans. */
function OffHome({ goods }: { goods: Slotting['offHome'] }) {
  if (goods.length === 0) return null;
  return (
    <section aria-label="To be carried over">
      <BlockHead className="mt-6">
        <h2>To be carried over</h2>
        <span className="note">lies at a pick face that is another’s</span>
      </BlockHead>
      <DenseTable>
        <thead>
          <tr>
            <th>Goods</th>
            <th className="num">How many</th>
            <th>Lies at</th>
            <th>Its pick face</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {goods.map((g) => (
            <tr key={`${g.sku} ${g.from}`}>
              <td>
                <Link to={itemPath(g.sku)}>{g.item}</Link>
              </td>
              <td className="num">{whole(g.units)}</td>
              <td className="code">{g.from}</td>
              <td className="code strong">{g.to}</td>
              <td className="num">
                <Link to={`/floor/move/${g.from}`}>
                  Carry it over <Glyph name="go" size={12} />
                </Link>
              </td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}
