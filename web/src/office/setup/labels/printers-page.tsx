import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Field } from '../../../ui/field';
import { when } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { Page, BlockHead } from '../../../ui/page';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { TextButton, Button } from '../../../ui/button';
import { Input, Select } from '../../../ui/input';

/** The printers of the sites, and the tray: what was sent to them, how it went, and another try. */
export function PrintersPage() {
  const me = useMe();
  const printers = useQuery({ queryKey: key('printers'), queryFn: () => ask(api.GET('/api/labels/printers')) });
  const tray = useQuery({ queryKey: key('tray'), queryFn: () => ask(api.GET('/api/labels/tray')), refetchInterval: 2_000 });
  const [form, setForm] = useState<Dto['EditPrinterDto'] & { id?: number }>({ name: '', siteId: 0, address: '' });
  const siteId = form.siteId || (me.data?.sites[0]?.id ?? 0);
  const save = useAct({
    act: (_: void, once) => {
      const body = { name: form.name, siteId, address: form.address };
      return ask(
        form.id
          ? api.PUT('/api/labels/printers/{id}', { params: { path: { id: form.id } }, body, headers: once })
          : api.POST('/api/labels/printers', { body, headers: once }),
      );
    },
    onDone: () => {
      setForm({ name: '', siteId, address: '' });
    },
  });
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
            {(list) =>
              list.length === 0 ? (
                <Empty title="No printer yet">Name one with its host and port. Labels can be saved as PDF without.</Empty>
              ) : (
                <DenseTable>
                  <tbody>
                    {list.map((p) => (
                      <tr key={p.id}>
                        <td>{p.name}</td>
                        <td className="mid">{p.site}</td>
                        <td className="code">{p.address}</td>
                        <td className="num">
                          <TextButton type="button" onClick={() => setForm(p)}>
                            Change
                          </TextButton>
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </DenseTable>
              )
            }
          </Shown>
          <form
            className="flex flex-col gap-3 mt-5"
            onSubmit={(e) => {
              e.preventDefault();
              save.mutate();
            }}
          >
            <Field label={form.id ? 'Change the printer' : 'Another printer'}>
              <Input value={form.name} onChange={(e) => setForm({ ...form, name: e.target.value })} placeholder="Goods in" />
            </Field>
            <div className="flex gap-3">
              <Field label="Host and port" className="flex-1">
                <Input
                  className="code"
                  value={form.address}
                  onChange={(e) => setForm({ ...form, address: e.target.value })}
                  placeholder="192.0.2.20:9100"
                />
              </Field>
              <Field label="Site">
                <Select value={siteId} onChange={(e) => setForm({ ...form, siteId: Number(e.target.value) })}>
                  {me.data?.sites.map((s) => (
                    <option key={s.id} value={s.id}>
                      {s.name}
                    </option>
                  ))}
                </Select>
              </Field>
            </div>
            <ProblemNote problem={save.error} />
            <Button className="self-start" disabled={save.isPending || form.name.trim() === '' || form.address.trim() === ''}>
              Keep the printer
            </Button>
          </form>
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
