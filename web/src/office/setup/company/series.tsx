import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { api, ask, type Dto } from '../../../api/client';
import { ProblemNote, Shown } from '../../../ui/states';
import { BlockHead } from '../../../ui/page';
import { DenseTable } from '../../../ui/table';
import { Input } from '../../../ui/input';

/** What the next document of each kind will be called. A series only ever goes on. */
export function Series() {
  const query = useQuery({ queryKey: key('series'), queryFn: () => ask(api.GET('/api/company/series')) });
  const set = useAct({ act: (body: Dto['SetSeriesDto'], once) => ask(api.PUT('/api/company/series', { body, headers: once })) });
  return (
    <div>
      <BlockHead>
        <h2>Number series</h2>
        <span className="note">The number that the next document gets. It can be moved on, never back.</span>
      </BlockHead>
      <ProblemNote problem={set.error} />
      <Shown query={query} rows={4}>
        {(list) => (
          <DenseTable style={{ maxWidth: 520 }}>
            <tbody>
              {list.map((s) => (
                <tr key={s.name}>
                  <td>{s.says}</td>
                  <td className="code">{s.next}</td>
                  <td className="num">
                    <Input
                      key={s.number}
                      className="num"
                      style={{ width: 110 }}
                      inputMode="numeric"
                      aria-label={`Next number of ${s.says.toLowerCase()}`}
                      defaultValue={s.number}
                      onBlur={(e) =>
                        Number(e.target.value) !== s.number &&
                        set.mutate({ name: s.name as Dto['SetSeriesDto']['name'], number: Number(e.target.value) })
                      }
                      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </DenseTable>
        )}
      </Shown>
    </div>
  );
}
