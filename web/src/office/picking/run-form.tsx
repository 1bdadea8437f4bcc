import { useQuery } from '@tanstack/react-query';
import { useWatch } from 'react-hook-form';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { TextButton } from '../../ui/button';
import { CheckField, SelectField, TextField } from '../../ui/record/fields';
import { RecordForm } from '../../ui/record/record-form';
import { useRecord } from '../../ui/record/use-record';
import { ShownSheet } from '../../ui/sheet';
import { ProblemNote } from '../../ui/states';
import { RunPreview } from './run-preview';
import { useDailyRuns } from './runs-page';

type Run = Dto['DailyRunDto'];
interface Values {
  siteId: string;
  runsAt: string;
  vanAt: string;
  channelId: string;
  mostStops: string;
  pooled: boolean;
  active: boolean;
}
const WORDS = {
  siteId: { label: 'Site' },
  runsAt: { label: 'Runs at' },
  vanAt: { label: 'What must catch' },
  channelId: { label: 'Channel' },
  mostStops: { label: 'Stops' },
  pooled: { label: 'Sorted at the wall' },
  active: { label: 'Switched on' },
};
const text = (value: number | string | null) => (value === null ? '' : String(value));
const valuesOf = (r: Run): Values => ({
  siteId: String(r.siteId),
  runsAt: r.runsAt,
  vanAt: text(r.vanAt),
  channelId: text(r.channelId),
  mostStops: text(r.mostStops),
  pooled: r.pooled,
  active: r.active,
});
const bodyOf = (v: Values): Dto['EditDailyRunDto'] => ({
  siteId: Number(v.siteId),
  runsAt: v.runsAt.trim(),
  vanAt: v.vanAt || null,
  channelId: v.channelId ? Number(v.channelId) : null,
  mostStops: v.mostStops ? Number(v.mostStops) : null,
  pooled: v.pooled,
  active: v.active,
});

/** Makes or changes a daily run; one that is kept shows what it would send now. */
export function RunForm() {
  const { id } = useParams();
  const query = useDailyRuns();
  return (
    <ShownSheet query={query} back="/picking/runs">
      {({ runs, channels }) => <Form key={id ?? 'new'} run={runs.find((r) => String(r.id) === id)} channels={channels} />}
    </ShownSheet>
  );
}

function Form({ run, channels }: { run: Run | undefined; channels: Dto['DailyRunsDto']['channels'] }) {
  const navigate = useNavigate();
  const me = useMe();
  const fresh: Values = {
    siteId: String(me.data?.sites[0]?.id ?? 1),
    runsAt: '07:30',
    vanAt: '',
    channelId: '',
    mostStops: '',
    pooled: false,
    active: true,
  };
  const record = useRecord<Values, { id: number }>({
    source: { values: run ? valuesOf(run) : fresh, version: run?.version },
    save: (v, version, once) =>
      ask(
        run === undefined || version === undefined
          ? api.POST('/api/daily-runs', { body: bodyOf(v), headers: once })
          : api.PUT('/api/daily-runs/{id}', {
              params: { path: { id: run.id } },
              headers: { ...once, ...ifMatch(version) },
              body: bodyOf(v),
            }),
      ),
    onSaved: (kept) => void navigate(`/picking/runs/${kept.id}`),
  });
  const remove = useAct({
    act: (_: void, once) =>
      ask(
        api.DELETE('/api/daily-runs/{id}', { params: { path: { id: run?.id ?? 0 } }, headers: { ...once, ...ifMatch(run?.version ?? 0) } }),
      ),
    onDone: () => navigate('/picking/runs'),
  });
  return (
    <RecordForm
      record={record}
      words={WORDS}
      address={run ? `picking/runs/${run.id}` : 'picking/runs/new'}
      title={run ? `Daily run at ${run.runsAt}` : 'New daily run'}
      back="/picking/runs"
      keep="Keep the run"
      more={
        run && (
          <TextButton type="button" disabled={remove.isPending} onClick={() => remove.mutate()}>
            Remove it
          </TextButton>
        )
      }
    >
      <div className="grid grid-cols-2 gap-4">
        <SelectField name="siteId" label="Site">
          {me.data?.sites.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextField name="runsAt" label="Runs at, every working day" placeholder="07:30" />
        <VanField />
        <SelectField name="channelId" label="Channel">
          <option value="">All channels</option>
          {channels.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}
            </option>
          ))}
        </SelectField>
        <SelectField name="mostStops" label="Stops">
          <option value="">Any number of stops</option>
          {['1', '2', '3', '5'].map((n) => (
            <option key={n} value={n}>
              {n === '1' ? 'One stop' : `Up to ${n} stops`}
            </option>
          ))}
        </SelectField>
      </div>
      <CheckField name="pooled" label="Picked for several orders together, sorted at the wall" />
      <CheckField name="active" label="Switched on" />
      <ProblemNote problem={remove.error} />
      {run ? (
        <RunPreview run={run} />
      ) : (
        <p className="note">
          It is done in your name. What bins open to picking lack is left, and told. Once kept, what it would send is shown here.
        </p>
      )}
    </RecordForm>
  );
}

/** The vans of the site that is chosen. */
function VanField() {
  const siteId = useWatch<Values, 'siteId'>({ name: 'siteId' });
  const calendars = useQuery({ queryKey: key('calendars'), queryFn: () => ask(api.GET('/api/company/calendars')) });
  const vans = calendars.data?.find((c) => String(c.siteId) === siteId)?.departures ?? [];
  return (
    <SelectField name="vanAt" label="What must catch">
      <option value="">Any van of the day</option>
      {[...new Map(vans.map((v) => [v.leavesAt, v])).values()].map((v) => (
        <option key={v.leavesAt} value={v.leavesAt}>
          {v.leavesAt} {v.name}
        </option>
      ))}
    </SelectField>
  );
}
