import { useQuery } from '@tanstack/react-query';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { useAct } from '../../api/use-act';
import { Select } from '../../ui/input';
import { ProblemNote } from '../../ui/states';

type Round = Dto['RoundSheetDto'];

/** Who goes to a stop; whoever decides on rounds takes it from one and gives it to another. */
export function StopPicker({ round, stop }: { round: Round; stop: Round['stops'][number] }) {
  const rights = useMe().data?.rights ?? [];
  const isOpen = stop.picked + stop.short < stop.units && (round.state === 'waiting' || round.state === 'picking');
  const mayGive = isOpen && rights.includes('release');
  const pickers = useQuery({
    queryKey: key('pickers', round.siteId),
    queryFn: () => ask(api.GET('/api/sites/{siteId}/pickers', { params: { path: { siteId: round.siteId } } })),
    enabled: mayGive,
    staleTime: 60_000,
  });
  const give = useAct({
    act: (personId: number | null, once) =>
      ask(
        api.POST('/api/rounds/{code}/stops/{stopId}/give', {
          params: { path: { code: round.code, stopId: stop.id } },
          headers: once,
          body: { personId },
        }),
      ),
  });
  if (!mayGive) return <>{stop.by ?? ''}</>;
  return (
    <>
      <Select
        className="w-32 max-sm:w-[92px]"
        aria-label={`Who goes to ${stop.place} for ${stop.item}`}
        value={stop.by === round.picker ? '' : (stop.byId ?? '')}
        disabled={give.isPending}
        onChange={(e) => give.mutate(e.target.value === '' ? null : Number(e.target.value))}
      >
        <option value="">{round.picker ?? 'whoever takes it'}</option>
        {pickers.data
          ?.filter((p) => p.name !== round.picker)
          .map((p) => (
            <option key={p.id} value={p.id}>
              {p.name}
            </option>
          ))}
      </Select>
      {give.error && <ProblemNote problem={give.error} />}
    </>
  );
}
