import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { when } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { Page, BlockHead } from '../../../ui/page';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { SetUpTable } from '../../../ui/record/set-up-table';
import { DeviceForm } from './device-form';
import { Scales } from './scales';
import { TextButton } from '../../../ui/button';

/** The printers of the sites, and the tray: what was sent to them, how it went, and another try. */
export function PrintersPage() {
  const me = useMe();
  const printers = useQuery({ queryKey: key('printers'), queryFn: () => ask(api.GET('/api/labels/printers')) });
  const tray = useQuery({ queryKey: key('tray'), queryFn: () => ask(api.GET('/api/labels/tray')), refetchInterval: 2_000 });
  const [id, setId] = useState<number | null>(null);
  const retry = useAct({ act: (id: number, once) => ask(api.POST('/api/outbox/{id}/retry', { params: { path: { id } }, headers: once })) });
  return (
    <Page aria-label="Printers">
      <h1 className="sr">Printers</h1>
      <div className="grid gap-8" style={{ gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1.4fr)' }}>
        <div>
          <BlockHead>
            <h2>Printers</h2>
            <span className="note">PDF over raw TCP, on the house’s own network</span>
          </BlockHead>
          <Shown query={printers} rows={3}>
            {(list) => (
              <>
                {list.length === 0 ? (
                  <Empty title="No printer yet">Name one with its host and port. Labels can be saved as PDF without.</Empty>
                ) : (
                  <SetUpTable
                    rows={list}
                    rowKey={(p) => p.id}
                    rowName={(p) => p.name}
                    onChange={(p) => setId(p.id)}
                    columns={[
                      { head: 'Printer', cell: (p) => p.name },
                      { head: 'Site', cell: (p) => p.site },
                      { head: 'Host and port', cell: (p) => p.address, code: true },
                    ]}
                  />
                )}
                <div className="mt-5">
                  {me.data && (
                    <DeviceForm
                      key={id ?? 0}
                      kind="printer"
                      device={list.find((p) => p.id === id)}
                      sites={me.data.sites}
                      onKept={() => setId(null)}
                    />
                  )}
                </div>
              </>
            )}
          </Shown>
          {me.data && <Scales me={me.data} />}
        </div>
        <div>
          <BlockHead>
            <h2>The tray</h2>
            <span className="note">what waits first, then the newest</span>
          </BlockHead>
          <ProblemNote problem={retry.error} />
          <Shown query={tray} rows={6}>
            {(list) =>
              list.length === 0 ? (
                <Empty title="Nothing was printed yet">Labels of parcels, shelves, items and badges pass through here.</Empty>
              ) : (
                <DenseTable>
                  <tbody>
                    {list.map((t) => (
                      <tr key={t.id}>
                        <GlyphCell>
                          <Glyph
                            name={t.state === 'done' ? 'full' : t.state === 'failing' ? 'blocked' : 'empty'}
                            size={13}
                            says={{ done: 'printed', failing: 'not printed', waiting: 'waiting' }[t.state]}
                          />
                        </GlyphCell>
                        <td className="mid">{when(t.at)}</td>
                        <td className="max-w-[220px] overflow-hidden text-ellipsis">{t.title}</td>
                        <td className="mid">{t.printer}</td>
                        <td
                          className={t.state === 'failing' ? 'stamped max-w-[200px] overflow-hidden text-ellipsis' : 'mid'}
                          title={t.problem ?? undefined}
                        >
                          {t.state === 'done' ? 'printed' : (t.problem ?? 'waiting')}
                        </td>
                        <td className="num">
                          {t.state !== 'done' && (
                            <TextButton type="button" onClick={() => retry.mutate(t.id)}>
                              Try now
                            </TextButton>
                          )}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </DenseTable>
              )
            }
          </Shown>
        </div>
      </div>
    </Page>
  );
}
