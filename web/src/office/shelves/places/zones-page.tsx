import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Field } from '../../../ui/field';
import { whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { ShelvesWords } from '../shelves-words';
import { Page } from '../../../ui/page';
import { DenseTable } from '../../../ui/table';
import { TextButton, Button } from '../../../ui/button';
import { Input, Select } from '../../../ui/input';

const RULES: Readonly<Record<string, string>> = {
  none: 'no rule',
  cold: 'cold: goods that need cold stand only here',
  restricted: 'restricted: only restricted goods stand here',
};
type Edit = Dto['EditZoneDto'];

/** The zones of the sites, with the rule that each keeps. */
export function ZonesPage() {
  const me = useMe();
  const query = useQuery({ queryKey: key('zones'), queryFn: () => ask(api.GET('/api/zones')) });
  const [zone, setZone] = useState<Edit>({ siteId: 0, code: '', name: '', rule: 'none' });
  const siteId = zone.siteId || (me.data?.sites[0]?.id ?? 0);
  const save = useAct({
    act: (_: void, once) => ask(api.PUT('/api/zones', { body: { ...zone, siteId }, headers: once })),
    onDone: () => {
      setZone({ siteId, code: '', name: '', rule: 'none' });
    },
  });
  return (
    <Page aria-label="Zones">
      <h1 className="sr">Zones</h1>
      <ShelvesWords at="places" />
      <Shown query={query}>
        {(zones) =>
          zones.length === 0 ? (
            <Empty title="No zones yet">A zone gathers bins under one name, and may keep a rule for them.</Empty>
          ) : (
            <DenseTable style={{ maxWidth: 860 }}>
              <thead>
                <tr>
                  <th>Zone</th>
                  <th>Code</th>
                  <th>Site</th>
                  <th>Rule</th>
                  <th className="num">Places</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {zones.map((z) => (
                  <tr key={z.code}>
                    <td>{z.name}</td>
                    <td className="code">{z.code}</td>
                    <td className="mid">{me.data?.sites.find((s) => s.id === z.siteId)?.name}</td>
                    <td>{RULES[z.rule]}</td>
                    <td className="num">
                      <Link to={`/shelves/places?zone=${z.code}`}>{whole(z.bins)}</Link>
                    </td>
                    <td className="num">
                      <TextButton
                        type="button"

                        onClick={() => setZone({ siteId: z.siteId, code: z.code, name: z.name, rule: z.rule as Edit['rule'] })}
                      >
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
        className="flex gap-4 items-end mt-6"
        style={{ maxWidth: 860 }}
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate();
        }}
      >
        <Field label="Code">
          <Input className="code" value={zone.code} onChange={(e) => setZone({ ...zone, code: e.target.value })} placeholder="COLD" />
        </Field>
        <Field label="Name" className="flex-1">
          <Input value={zone.name} onChange={(e) => setZone({ ...zone, name: e.target.value })} placeholder="Cold corner" />
        </Field>
        <Field label="Rule" className="flex-1">
          <Select value={zone.rule} onChange={(e) => setZone({ ...zone, rule: e.target.value as Edit['rule'] })}>
            {Object.entries(RULES).map(([rule, says]) => (
              <option key={rule} value={rule}>
                {says}
              </option>
            ))}
          </Select>
        </Field>
        <Field label="Site">
          <Select value={siteId} onChange={(e) => setZone({ ...zone, siteId: Number(e.target.value) })}>
            {me.data?.sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </Select>
        </Field>
        <Button next disabled={save.isPending || zone.code.trim() === '' || zone.name.trim() === ''}>
          Keep the zone <Glyph name="go" size={13} />
        </Button>
      </form>
      <ProblemNote problem={save.error} />
    </Page>
  );
}
