import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { whole } from '../../../ui/format';
import { Page } from '../../../ui/page';
import { SelectField, TextField } from '../../../ui/record/fields';
import type { FieldWords } from '../../../ui/record/record-form';
import { SetUpForm } from '../../../ui/record/set-up-form';
import { SetUpTable } from '../../../ui/record/set-up-table';
import { useRecord } from '../../../ui/record/use-record';
import { Empty, Shown } from '../../../ui/states';
import { ShelvesWords } from '../shelves-words';

const RULES: Readonly<Record<string, string>> = {
  none: 'no rule',
  cold: 'cold: goods that need cold stand only here',
  restricted: 'restricted: only restricted goods stand here',
};
type Zone = Dto['ZoneDto'];
type Rule = Dto['EditZoneDto']['rule'];
interface Values {
  code: string;
  name: string;
  rule: Rule;
  siteId: number | string;
}
const WORDS: Readonly<Record<keyof Values, FieldWords>> = {
  code: { label: 'Code' },
  name: { label: 'Name' },
  rule: { label: 'Rule', show: (rule: string) => RULES[rule] ?? rule },
  siteId: { label: 'Site' },
};

/** The zones of the sites, with the rule that each keeps. */
export function ZonesPage() {
  const me = useMe();
  const query = useQuery({ queryKey: key('zones'), queryFn: () => ask(api.GET('/api/zones')) });
  const [code, setCode] = useState<string | null>(null);
  const sites = me.data?.sites ?? [];
  return (
    <Page aria-label="Zones">
      <h1 className="sr">Zones</h1>
      <ShelvesWords at="places" />
      <Shown query={query}>
        {(zones) => (
          <>
            {zones.length === 0 ? (
              <Empty title="No zones yet">A zone gathers bins under one name, and may keep a rule for them.</Empty>
            ) : (
              <SetUpTable
                rows={zones}
                rowKey={(z) => z.code}
                rowName={(z) => z.name}
                onChange={(z) => setCode(z.code)}
                columns={[
                  { head: 'Zone', cell: (z) => z.name },
                  { head: 'Code', cell: (z) => z.code, code: true },
                  { head: 'Site', cell: (z) => sites.find((s) => s.id === z.siteId)?.name },
                  { head: 'Rule', cell: (z) => RULES[z.rule] },
                  { head: 'Places', num: true, cell: (z) => <Link to={`/shelves/places?zone=${z.code}`}>{whole(z.bins)}</Link> },
                ]}
              />
            )}
            <div className="mt-6 max-w-[860px]">
              {me.data && (
                <ZoneForm key={code ?? ''} zone={zones.find((z) => z.code === code)} sites={sites} onKept={() => setCode(null)} />
              )}
            </div>
          </>
        )}
      </Shown>
    </Page>
  );
}

function ZoneForm({ zone, sites, onKept }: { zone: Zone | undefined; sites: Dto['MeDto']['sites']; onKept: () => void }) {
  const fresh: Values = { code: '', name: '', rule: 'none', siteId: sites[0]?.id ?? 0 };
  const record = useRecord<Values, unknown>({
    part: zone?.code ?? '',
    source: zone
      ? { values: { code: zone.code, name: zone.name, rule: zone.rule as Rule, siteId: zone.siteId }, version: zone.version }
      : { values: fresh },
    save: ({ code, name, rule, siteId }, version, once) =>
      ask(
        version === undefined
          ? api.POST('/api/zones', { body: { code, name, rule, siteId: Number(siteId) }, headers: once })
          : api.PUT('/api/zones/{code}', { params: { path: { code } }, body: { name, rule }, headers: { ...once, ...ifMatch(version) } }),
      ),
    onSaved: () => {
      record.form.reset(fresh);
      onKept();
    },
  });
  return (
    <SetUpForm title={zone ? `Change ${zone.name}` : 'Another zone'} keep="Keep the zone" record={record} words={WORDS}>
      <div className="grid sm:grid-cols-[120px_1fr_1.4fr_160px] gap-4 items-start">
        <TextField name="code" label="Code" code placeholder="COLD" readOnly={zone !== undefined} />
        <TextField name="name" label="Name" placeholder="Cold corner" autoFocus={zone !== undefined} />
        <SelectField name="rule" label="Rule">
          {Object.entries(RULES).map(([rule, says]) => (
            <option key={rule} value={rule}>
              {says}
            </option>
          ))}
        </SelectField>
        <SelectField name="siteId" label="Site" disabled={zone !== undefined}>
          {sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
      </div>
    </SetUpForm>
  );
}
