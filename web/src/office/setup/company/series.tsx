import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ask, type Dto } from '../../../api/client';
import { ProblemNote, Shown } from '../../../ui/states';

/** What the next document of each kind will be called. A series only ever goes on. */
export function Series() {
  const client = useQueryClient();
  const query = useQuery({ queryKey: ['series'], queryFn: () => ask(api.GET('/api/company/series')) });
  const set = useMutation({
    mutationFn: (body: Dto['SetSeriesDto']) => ask(api.PUT('/api/company/series', { body })),
    onSettled: () => client.invalidateQueries({ queryKey: ['series'] }),
  });
  return (
    <div>
      <div className="block-head">
        <h2>Number series</h2>
        <span className="note">The number that the next document gets. It can be moved on, never back.</span>
      </div>
      <ProblemNote problem={set.error} />
      <Shown query={query} rows={4}>
        {(list) => (
          <table className="dense" style={{ maxWidth: 520 }}>
            <tbody>
              {list.map((s) => (
                <tr key={s.name}>
                  <td>{s.says}</td>
                  <td className="code">{s.next}</td>
                  <td className="num">
                    <input
                      key={s.number}
                      className="input num"
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
          </table>
        )}
      </Shown>
    </div>
  );
}
