import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ask } from '../../api/client';
import { useAct } from '../../api/use-act';
import { Button } from '../../ui/button';
import { Field } from '../../ui/field';
import { Input, Select } from '../../ui/input';
import { Sheet } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { travelWord } from './claim-words';

const KINDS = ['delayed', 'damaged', 'returned', 'lost'] as const;

/** A claim that is opened by hand: what a customer says before the carrier does. */
export function ClaimForm() {
  const [params] = useSearchParams();
  const navigate = useNavigate();
  const [parcel, setParcel] = useState(params.get('parcel') ?? '');
  const [kind, setKind] = useState<(typeof KINDS)[number]>('damaged');
  const [note, setNote] = useState('');
  const open = useAct({
    act: (_: void, once) => ask(api.POST('/api/claims', { headers: once, body: { parcel, kind, note } })),
    onDone: ({ id }) => navigate(`/orders/claims/${id}`),
  });
  return (
    <Sheet address="orders/claims/new" title="Open a claim" about="for a parcel that has left" back="/orders/claims">
      <form
        className="mt-3 flex flex-col gap-3 max-w-[460px]"
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate();
        }}
      >
        <Field label="Parcel">
          <Input className="code" value={parcel} maxLength={40} onChange={(e) => setParcel(e.target.value.toUpperCase())} />
        </Field>
        <Field label="What is wrong with it">
          <Select value={kind} onChange={(e) => setKind(e.target.value as (typeof KINDS)[number])}>
            {KINDS.map((k) => (
              <option key={k} value={k}>
                {travelWord(k)}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="What was said">
          <Input value={note} maxLength={300} onChange={(e) => setNote(e.target.value)} />
        </Field>
        <ProblemNote problem={open.error} />
        <Button type="submit" next className="self-start" disabled={parcel.trim() === '' || open.isPending}>
          Open the claim
        </Button>
      </form>
    </Sheet>
  );
}
