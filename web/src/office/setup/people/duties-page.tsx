import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';

import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { useAtOnce } from '../../../ui/at-once';
import { ProblemNote, Shown } from '../../../ui/states';
import { Page, FilterLine } from '../../../ui/page';
import { TextLink } from '../../../ui/button';
import { DenseTable } from '../../../ui/table';

type Duty = Dto['DutiesDto']['duties'][number];
type Right = Dto['DutiesDto']['rights'][number];

function Allowed({
  duty,
  right,
  isFixed,
  keep,
}: {
  duty: Duty;
  right: Right;
  isFixed: boolean;
  keep: (allowed: boolean) => Promise<unknown>;
}) {
  const [allowed, choose] = useAtOnce(duty.rights.includes(right.right), keep);
  return (
    <label>
      <input
        type="checkbox"
        aria-label={`${duty.duty.replace('-', ' ')}: ${right.says}`}
        disabled={isFixed || duty.duty === 'owner'}
        checked={allowed}
        onChange={(e) => choose(e.target.checked)}
      />
    </label>
  );
}

/** What each duty allows: a matrix to adjust. The owner keeps every right. */
export function DutiesPage() {
  const me = useMe();
  const query = useQuery({ queryKey: key('duties'), queryFn: () => ask(api.GET('/api/duties')) });
  const set = useAct({
    act: ({ duty, right, allowed }: { duty: string; right: string; allowed: boolean }, once) =>
      ask(api.PUT('/api/duties/{duty}/rights/{right}', { params: { path: { duty, right } }, body: { allowed }, headers: once })),
  });
  return (
    <Page aria-label="Duties and rights">
      <h1 className="sr">Duties and rights</h1>
      <FilterLine>
        <span className="mid">
          {me.data?.isOwner
            ? 'A change counts from the next thing that anybody does. Deciding what is picked and picking are separate rights.'
            : 'What a duty allows counts for everybody, at every site: an owner changes it.'}
        </span>
        <TextLink to="/setup/people">People</TextLink>
      </FilterLine>
      <ProblemNote problem={set.error} />
      <Shown query={query}>
        {({ rights, duties }) => (
          <DenseTable className="matrix">
            <thead>
              <tr>
                <th>Duty</th>
                {rights.map((r) => (
                  <th key={r.right} title={r.says}>
                    {r.right.replace('-', ' ')}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {duties.map((d) => (
                <tr key={d.duty}>
                  <td>
                    {d.duty.replace('-', ' ')}
                    {d.adjusted && <span className="note"> adjusted</span>}
                  </td>
                  {rights.map((r) => (
                    <td key={r.right}>
                      <Allowed
                        duty={d}
                        right={r}
                        isFixed={!me.data?.isOwner}
                        keep={(allowed) => set.mutateAsync({ duty: d.duty, right: r.right, allowed })}
                      />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </DenseTable>
        )}
      </Shown>
      <Shown query={query} rows={1}>
        {({ rights }) => (
          <dl className="mt-5 grid gap-x-8 gap-y-1" style={{ gridTemplateColumns: 'max-content 1fr', maxWidth: 720 }}>
            {rights.map((r) => (
              <div key={r.right} className="contents">
                <dt className="font-semibold">{r.right.replace('-', ' ')}</dt>
                <dd className="mid">{r.says}</dd>
              </div>
            ))}
          </dl>
        )}
      </Shown>
    </Page>
  );
}
