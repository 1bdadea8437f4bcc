import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask } from '../../api/client';
import { useMe } from '../../api/queries';
import { Barcode } from '../../ui/barcode';
import { Field } from '../../ui/field';
import { day } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../ui/states';

/** Who works here, with their duties and sites. */
export function PeopleList() {
  const query = useQuery({ queryKey: ['people'], queryFn: () => ask(api.GET('/api/people')) });
  return (
    <section className="list" aria-label="People">
      <Shown query={query}>
        {(list) => (
          <table className="dense">
            <thead>
              <tr>
                <th>Name</th>
                <th>Duties</th>
                <th>Sites</th>
                <th>Mail</th>
                <th>Badge</th>
              </tr>
            </thead>
            <tbody>
              {list.map((p) => (
                <tr key={p.id}>
                  <td>{p.name}</td>
                  <td>{p.duties.join(', ')}</td>
                  <td className="mid">{p.sites}</td>
                  <td className="mid">{p.email}</td>
                  <td className="code">{p.badge}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Shown>
    </section>
  );
}

function Enrolment({ code }: { code: string }) {
  return (
    <div className="flex gap-6 items-center border-[1.5px] border-dashed border-ink-3 p-4 mt-4 max-w-[620px]">
      <Barcode code={code} width={220} height={52} />
      <span>
        <b className="block text-head">Scan this on the device</b>
        <span className="mid">
          Or open <span className="code">/enrol</span> on it and type the code. It works once, within 30 minutes.
        </span>
      </span>
    </div>
  );
}

/** The shared devices; a code on the screen enrols one. */
export function DevicesList() {
  const me = useMe();
  const client = useQueryClient();
  const [name, setName] = useState('');
  const [siteId, setSiteId] = useState<number | undefined>();
  const query = useQuery({ queryKey: ['devices'], queryFn: () => ask(api.GET('/api/devices')) });
  const open = useMutation({
    mutationFn: () => ask(api.POST('/api/devices/enrolments', { body: { name, siteId: siteId ?? me.data?.sites[0]?.id ?? 0 } })),
  });
  const revoke = useMutation({
    mutationFn: (id: number) => ask(api.POST('/api/devices/{id}/revoke', { params: { path: { id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['devices'] }),
  });
  return (
    <section className="list" aria-label="Devices">
      <form
        className="flex gap-4 items-end max-w-[620px]"
        onSubmit={(e) => {
          e.preventDefault();
          open.mutate();
        }}
      >
        <Field label="Name the device" className="flex-1">
          <input className="input" required value={name} onChange={(e) => setName(e.target.value)} placeholder="Phone 3, goods in" />
        </Field>
        <Field label="Site">
          <select className="input" value={siteId} onChange={(e) => setSiteId(Number(e.target.value))}>
            {me.data?.sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
        </Field>
        <button className="act act-next" disabled={open.isPending || name.trim() === ''}>
          Show a code <Glyph name="go" size={13} />
        </button>
      </form>
      <ProblemNote problem={open.error ?? revoke.error} />
      {open.data && <Enrolment code={open.data.code} />}
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No devices yet">Name one and show its code. Then people sign in on it with badge and PIN.</Empty>
          ) : (
            <table className="dense mt-4">
              <thead>
                <tr>
                  <th>Device</th>
                  <th>Site</th>
                  <th>Enrolled</th>
                  <th />
                </tr>
              </thead>
              <tbody>
                {list.map((d) => (
                  <tr key={d.id}>
                    <td>{d.name}</td>
                    <td className="mid">{d.site}</td>
                    <td className="mid">{day(d.enrolledAt)}</td>
                    <td className="num">
                      {d.revokedAt ? (
                        <span className="soft">revoked</span>
                      ) : (
                        <button type="button" className="act-link" onClick={() => revoke.mutate(d.id)}>
                          Revoke
                        </button>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )
        }
      </Shown>
    </section>
  );
}
