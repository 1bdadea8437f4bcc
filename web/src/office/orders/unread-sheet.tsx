import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { when } from '../../ui/format';
import { Input } from '../../ui/input';
import { AreaField } from '../../ui/record/fields';
import { RecordBody } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { Sheet, ShownSheet, Waybill } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { readably } from './readably';

type Parked = Dto['ParkedDto'];
const BACK = '/orders/unread';
const WORDS = { text: { label: 'The message' } };

/** One message that could not be understood: as it came, to be mended and taken in, or set aside with the reason. */
export function UnreadSheet() {
  const { id = '' } = useParams();
  const query = useQuery({
    queryKey: key('unread', id),
    queryFn: () => ask(api.GET('/api/parked-messages/{id}', { params: { path: { id: Number(id) } } })),
  });
  return (
    <ShownSheet query={query} back={BACK}>
      {(m) => (
        <Sheet address={`orders/unread/${m.id}`} title={m.ref ?? 'A message without a number'} about={m.channel} back={BACK}>
          <Waybill
            cells={[
              { cap: 'Channel', value: m.channel, note: m.ref ? `their number ${m.ref}` : 'no number to be made out' },
              { cap: 'Came', value: when(m.cameAt) },
              {
                cap: 'State',
                value: m.order ? <Link to={`/orders/${m.order}`}>{m.order}</Link> : m.state === 'waiting' ? 'waits' : 'set aside',
                note: m.settledAt ? `${when(m.settledAt)}${m.settledBy ? `, ${m.settledBy}` : ''}` : undefined,
              },
            ]}
          />
          <p className="stamped mt-3">{m.why}</p>
          {m.state === 'waiting' ? (
            <Mend message={m} />
          ) : (
            <>
              {m.settledWhy && <p className="mt-3">{m.settledWhy}</p>}
              <pre className="code mt-3 whitespace-pre-wrap break-all">{readably(m.raw)}</pre>
            </>
          )}
        </Sheet>
      )}
    </ShownSheet>
  );
}

function Mend({ message: m }: { message: Parked }) {
  const navigate = useNavigate();
  const record = useRecord<{ text: string }, { code: string }>({
    source: { values: { text: readably(m.raw) }, version: m.version },
    save: ({ text }, version, once) =>
      ask(
        api.POST('/api/parked-messages/{id}/take-in', {
          params: { path: { id: m.id } },
          headers: { ...once, ...ifMatch(version ?? m.version) },
          body: { text },
        }),
      ),
    onSaved: ({ code }) => void navigate(`/orders/${code}`),
  });
  const [why, setWhy] = useState('');
  const setAside = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/parked-messages/{id}/set-aside', {
          params: { path: { id: m.id } },
          headers: { ...once, ...ifMatch(m.version) },
          body: { why },
        }),
      ),
    onDone: () => navigate(BACK),
  });
  return (
    <RecordBody
      record={record}
      words={WORDS}
      keep="Take it in as it stands here"
      wide
      more={
        <span className="flex gap-3 items-end flex-wrap">
          <Field label="Or set it aside, because">
            <Input maxLength={200} value={why} onChange={(e) => setWhy(e.target.value)} placeholder="it is a test of theirs" />
          </Field>
          <Button type="button" disabled={why.trim() === '' || setAside.isPending} onClick={() => setAside.mutate()}>
            Set it aside
          </Button>
        </span>
      }
    >
      <AreaField name="text" label={WORDS.text.label} code height={340} />
      <ProblemNote problem={setAside.error} />
    </RecordBody>
  );
}
