import { useQuery } from '@tanstack/react-query';
import { withinBudget } from '@vectrum/core/replenish';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe, useSite } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { ExportLinks } from '../../ui/export-links';
import { day, plural, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { ListPage, useBeside } from '../../ui/list-page';
import { BlockHead, Said, Sentence } from '../../ui/page';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { DenseTable } from '../../ui/table';
import { Basket, planPath } from './basket';
import { type Choices, firstChoices, type Line, lineKey, packsOf, takenOf } from './buying';
import { PlanWords } from './plan-words';
import { SiteWords } from './site-words';

type Buying = Dto['BuyingDto'];

/** The morning's buying: what is due from whom, what happens without it, and drafts of it in one act. */
export function BuyingPage() {
  const { site } = useSite();
  const siteId = site?.id ?? 0;
  const query = useQuery({
    queryKey: key('buying', siteId),
    queryFn: () => ask(api.GET('/api/buying/sites/{siteId}', { params: { path: { siteId } } })),
    enabled: site !== undefined,
    refetchInterval: ({ state }) => (state.data && state.data.planning > 0 ? 3_000 : false),
  });
  return (
    <ListPage title="To buy" width={620}>
      <PlanWords at="buy">
        <SiteWords />
        <ExportLinks list="buying" query={{ site: String(siteId) }} />
      </PlanWords>
      <Shown query={query}>{(buying) => <Proposals key={siteId} buying={buying} />}</Shown>
    </ListPage>
  );
}

/** What it comes to, in a sentence. */
function says({ suppliers, site }: Buying): string {
  const due = suppliers.flatMap((s) => s.lines.filter((l) => l.isDue));
  if (due.length === 0) return `Nothing has to be ordered for ${site} today`;
  const first = due.reduce<Line | null>((soonest, l) => ((l.runsOutOn ?? '9') < (soonest?.runsOutOn ?? '9') ? l : soonest), null);
  const what = `${plural(due.length, 'item', 'items')} from ${plural(suppliers.length, 'supplier', 'suppliers')} should be ordered for ${site}`;
  return first?.runsOutOn ? `${what}; ${first.name} runs out first, on ${day(first.runsOutOn)}` : what;
}

function Proposals({ buying }: { buying: Buying }) {
  const beside = useBeside();
  const { sku: open } = useParams();
  const [choices, setChoices] = useState<Choices>(() => firstChoices(buying));
  const [made, setMade] = useState<readonly string[]>([]);
  const { siteId, suppliers } = buying;
  const taken = suppliers.flatMap((s) => takenOf(choices, s).map((t) => ({ ...t, supplier: s.code })));
  const isWrong = suppliers.some((s) =>
    s.lines.some((l) => !choices.left.has(lineKey(s.code, l.sku)) && packsOf(choices, s.code, l) === null),
  );
  const orders = new Set(taken.map((t) => t.supplier)).size;
  const take = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/buying/take', {
          body: { siteId, asOf: buying.asOf, lines: taken.map((t) => ({ sku: t.line.sku, supplier: t.supplier, packs: t.packs })) },
          headers: once,
        }),
      ),
    onDone: ({ orders }) => {
      setMade(orders);
      setChoices(firstChoices(buying));
    },
  });
  const leave = (supplier: string, line: Line, isLeft: boolean) =>
    setChoices((was) => {
      const left = new Set(was.left);
      if (isLeft) left.add(lineKey(supplier, line.sku));
      else left.delete(lineKey(supplier, line.sku));
      return { ...was, left };
    });
  return (
    <>
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mt-2">
        <Sentence>{says(buying)}</Sentence>
        <Planning buying={buying} />
      </div>
      {made.length > 0 && (
        <Said role="status">
          Drafted:{' '}
          {made.map((code) => (
            <Link key={code} className="code mr-3" to={`/inbound/${code}`}>
              {code}
            </Link>
          ))}{' '}
          They go to the suppliers when they are placed.
        </Said>
      )}
      {!beside && <Exceptions buying={buying} />}
      {suppliers.map((s) => (
        <Basket
          key={s.code}
          supplier={s}
          today={buying.today}
          siteId={siteId}
          open={open}
          beside={beside}
          choices={choices}
          onPacks={(line, packs) => setChoices((was) => ({ ...was, packs: { ...was.packs, [lineKey(s.code, line.sku)]: packs } }))}
          onLeave={(line, isLeft) => leave(s.code, line, isLeft)}
        />
      ))}
      <ProblemNote problem={take.error} />
      {suppliers.length > 0 && (
        <div className="flex flex-wrap gap-4 items-center mt-4">
          <Button type="button" next disabled={taken.length === 0 || isWrong || take.isPending} onClick={() => take.mutate()}>
            {taken.length === 0
              ? 'Nothing is chosen'
              : `Draft ${plural(orders, 'order', 'orders')}, ${plural(taken.length, 'line', 'lines')}`}
          </Button>
          <Budget buying={buying} choices={choices} onChoose={setChoices} />
        </div>
      )}
      <Others
        title="To be built here"
        note="parts are gathered for an assembly"
        lines={buying.built}
        to="/shelves/builds/new"
        says="Plan it"
      />
      <Others
        title="Due, and nobody sells it"
        note="no supplier has a price for it"
        lines={buying.unsourced}
        to="/inbound/suppliers"
        says="Suppliers"
      />
      <PutOffList buying={buying} />
      {buying.items === 0 && (
        <Empty title="Nothing is planned here yet">
          Items are planned once somebody has asked for them. Sold before you began here? Take in past demand under Setup, Imports.
        </Empty>
      )}
    </>
  );
}

