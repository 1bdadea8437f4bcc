import { useState } from 'react';
import { api, ask } from '../../api/client';
import { useAct } from '../../api/use-act';
import { Button, TextButton } from '../../ui/button';
import { Field } from '../../ui/field';
import { Input, Select } from '../../ui/input';
import { ProblemNote } from '../../ui/states';

const SAYS = [
  ['later', 'Look again on a day'],
  ['enough', 'There is enough for a month'],
  ['dropped', 'It is bought no more here'],
] as const;
type Says = (typeof SAYS)[number][0];

const inAWeek = () => new Date(Date.now() + 7 * 86_400_000).toISOString().slice(0, 10);

/** Puts a proposal off, with why: until a day, for a month, or for good. */
export function PutOff({ siteId, sku, name, onDone }: { siteId: number; sku: string; name: string; onDone: () => void }) {
  const [says, setSays] = useState<Says>('later');
  const [until, setUntil] = useState(inAWeek);
  const [why, setWhy] = useState('');
  const put = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/buying/put-off', { body: { siteId, sku, says, why, ...(says === 'later' ? { until } : {}) }, headers: once })),
    onDone,
  });
  return (
    <form
      aria-label={`Put ${name} off`}
      className="flex flex-wrap gap-3 items-end py-2"
      onSubmit={(e) => {
        e.preventDefault();
        put.mutate();
      }}
    >
      <Field label={`${name}: instead of ordering`} className="w-[230px]">
        <Select value={says} onChange={(e) => setSays(e.target.value as Says)} autoFocus>
          {SAYS.map(([value, words]) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </Select>
      </Field>
      {says === 'later' && (
        <Field label="Day" className="w-[150px]">
          <Input type="date" required value={until} onChange={(e) => setUntil(e.target.value)} />
        </Field>
      )}
      <Field label="Why" className="w-[230px]">
        <Input value={why} maxLength={200} placeholder="the season is over" onChange={(e) => setWhy(e.target.value)} />
      </Field>
      <Button type="submit" disabled={put.isPending}>
        Put it off
      </Button>
      <TextButton type="button" onClick={onDone}>
        Leave it
      </TextButton>
      <ProblemNote problem={put.error} />
    </form>
  );
}
