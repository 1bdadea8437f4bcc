import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { api, ask, type Dto } from '../../../api/client';
import { useAtOnce } from '../../../ui/at-once';
import { ProblemNote, Shown } from '../../../ui/states';
import { Calendars } from './calendars';
import { ExtraFields } from './extra-fields';
import { Money } from './money';
import { Series } from './series';
import { Sites } from './sites';
import { Select, Input } from '../../../ui/input';
import { TextButton } from '../../../ui/button';
import { Page, BlockHead } from '../../../ui/page';

type Setting = Dto['SettingDto'];

function SettingRow({ setting: s }: { setting: Setting }) {
  const set = useAct({
    act: (value: string, once) =>
      // Sent also when the page is left at once, as it is kept without a key of its own.
      ask(api.PUT('/api/company/settings/{name}', { params: { path: { name: s.name } }, body: { value }, headers: once, keepalive: true })),
  });
  const [value, choose] = useAtOnce(s.value, set.mutateAsync);
  const keep = (next: string) => next !== value && choose(next);
  return (
    <li>
      <label htmlFor={`set-${s.name}`}>
        <b>{s.label}</b>
        <span className="note">{s.says}</span>
        <ProblemNote problem={set.error} />
      </label>
      <span className="flex gap-2 items-center">
        {s.kind === 'yes-no' ? (
          <input id={`set-${s.name}`} type="checkbox" checked={value === 'true'} onChange={(e) => keep(String(e.target.checked))} />
        ) : s.kind === 'choice' ? (
          <Select id={`set-${s.name}`} value={value} onChange={(e) => keep(e.target.value)}>
            {s.choices.map((c) => (
              <option key={c}>{c}</option>
            ))}
          </Select>
        ) : (
          <Input
            id={`set-${s.name}`}
            key={value}
            className={s.kind === 'whole' ? 'num' : ''}
            style={{ width: s.kind === 'whole' ? 80 : 300 }}
            inputMode={s.kind === 'whole' ? 'numeric' : 'text'}
            defaultValue={value}
            onBlur={(e) => keep(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          />
        )}
        {s.unit && <span className="mid">{s.unit}</span>}
        {value !== s.standard && s.kind !== 'text' && (
          <TextButton type="button" onClick={() => keep(s.standard)}>
            as it came
          </TextButton>
        )}
      </span>
    </li>
  );
}

/** The company's choices, each with what it changes; money, sites, working days, departures, number series, own fields. */
export function CompanyPage() {
  const query = useQuery({ queryKey: key('settings'), queryFn: () => ask(api.GET('/api/company/settings')) });
  return (
    <Page className="company" aria-label="Company">
      <h1 className="sr">Company</h1>
      <Shown query={query}>
        {(settings) => (
          <>
            {[...new Set(settings.map((s) => s.group))].map((group) => (
              <div key={group}>
                <BlockHead>
                  <h2>{group}</h2>
                </BlockHead>
                <ul className="settings">
                  {settings
                    .filter((s) => s.group === group)
                    .map((s) => (
                      <SettingRow key={s.name} setting={s} />
                    ))}
                </ul>
              </div>
            ))}
          </>
        )}
      </Shown>
      <Money />
      <Sites />
      <Calendars />
      <Series />
      <ExtraFields />
    </Page>
  );
}
