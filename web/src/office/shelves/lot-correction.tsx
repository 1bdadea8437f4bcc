import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask, type Dto, ProblemError } from '../../api/client';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { Field } from '../../ui/field';
import { Input } from '../../ui/input';
import { ProblemNote } from '../../ui/states';
import { traceHref } from './trace-href';

/** Its code or its date was read wrongly; where the right code is another lot, both become one. */
export function LotCorrection({ trace: t }: { trace: Dto['TraceDto'] }) {
  const navigate = useNavigate();
  const rights = useMe().data?.rights ?? [];
  const [isOpen, setOpen] = useState(false);
  const [lot, setLot] = useState(t.lot);
  const [expires, setExpires] = useState(t.expiresOn ?? '');
  const [why, setWhy] = useState('');
  const correct = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/trace/correct', {
          params: { query: { sku: t.sku, lot: t.lot } },
          body: { lot, why, expiresOn: expires || null },
          headers: once,
        }),
      ),
    onDone: (done) => navigate(traceHref(t.sku, done.lot)),
  });
  if (!rights.includes('settle-counts')) return null;
  const fields = correct.error instanceof ProblemError ? correct.error.fields : {};
  if (!isOpen)
    return (
      <p className="mt-2">
        <TextButton type="button" onClick={() => setOpen(true)}>
          Its label says otherwise
        </TextButton>
      </p>
    );
  return (
    <form
      aria-label="Correct the lot"
      className="flex flex-wrap gap-3 items-end mt-3"
      onSubmit={(e) => {
        e.preventDefault();
        correct.mutate();
      }}
    >
      <Field label="Lot on the label" fault={fields['lot']}>
        <Input className="code w-[160px]" value={lot} maxLength={40} onChange={(e) => setLot(e.target.value)} />
      </Field>
      {t.expiresOn !== null && (
        <Field label="Keeps until" fault={fields['expiresOn']}>
          <Input type="date" className="w-[150px]" value={expires} onChange={(e) => setExpires(e.target.value)} />
        </Field>
      )}
      <Field label="Why" fault={fields['why']}>
        <Input className="w-[260px] max-w-full" value={why} maxLength={100} onChange={(e) => setWhy(e.target.value)} />
      </Field>
      <Button type="submit" disabled={lot.trim() === '' || why.trim().length < 3 || correct.isPending}>
        Correct it
      </Button>
      <span className="note">a lot that is known already takes these goods over</span>
      <ProblemNote problem={correct.error} />
    </form>
  );
}
