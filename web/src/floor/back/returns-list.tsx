import { useMutation, useQuery } from '@tanstack/react-query';
import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useSite } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { FeedbackBand } from '../../flow/band';
import { day } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Ask, NoItem, PhoneBody, PhoneHead, PhoneItem, PhoneList } from '../../ui/phone/parts';
import { ProblemNote } from '../../ui/states';
import { FloorKeys } from '../keys';
import { usePageScan } from '../scan-context';

type Found = Dto['ReturnFoundDto'];

/** What a customer sent back stands there: its paper, order, parcel, tracking number, the number of a piece, or the goods say whose it is. */
export function ReturnsList() {
  const navigate = useNavigate();
  const { site } = useSite();
  const due = useQuery({
    queryKey: key('customer-returns', 'floor', site?.id),
    queryFn: () => ask(api.GET('/api/customer-returns', { params: { query: { state: 'open', site: String(site?.id ?? '') } } })),
    enabled: site !== undefined,
  });
  const open = useAct({
    act: (of: { code?: string; order?: string; sku?: string }, once) =>
      ask(api.POST('/api/customer-returns/open', { headers: once, body: { siteId: site?.id ?? 0, ...of } })),
    onDone: ({ code }) => navigate(`/floor/returns/${code}`),
  });
  const { mutate } = open;
  const choose = useCallback((f: Found) => mutate(f.code ? { code: f.code } : { order: f.order ?? '' }), [mutate]);
  const found = useMutation({
    mutationFn: (q: string) => ask(api.GET('/api/customer-returns/find', { params: { query: { q } } })),
    // What is named for sure opens at once; goods alone could be anybody's.
    onSuccess: ([only, other]) => {
      if (only?.named && !other) choose(only);
    },
  });
  const { mutate: find, reset } = found;
  usePageScan(useCallback((code: string) => find(code.trim()), [find]));
  const asked = found.variables ?? '';
  const list = found.data;
  return (
    <>
      <FeedbackBand
        feedback={
          list?.length === 0
            ? { band: 'unknown', title: asked, detail: 'No order that has left goes by this. Scan the goods themselves, or type the name' }
            : null
        }
      />
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span />
        <span>Returns</span>
      </PhoneHead>
      <Ask>{list && list.length > 0 ? 'Whose is it?' : 'Scan its paper, label or goods'}</Ask>
      <PhoneBody className="mt-3">
        <ProblemNote problem={open.error ?? found.error} />
        {list && list.length > 0 ? <FoundList list={list} onChoose={choose} /> : <DueList due={due.data?.rows} />}
        {list && isGoods(list, asked) && (
          <PhoneList className="mt-3">
            <li>
              <button type="button" onClick={() => mutate({ sku: asked })}>
                <b>Nobody knows whose</b>
                <Glyph name="go" size={22} />
                <span>Take it in without an order</span>
              </button>
            </li>
          </PhoneList>
        )}
      </PhoneBody>
      <FloorKeys siteId={site?.id} words>
        {asked !== '' && (
          <button type="button" className="f-key" onClick={reset}>
            Back
          </button>
        )}
      </FloorKeys>
    </>
  );
}

/** Goods may come back of which nobody knows the order: what was scanned is no document's. */
const isGoods = (list: readonly Found[], asked: string) => asked !== '' && !list.some((f) => f.named);

function FoundList({ list, onChoose }: { list: readonly Found[]; onChoose: (f: Found) => void }) {
  return (
    <PhoneList>
      {list.map((f, i) => (
        <PhoneItem key={`${f.code}/${f.order}`} next={i === 0}>
          <button type="button" onClick={() => onChoose(f)}>
            <b>{f.customer}</b>
            <span className="code">{f.code ?? f.order}</span>
            <span>
              {f.goods}
              {f.leftAt && `, left ${day(f.leftAt)}`}
            </span>
          </button>
        </PhoneItem>
      ))}
    </PhoneList>
  );
}

function DueList({ due }: { due: readonly Dto['CustomerReturnRowDto'][] | undefined }) {
  return (
    <PhoneList>
      {due?.length === 0 && <NoItem>None is announced. What stands here all the same is found by its label.</NoItem>}
      {due?.map((r) => (
        <li key={r.code}>
          <Link to={`/floor/returns/${r.code}`}>
            <b>{r.customer}</b>
            <span className="code">{r.code}</span>
            <span>
              {r.state === 'here' ? 'Here, ' : ''}
              {r.goods}
              {r.lines > 1 && ` and ${r.lines - 1} more`}
            </span>
          </Link>
        </li>
      ))}
    </PhoneList>
  );
}
