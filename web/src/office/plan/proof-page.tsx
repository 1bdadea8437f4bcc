import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe, useSite } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { day, plural, when, whole } from '../../ui/format';
import { BlockHead, Page, Sentence } from '../../ui/page';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { DenseTable, LinesTable } from '../../ui/table';
import { planPath } from './basket';
import { PlanWords } from './plan-words';
import { SiteWords } from './site-words';

type Outcome = Dto['RuleOutcomeDto'];

const RULES: Readonly<Record<Outcome['rule'], readonly [name: string, note: string]>> = {
  planned: ['As it is planned here', 'each plan made only of what was known then'],
  cover: ['Six weeks’ cover', 'ordered when half of it is left, by the last quarter’s mean'],
  fixed: ['Points set by hand', 'as they stand at the items now'],
};

/** What the last year would have been by these plans and by plain rules. */
export function ProofPage() {
  const { site } = useSite();
  const siteId = site?.id ?? 0;
  const query = useQuery({
    queryKey: key('back-test', siteId),
    queryFn: () => ask(api.GET('/api/buying/sites/{siteId}/back-test', { params: { path: { siteId } } })),
    enabled: site !== undefined,
    refetchInterval: ({ state }) => (state.data?.latest && !state.data.latest.isOver ? 1_500 : false),
  });
  const run = useAct({ act: (_: void, once) => ask(api.POST('/api/buying/back-tests', { body: { siteId }, headers: once })) });
  return (
    <Page aria-label="Proof">
      <h1 className="sr">Proof</h1>
      <PlanWords at="proof">
        <SiteWords />
      </PlanWords>
      <Shown query={query}>
        {({ latest, truth }) => (
          <>
            {latest === null ? (
              <Empty title="Nobody has tried it here yet">
                The last year is lived through again, item by item: what would have been met, ordered, kept and paid if these plans, or a
                plain rule, had decided.
              </Empty>
            ) : (
              <Result latest={latest} />
            )}
            <Truth truth={truth} />
            <ProblemNote problem={run.error} />
            <div className="mt-4">
              <Button
                type="button"
                next={latest === null}
                disabled={run.isPending || (latest !== null && !latest.isOver)}
                onClick={() => run.mutate()}
              >
                {latest === null ? 'Live through the last year' : 'Do it again'}
              </Button>
            </div>
          </>
        )}
      </Shown>
    </Page>
  );
}

function says(rules: readonly Outcome[]): string {
  const [ours, plain] = [rules.find((r) => r.rule === 'planned'), rules.find((r) => r.rule === 'cover')];
  if (!ours || !plain) return 'Too little is known of the last year: half a year is needed to begin with';
  const cost = Math.round((1 - Number(ours.cost) / Math.max(0.01, Number(plain.cost))) * 100);
  const dearer = cost >= 0 ? `${cost} % less` : `${-cost} % more`;
  return `These plans would have met ${ours.metPercent} % of what was asked for, for ${dearer} than six weeks’ cover, which would have met ${plain.metPercent} %`;
}

function Result({ latest }: { latest: NonNullable<Dto['LatestBackTestDto']['latest']> }) {
  const me = useMe();
  const currency = me.data?.homeCurrency ?? '';
  return (
    <>
      <Sentence className="mt-2">
        {latest.isOver ? says(latest.rules) : `${whole(latest.done)} of ${whole(latest.total)} items are lived through`}
      </Sentence>
      {!latest.isOver && (
        <progress className="w-full max-w-[420px]" value={latest.done} max={latest.total} aria-label="Items lived through" />
      )}
      {latest.rules.length > 0 && (
        <LinesTable className="mt-3">
          <thead>
            <tr>
              <th>Rule</th>
              <th className="num">Items</th>
              <th className="num">Met from the shelf</th>
              <th className="num">Orders</th>
              <th className="num">Stock, {currency}</th>
              <th className="num">Ordering and keeping, {currency}</th>
            </tr>
          </thead>
          <tbody>
            {latest.rules.map((r) => (
              <tr key={r.rule}>
                <td>
                  <b>{RULES[r.rule][0]}</b>
                  <span className="note">{RULES[r.rule][1]}</span>
                </td>
                <td className="num">{whole(r.items)}</td>
                <td className="num">{r.metPercent} %</td>
                <td className="num">{whole(r.orders)}</td>
                <td className="num">{whole(Math.round(Number(r.stockValue)))}</td>
                <td className="num">
                  <b>{whole(Math.round(Number(r.cost)))}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </LinesTable>
      )}
      <p className="note mt-2">
        asked for {when(latest.askedAt)} by {latest.by}; orders take what they usually take, what is not there is not sold
      </p>
    </>
  );
}

/** What became of proposals that were taken. */
function Truth({ truth: { proposals, right, expected, asked, asProposed, farthest } }: { truth: Dto['TruthDto'] }) {
  if (proposals === 0) return null;
  const bias = asked > 0 ? Math.round((expected / asked - 1) * 100) : 0;
  const off =
    bias === 0 ? 'and all together as much as was' : `and all together ${Math.abs(bias)} % ${bias > 0 ? 'more' : 'less'} than was`;
  return (
    <section aria-label="What became of proposals" className="mt-6">
      <BlockHead>
        <h2>What became of proposals</h2>
        <span className="note">
          {asProposed} of {proposals} were taken as they were proposed
        </span>
      </BlockHead>
      <Sentence>
        {`Of ${plural(proposals, 'proposal', 'proposals')} whose time is over ${right} were within a third of what was asked for, ${off} asked for`}
      </Sentence>
      <DenseTable className="mt-2">
        <thead>
          <tr>
            <th>Farthest off</th>
            <th>Taken</th>
            <th className="num">Expected</th>
            <th className="num">Asked for</th>
          </tr>
        </thead>
        <tbody>
          {farthest.map((f) => (
            <tr key={`${f.sku} ${f.on}`}>
              <td>
                <Link to={planPath(f.sku)}>{f.name}</Link>
              </td>
              <td>{day(f.on)}</td>
              <td className="num">{whole(f.expected)}</td>
              <td className="num">{whole(f.asked)}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}
