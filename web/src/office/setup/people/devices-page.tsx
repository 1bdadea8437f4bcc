import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Barcode, QrCode } from '../../../ui/barcode';
import { Field } from '../../../ui/field';
import { day, when } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { useAtOnce } from '../../../ui/at-once';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { Page } from '../../../ui/page';
import { Input, Select } from '../../../ui/input';
import { Button, TextButton } from '../../../ui/button';
import { DenseTable } from '../../../ui/table';

function Enrolment({ code }: { code: string }) {
  const page = useQuery({ queryKey: key('sign-in-page'), queryFn: () => ask(api.GET('/api/sign-in-page')) });
  // Cameras and work without a network want the secure address, which is often not the one that the office uses.
  const origin = page.data?.phoneUrl ?? window.location.origin;
  return (
    <div className="flex gap-6 items-center border-[1.5px] border-dashed border-ink-3 p-4 mt-4 max-w-[720px]">
      <QrCode text={`${origin}/enrol#${code}`} size={132} says={`Enrolment code ${code}`} />
      <span>
        <b className="block text-head">Point the phone’s camera at this</b>
        <span className="mid">
          Or open <span className="code">{origin.replace(/^https?:\/\//, '')}/enrol</span> on the device, and scan or type the code. It
          works once, within 30 minutes.
          {page.data?.phoneUrl && (
            <>
              {' '}
              If the phone warns of the certificate, open{' '}
              <span className="code">{origin.replace(/^https?:\/\//, '')}/api/authority.crt</span> on it once and trust it.
            </>
          )}
        </span>
        <span className="block mt-3">
          <Barcode code={code} width={200} height={36} />
        </span>
      </span>
    </div>
  );
}

function PrinterOf({
  device: d,
  printers,
  keep,
}: {
  device: Dto['DeviceDto'];
  printers: readonly Dto['PrinterDto'][];
  keep: (printerId: number | null) => Promise<unknown>;
}) {
  const [printerId, choose] = useAtOnce(d.printerId, keep);
  return (
    <Select
      className="bare"
      aria-label={`Printer of ${d.name}`}
      value={printerId ?? ''}
      onChange={(e) => choose(Number(e.target.value) || null)}
    >
      <option value="">the first of its site</option>
      {printers
        .filter((p) => p.siteId === d.siteId)
        .map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
    </Select>
  );
}

/** The shared devices; a code on the screen enrols one. */
export function DevicesList() {
  const me = useMe();
  const [name, setName] = useState('');
  const [siteId, setSiteId] = useState<number | undefined>();
  const query = useQuery({ queryKey: key('devices'), queryFn: () => ask(api.GET('/api/devices')) });
  const open = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/devices/enrolments', { body: { name, siteId: siteId ?? me.data?.sites[0]?.id ?? 0 }, headers: once })),
  });
  const printers = useQuery({ queryKey: key('printers'), queryFn: () => ask(api.GET('/api/labels/printers')) });
  const edit = useAct({
    act: ({ id, ...body }: { id: number; name?: string; printerId?: number | null }, once) =>
      ask(api.PATCH('/api/devices/{id}', { params: { path: { id } }, body, headers: once })),
  });
  const revoke = useAct({
    act: (id: number, once) => ask(api.POST('/api/devices/{id}/revoke', { params: { path: { id } }, headers: once })),
  });
  return (
    <Page aria-label="Devices">
      <h1 className="sr">Devices</h1>
      <form
        className="flex gap-4 items-end max-w-[620px]"
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate();
        }}
      >
        <Field label="Name the device" className="flex-1">
          <Input required value={name} onChange={(e) => setName(e.target.value)} placeholder="Phone 3, goods in" />
        </Field>
        <Field label="Site">
          <Select value={siteId} onChange={(e) => setSiteId(Number(e.target.value))}>
            {me.data?.sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </Select>
        </Field>
        <Button next disabled={open.isPending || name.trim() === ''}>
          Show a code <Glyph name="go" size={13} />
        </Button>
      </form>
      <ProblemNote problem={open.error ?? revoke.error ?? edit.error} />
      {open.data && <Enrolment code={open.data.code} />}
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No devices yet">Name one and show its code. Then people sign in on it with badge and PIN.</Empty>
          ) : (
            <DenseTable className="mt-4">
              <thead>
                <tr>
                  <th>Device</th>
                  <th>Site</th>
                  <th>Prints at</th>
                  <th>Enrolled</th>
                  <th>Last signed in on</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {list.map((d) => (
                  <tr key={d.id}>
                    <td>
                      <Input
                        className="bare"
                        aria-label={`Name of ${d.name}`}
                        defaultValue={d.name}
                        onBlur={(e) =>
                          e.target.value.trim() && e.target.value !== d.name && edit.mutate({ id: d.id, name: e.target.value })
                        }
                      />
                    </td>
                    <td className="mid">{d.site}</td>
                    <td>
                      <PrinterOf
                        device={d}
                        printers={printers.data ?? []}
                        keep={(printerId) => edit.mutateAsync({ id: d.id, printerId })}
                      />
                    </td>
                    <td className="mid">{day(d.enrolledAt)}</td>
                    <td className="mid">{d.lastUsedAt ? when(d.lastUsedAt) : 'never'}</td>
                    <td className="num">
                      {d.revokedAt ? (
                        <span className="soft">revoked</span>
                      ) : (
                        <TextButton type="button" onClick={() => revoke.mutate(d.id)}>
                          Revoke
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
    </Page>
  );
}
