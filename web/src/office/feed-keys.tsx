import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, ProblemError } from '../api/client';
import { key } from '../api/keys';
import { useAct } from '../api/use-act';
import { Button, TextButton } from '../ui/button';
import { Field } from '../ui/field';
import { day, when } from '../ui/format';
import { Input } from '../ui/input';
import { BlockHead, Said } from '../ui/page';
import { ProblemNote, Shown } from '../ui/states';
import { DenseTable } from '../ui/table';

/** Keys by which other programs read the lists that one sees oneself. */
export function FeedKeys() {
  const query = useQuery({ queryKey: key('feed-keys'), queryFn: () => ask(api.GET('/api/feeds/keys')) });
  const [name, setName] = useState('');
  const [made, setMade] = useState<{ key: string | null } | null>(null);
  const add = useAct({
    act: (_: void, once) => ask(api.POST('/api/feeds/keys', { body: { name }, headers: once })),
    onDone: (answer) => {
      setMade(answer);
      setName('');
    },
  });
  const drop = useAct({
    act: (id: number, once) => ask(api.DELETE('/api/feeds/keys/{id}', { params: { path: { id } }, headers: once })),
    onDone: () => setMade(null),
  });
  return (
    <section aria-label="Keys for other programs" className="mt-8 max-w-[640px]">
      <BlockHead>
        <h2>Keys for other programs</h2>
        <span className="note">they read the lists that you see: stock, orders, demand, plans</span>
      </BlockHead>
      <Shown query={query} rows={2}>
        {(keys) =>
          keys.length === 0 ? (
            <p className="mid my-2">No program reads with a key of yours.</p>
          ) : (
            <DenseTable>
              <tbody>
                {keys.map((k) => (
                  <tr key={k.id}>
                    <td>
                      <b>{k.name}</b>
                    </td>
                    <td className="mid">made {day(k.madeAt)}</td>
                    <td className="mid">{k.usedAt ? `last used ${when(k.usedAt)}` : 'never used'}</td>
                    <td className="num">
                      <TextButton
                        type="button"
                        aria-label={`Take the key ${k.name} away`}
                        disabled={drop.isPending}
                        onClick={() => drop.mutate(k.id)}
                      >
                        Take away
                      </TextButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <ProblemNote problem={drop.error} />
      {made && (
        <Said role="status">
          {made.key === null ? (
            'Its key was lost on the way. Take it away and make another.'
          ) : (
            <>
              Copy it now, it is shown this once: <span className="code break-all">{made.key}</span>
            </>
          )}
        </Said>
      )}
      <form
        className="flex gap-3 items-end mt-2"
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate();
        }}
      >
        <Field
          label="What reads with it"
          fault={add.error instanceof ProblemError ? add.error.fields['name'] : undefined}
          className="w-[260px]"
        >
          <Input value={name} maxLength={60} placeholder="the sales spreadsheet" onChange={(e) => setName(e.target.value)} />
        </Field>
        <Button type="submit" disabled={name.trim() === '' || add.isPending}>
          Make a key
        </Button>
      </form>
      <ProblemNote problem={add.error} />
    </section>
  );
}
