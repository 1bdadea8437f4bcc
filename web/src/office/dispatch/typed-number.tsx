import { useState } from 'react';
import { api, ask } from '../../api/client';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { Input } from '../../ui/input';
import { ProblemNote } from '../../ui/states';

/** The number on the paper of a carrier that has no system of its own, typed in place of ours. */
export function TypedNumber({ parcel }: { parcel: string }) {
  const [number, setNumber] = useState<string | null>(null);
  const keep = useAct({
    act: (tracking: string, once) =>
      ask(api.POST('/api/bench/parcels/{code}/number', { params: { path: { code: parcel } }, headers: once, body: { tracking } })),
    onDone: () => setNumber(null),
  });
  if (number === null)
    return (
      <TextButton type="button" onClick={() => setNumber('')}>
        Type its number
      </TextButton>
    );
  return (
    <form
      className="flex gap-2 items-center"
      onSubmit={(e) => {
        e.preventDefault();
        keep.mutate(number.trim());
      }}
    >
      <Input
        className="code"
        style={{ width: 170 }}
        aria-label={`Number of ${parcel} at its carrier`}
        autoFocus
        maxLength={60}
        value={number}
        onChange={(e) => setNumber(e.target.value.toUpperCase())}
      />
      <Button type="submit" disabled={number.trim() === '' || keep.isPending}>
        Keep
      </Button>
      <ProblemNote problem={keep.error} />
    </form>
  );
}