/** How far planning is, and the way to have it done now. */
function Planning({ buying }: { buying: Buying }) {
  const again = useAct({
    act: (_: void, once) => ask(api.POST('/api/buying/plan-again', { body: { siteId: buying.siteId }, headers: once })),
  });
  if (buying.planning > 0)
    return (
      <span className="note" role="status">
        {whole(buying.planning)} of {whole(buying.items)} items are being planned anew
      </span>
    );
  return (
    <>
      <span className="note">of {plural(buying.items, 'item', 'items')} that are planned</span>
      <TextButton type="button" disabled={again.isPending} onClick={() => again.mutate()}>
        Plan anew now
      </TextButton>
      <ProblemNote problem={again.error} />
    </>
  );
}

/** What is not as it was planned: to be looked at before anything is ordered. */
function Exceptions({ buying: { exceptions } }: { buying: Buying }) {
  const [all, setAll] = useState(false);
  if (exceptions.length === 0) return null;
  const shown = all ? exceptions : exceptions.slice(0, 4);
  return (
    <section aria-label="Look at these first" className="mt-4">
      <BlockHead>
        <h2>Look at these first</h2>
      </BlockHead>
      <ul>
        {shown.map((e) => (
          <li key={e.sku} className="flex gap-2 items-center py-1">
            <Glyph name={e.what === 'late' ? 'blocked' : 'held'} size={14} />
            <Link to={planPath(e.sku)}>
              <b>{e.name}</b>
            </Link>
            <span className={e.what === 'late' ? 'stamped' : 'mid'}>{e.says}</span>
          </li>
        ))}
      </ul>
      {exceptions.length > shown.length && (
        <TextButton type="button" onClick={() => setAll(true)}>
          {exceptions.length - shown.length} more
        </TextButton>
      )}
    </section>
  );
}

/** Leaves out what a sum of money does not reach to, what runs out last first. */
function Budget({ buying, choices, onChoose }: { buying: Buying; choices: Choices; onChoose: (choices: Choices) => void }) {
  const me = useMe();
  const [sum, setSum] = useState('');
  if (me.data?.seesCosts !== true) return null;
  const reach = () => {
    const lines = buying.suppliers.flatMap((s) =>
      s.lines.map((line) => ({
        id: lineKey(s.code, line.sku),
        daysLeft: line.isDue ? Date.parse(line.runsOutOn ?? '2999-01-01') : Infinity,
        worth: (packsOf(choices, s.code, line) ?? 0) * line.factor * Number(line.unitCost ?? 0),
      })),
    );
    const bought = new Set(withinBudget(lines, Number(sum)).map((l) => l.id));
    onChoose({ ...choices, left: new Set(lines.filter((l) => !bought.has(l.id)).map((l) => l.id)) });
  };
  return (
    <form
      className="flex gap-2 items-center"
      onSubmit={(e) => {
        e.preventDefault();
        reach();
      }}
    >
      <label className="note" htmlFor="budget">
        no more than {me.data.homeCurrency}
      </label>
      <Input id="budget" className="w-[100px]" inputMode="decimal" value={sum} onChange={(e) => setSum(e.target.value)} />
      <TextButton type="submit" disabled={!(Number(sum) > 0)}>
        Choose the most urgent
      </TextButton>
    </form>
  );
}

/** What is due and is no order to a supplier. */
function Others({ title, note, lines, to, says }: { title: string; note: string; lines: readonly Line[]; to: string; says: string }) {
  if (lines.length === 0) return null;
  return (
    <section aria-label={title} className="mt-6">
      <BlockHead>
        <h2>{title}</h2>
        <span className="note">{note}</span>
      </BlockHead>
      <DenseTable>
        <tbody>
          {lines.map((l) => (
            <tr key={l.sku}>
              <td>
                <Link to={planPath(l.sku)}>
                  <b>{l.name}</b>
                </Link>
              </td>
              <td className="num">{plural(l.units, l.unit, l.unitPlural)}</td>
              <td>{l.runsOutOn ? `runs out ${day(l.runsOutOn)}` : ''}</td>
              <td className="num">
                <Link to={to.endsWith('new') ? `${to}?sku=${encodeURIComponent(l.sku)}&units=${l.units}` : to}>
                  {says} <Glyph name="go" size={12} />
                </Link>
              </td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}

/** What was put off, and can be proposed again. */
function PutOffList({ buying: { putOff, siteId } }: { buying: Buying }) {
  const back = useAct({ act: (sku: string, once) => ask(api.POST('/api/buying/bring-back', { body: { siteId, sku }, headers: once })) });
  if (putOff.length === 0) return null;
  return (
    <section aria-label="Put off" className="mt-6">
      <BlockHead>
        <h2>Put off</h2>
      </BlockHead>
      <DenseTable>
        <tbody>
          {putOff.map((p) => (
            <tr key={p.sku}>
              <td>
                <Link to={planPath(p.sku)}>
                  <b>{p.name}</b>
                </Link>
              </td>
              <td>until {day(p.until)}</td>
              <td className="mid">{p.why}</td>
              <td className="mid">{p.by}</td>
              <td className="num">
                <TextButton
                  type="button"
                  aria-label={`Propose ${p.name} again`}
                  disabled={back.isPending}
                  onClick={() => back.mutate(p.sku)}
                >
                  Propose it again
                </TextButton>
              </td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
      <ProblemNote problem={back.error} />
    </section>
  );
}
