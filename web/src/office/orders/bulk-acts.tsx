import { useState } from 'react';
import { api, ask, type Dto } from '../../api/client';
import { useAct } from '../../api/use-act';
import { Button, TextAnchor, TextButton } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Field } from '../../ui/field';
import { plural } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { ProblemNote } from '../../ui/states';
import { DenseTable, GlyphCell } from '../../ui/table';

type What = Dto['BulkDto']['what'];
const DOES: Readonly<Record<What, { title: string; does: string }>> = {
  release: { title: 'Send to picking', does: 'Send' },
  hold: { title: 'Hold', does: 'Hold' },
  promise: { title: 'Promise for another time', does: 'Promise' },
};

/** What can be done to the chosen orders together. */
export function BulkActs({ chosen, rights, onDone }: { chosen: ReadonlySet<string>; rights: readonly string[]; onDone: () => void }) {
  const [what, setWhat] = useState<What | null>(null);
  const codes = [...chosen];
  if (codes.length === 0) return null;
  return (
    <div role="group" aria-label="Chosen orders" className="flex gap-4 items-baseline py-2 border-y border-ink">
      <b>{plural(codes.length, 'order', 'orders')} chosen</b>
      {rights.includes('release') && (
        <TextButton type="button" onClick={() => setWhat('release')}>
          Send to picking
        </TextButton>
      )}
      <TextButton type="button" onClick={() => setWhat('hold')}>
        Hold
      </TextButton>
      <TextButton type="button" onClick={() => setWhat('promise')}>
        Promise anew
      </TextButton>
      <TextAnchor href={`/api/order-desk/packing-lists?orders=${codes.join(',')}`} target="_blank" rel="noreferrer">
        Packing lists
      </TextAnchor>
      <TextButton type="button" className="ml-auto" onClick={onDone}>
        Choose none
      </TextButton>
      {what && <BulkDialog key={what} what={what} codes={codes} onClose={() => setWhat(null)} onDone={onDone} />}
    </div>
  );
}

/** What it will do to each order, before it is done; afterwards what it has done. */
function BulkDialog({ what, codes, onClose, onDone }: { what: What; codes: string[]; onClose: () => void; onDone: () => void }) {
  const [reason, setReason] = useState('');
  const [at, setAt] = useState('');
  const body = (preview: boolean): Dto['BulkDto'] => ({
    what,
    orders: codes,
    preview,
    ...(what === 'hold' ? { reason } : {}),
    ...(what === 'promise' && at ? { at: new Date(at).toISOString() } : {}),
  });
  const look = useAct({ act: (_: void, once) => ask(api.POST('/api/order-desk/bulk', { body: body(true), headers: once })) });
  const done = useAct({ act: (_: void, once) => ask(api.POST('/api/order-desk/bulk', { body: body(false), headers: once })) });
  const lines = done.data ?? look.data;
  const able = lines?.filter((l) => l.can).length ?? 0;
  const says = DOES[what];
  const needs = (what === 'hold' && reason.trim() === '') || (what === 'promise' && at === '');
  return (
    <Dialog title={`${says.title}: ${plural(codes.length, 'order', 'orders')}`} onClose={onClose}>
      {!lines && what === 'hold' && (
        <Field label="They wait for">
          <Input aria-label="They wait for" autoFocus maxLength={200} value={reason} onChange={(e) => setReason(e.target.value)} />
        </Field>
      )}
      {!lines && what === 'promise' && (
        <Field label="Promised for">
          <Input aria-label="Promised for" type="datetime-local" autoFocus value={at} onChange={(e) => setAt(e.target.value)} />
        </Field>
      )}
      <ProblemNote problem={look.error ?? done.error} />
      {lines && (
        <div className="mt-2 max-h-[46vh] overflow-y-auto">
          <DenseTable className="w-full">
            <tbody>
              {lines.map((l) => (
                <tr key={l.code}>
                  <GlyphCell>
                    <Glyph name={l.can ? 'full' : 'blocked'} size={13} says={l.can ? 'can be done' : 'cannot be done'} />
                  </GlyphCell>
                  <td className="code">{l.code}</td>
                  <td className={`whitespace-normal ${l.can ? '' : 'stamped'}`}>{l.says}</td>
                </tr>
              ))}
            </tbody>
          </DenseTable>
        </div>
      )}
      <span className="flex gap-3 mt-3">
        {done.data ? (
          <Button
            type="button"
            next
            onClick={() => {
              onClose();
              onDone();
            }}
          >
            Done
          </Button>
        ) : look.data ? (
          <Button type="button" next disabled={able === 0 || done.isPending} onClick={() => done.mutate()}>
            {says.does} {plural(able, 'order', 'orders')}
          </Button>
        ) : (
          <Button type="button" next disabled={needs || look.isPending} onClick={() => look.mutate()}>
            See what it does
          </Button>
        )}
        {!done.data && (
          <Button type="button" onClick={onClose}>
            Leave it
          </Button>
        )}
      </span>
    </Dialog>
  );
}
