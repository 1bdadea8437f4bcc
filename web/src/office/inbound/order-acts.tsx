import { useAct } from '../../api/use-act';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../api/client';
import { useMe } from '../../api/queries';
import { Glyph } from '../../ui/glyph';
import { ProblemNote } from '../../ui/states';
import { TextButton, Button, ButtonLink, ButtonAnchor, TextLink, TextAnchor } from '../../ui/button';
import { Input } from '../../ui/input';
import { Acts } from '../../ui/page';

type Order = Dto['PurchaseOrderDto'];
type Act = 'place' | 'cancel' | 'close';

function useActs(order: Order) {
  const navigate = useNavigate();
  const params = { path: { code: order.code } };
  const headers = ifMatch(order.version);
  const act = useAct({
    act: (name: Act, once) => {
      switch (name) {
        case 'place':
          return ask(api.POST('/api/purchase-orders/{code}/place', { params, headers: { ...once, ...headers } }));
        case 'cancel':
          return ask(api.POST('/api/purchase-orders/{code}/cancel', { params, headers: { ...once, ...headers } }));
        case 'close':
          return ask(api.POST('/api/purchase-orders/{code}/close', { params, headers: { ...once, ...headers } }));
      }
    },
  });
  const onDone = ({ code }: { code: string }) => void navigate(`/inbound/${code}`);
  const copy = useAct({ act: (_: void, once) => ask(api.POST('/api/purchase-orders/{code}/copy', { params, headers: once })), onDone });
  const merge = useAct({
    act: (other: string, once) =>
      ask(api.POST('/api/purchase-orders/{code}/merge', { params, headers: { ...once, ...headers }, body: { other } })),
  });
  const split = useAct({
    act: (lines: number[], once) =>
      ask(api.POST('/api/purchase-orders/{code}/split', { params, headers: { ...once, ...headers }, body: { lines } })),
    onDone,
  });
  return { act, copy, merge, split };
}

/** "1, 3" as numbers of lines. */
const numbers = (text: string) =>
  text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map(Number);

/** Bringing drafts together and taking one apart. */
function DraftTools({ merge, split }: Pick<ReturnType<typeof useActs>, 'merge' | 'split'>) {
  const [open, setOpen] = useState<'merge' | 'split' | null>(null);
  const [text, setText] = useState('');
  if (open === null)
    return (
      <>
        <TextButton type="button" onClick={() => setOpen('merge')}>
          Bring another draft in
        </TextButton>
        <TextButton type="button" onClick={() => setOpen('split')}>
          Take lines out
        </TextButton>
      </>
    );
  const go = () => (open === 'merge' ? merge.mutate(text.trim()) : split.mutate(numbers(text)));
  return (
    <form
      className="flex gap-2 items-center"
      onSubmit={(e) => {
        e.preventDefault();
        go();
      }}
    >
      <Input
        className="code"
        autoFocus
        aria-label={open === 'merge' ? 'Draft to bring in' : 'Lines to take out'}
        placeholder={open === 'merge' ? 'P-1187' : 'lines 1, 3'}
        style={{ width: 110 }}
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <Button disabled={text.trim() === ''}>{open === 'merge' ? 'Bring it in' : 'Onto a new draft'}</Button>
      <TextButton type="button" onClick={() => setOpen(null)}>
        Leave it
      </TextButton>
    </form>
  );
}

/** Labels that a run prints at most: more are a run of their own. */
const MOST_LABELS = 200;

/** A label for each pack that is still to come, saying how many are in it. */
export function labelCodes(order: Pick<Order, 'lines'>): string {
  return order.lines
    .flatMap((l) => {
      const packs = Math.ceil(Math.max(0, l.ordered - l.closed - l.received) / l.factor);
      return Array.from({ length: Math.min(packs, MOST_LABELS) }, () => (l.factor > 1 ? `${l.sku}×${l.factor}` : l.sku));
    })
    .slice(0, MOST_LABELS)
    .join(',');
}

/** What can be done with an order, by its state. */
export function OrderActs({ order }: { order: Order }) {
  const me = useMe();
  const navigate = useNavigate();
  const { act, copy, merge, split } = useActs(order);
  const buys = me.data?.rights.includes('buy') ?? false;
  const receives = me.data?.rights.includes('receive') ?? false;
  const next = order.lines.find((l) => l.ordered - l.closed > l.received);
  const draft = order.state === 'draft';
  const waiting = order.state === 'placed' || order.state === 'part-received';
  return (
    <>
      <ProblemNote problem={act.error ?? copy.error ?? merge.error ?? split.error} />
      <Acts>
        {draft && buys && (
          <Button type="button" next onClick={() => act.mutate('place')} disabled={act.isPending}>
            Place with {order.supplier} <Glyph name="go" size={13} />
          </Button>
        )}
        {waiting && next && receives && (
          <ButtonLink to={`/floor/receive/${order.code}`} next>
            Book in line {next.line} <Glyph name="go" size={13} />
          </ButtonLink>
        )}
        {(draft || waiting) && buys && (
          <Button type="button" onClick={() => void navigate(`/inbound/${order.code}/edit`)}>
            {draft ? 'Rewrite' : 'Change'}
          </Button>
        )}
        <ButtonAnchor href={`/api/purchase-orders/${order.code}/pdf`} target="_blank" rel="noreferrer">
          <Glyph name="print" /> Order paper
        </ButtonAnchor>
        {(draft || waiting) && (
          <TextLink to={`/setup/labels/print?subject=item&codes=${encodeURIComponent(labelCodes(order))}`} data-print>
            Labels beforehand
          </TextLink>
        )}
        {buys && (
          <>
            {order.goods !== undefined && <TextAnchor href={`/api/purchase-orders/${order.code}/ubl`}>UBL</TextAnchor>}
            <TextButton type="button" onClick={() => copy.mutate()} disabled={copy.isPending}>
              Copy
            </TextButton>
            {draft && <DraftTools merge={merge} split={split} />}
            {(order.state === 'part-received' || order.state === 'received') && (
              <TextButton type="button" onClick={() => act.mutate('close')} disabled={act.isPending}>
                {next ? 'Close it short' : 'Close it'}
              </TextButton>
            )}
            {(draft || order.state === 'placed') && (
              <TextButton type="button" onClick={() => act.mutate('cancel')} disabled={act.isPending}>
                Cancel the order
              </TextButton>
            )}
          </>
        )}
      </Acts>
    </>
  );
}
