import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { useAct } from '../../../api/use-act';
import { BlockHead } from '../../../ui/page';
import { SetUpTable } from '../../../ui/record/set-up-table';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { weightText } from '../../../ui/units';
import { TextButton } from '../../../ui/button';
import { DeviceForm } from './device-form';

/** The scales of the packing tables: set up, tried, taken away. */
export function Scales({ me }: { me: Dto['MeDto'] }) {
  const scales = useQuery({ queryKey: key('scales'), queryFn: () => ask(api.GET('/api/scales')) });
  const [id, setId] = useState<number | null>(null);
  const drop = useAct({
    act: (scale: number, once) => ask(api.DELETE('/api/scales/{id}', { params: { path: { id: scale } }, headers: once })),
    onDone: () => setId(null),
  });
  return (
    <section aria-label="Scales" className="mt-8">
      <BlockHead>
        <h2>Scales</h2>
        <span className="note">asked over TCP with W, answers “2345 g steady”</span>
      </BlockHead>
      <Shown query={scales} rows={2}>
        {(list) => (
          <>
            {list.length === 0 ? (
              <Empty title="No scale yet">With one, packers need not type weights, and labels come by themselves.</Empty>
            ) : (
              <SetUpTable
                rows={list}
                rowKey={(s) => s.id}
                rowName={(s) => s.name}
                onChange={(s) => setId(s.id)}
                columns={[
                  { head: 'Scale', cell: (s) => s.name },
                  { head: 'Site', cell: (s) => s.site },
                  { head: 'Host and port', cell: (s) => s.address, code: true },
                  { head: 'Reads', cell: (s) => <Reading id={s.id} /> },
                ]}
              />
            )}
            <ProblemNote problem={drop.error} />
            {id !== null && (
              <TextButton type="button" className="mt-3" disabled={drop.isPending} onClick={() => drop.mutate(id)}>
                Take {list.find((s) => s.id === id)?.name ?? 'it'} away
              </TextButton>
            )}
            <div className="mt-5">
              <DeviceForm key={id ?? 0} kind="scale" device={list.find((s) => s.id === id)} sites={me.sites} onKept={() => setId(null)} />
            </div>
          </>
        )}
      </Shown>
    </section>
  );
}

/** What a scale says now, asked for by a key. */
function Reading({ id }: { id: number }) {
  const reading = useQuery({
    queryKey: key('scale', id),
    queryFn: () => ask(api.GET('/api/scales/{id}/reading', { params: { path: { id } } })),
    enabled: false,
    retry: false,
  });
  return (
    <>
      {reading.error
        ? reading.error.message
        : reading.data
          ? `${weightText(reading.data.grams)}${reading.data.isSteady ? '' : ', moving'} `
          : ''}
      <TextButton type="button" disabled={reading.isFetching} onClick={() => void reading.refetch()}>
        Try it
      </TextButton>
    </>
  );
}
