import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { when } from '../../ui/format';
import { Input } from '../../ui/input';
import { Acts } from '../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { UNREAD_STATES } from '../../ui/unread-table';

const BACK = '/inbound/unread';

/** One document that could not be taken in, as it came. */
export function UnreadDocumentSheet() {
  const { id = '' } = useParams();
  const query = useQuery({
    queryKey: key('unread-documents', id),
    queryFn: () => ask(api.GET('/api/unread-documents/{id}', { params: { path: { id: Number(id) } } })),
  });
  return (
    <ShownSheet query={query} back={BACK}>
      {(d) => (
        <Sheet address={`inbound/unread/${d.id}`} title={`A document of ${d.supplier}`} back={BACK}>
          <Waybill
            cells={[
              { cap: 'Supplier', value: <Link to={`/inbound/suppliers/${d.supplierCode}`}>{d.supplier}</Link> },
              { cap: 'Came', value: when(d.cameAt) },
              {
                cap: 'State',
                value: UNREAD_STATES[d.state] ?? d.state,
                note: d.settledAt ? `${when(d.settledAt)}${d.settledBy ? `, ${d.settledBy}` : ''}` : undefined,
              },
            ]}
          />
          <p className="stamped mt-3">{d.why}</p>
          {d.settledWhy && <p className="mt-3">{d.settledWhy}</p>}
          <pre className="code mt-3 whitespace-pre-wrap break-all" tabIndex={0} aria-label="The document as it came">
            {d.text}
          </pre>
          {d.state === 'waiting' && <Settle document={d} />}
        </Sheet>
      )}
    </ShownSheet>
  );
}

function Settle({ document: d }: { document: Dto['UnreadDocumentDto'] }) {
  const [why, setWhy] = useState('');
  const at = (once: Record<string, string>) => ({ params: { path: { id: d.id } }, headers: { ...once, ...ifMatch(d.version) } });
  const takeIn = useAct({ act: (_: void, once) => ask(api.POST('/api/unread-documents/{id}/take-in', at(once))) });
  const setAside = useAct({
    act: (_: void, once) => ask(api.POST('/api/unread-documents/{id}/set-aside', { ...at(once), body: { why } })),
  });
  return (
    <>
      <ProblemNote problem={takeIn.error ?? setAside.error} />
      <Acts>
        <Button type="button" disabled={takeIn.isPending} onClick={() => takeIn.mutate()}>
          Take it in once more
        </Button>
        <span className="flex gap-3 items-end flex-wrap grow">
          <Field label="Or set it aside, because">
            <Input maxLength={200} value={why} onChange={(e) => setWhy(e.target.value)} placeholder="they sent it again by mail" />
          </Field>
          <Button type="button" disabled={why.trim() === '' || setAside.isPending} onClick={() => setAside.mutate()}>
            Set it aside
          </Button>
        </span>
      </Acts>
    </>
  );
}
