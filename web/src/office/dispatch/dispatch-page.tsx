import { useQuery } from '@tanstack/react-query';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { Page } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { HandOvers } from './hand-overs';
import { LaneBlock } from './lane-block';
import { MissedBlock, UnroutedBlock } from './trouble';

/** The dispatch lanes: what waits for which van, what missed it, and what went. */
export function DispatchPage() {
  const query = useQuery({ queryKey: key('lanes'), queryFn: () => ask(api.GET('/api/dispatch/lanes')) });
  const trouble = useQuery({ queryKey: key('dispatch-trouble'), queryFn: () => ask(api.GET('/api/dispatch/trouble')) });
  return (
    <Page aria-label="Dispatch lanes">
      <h1 className="sr">Dispatch lanes</h1>
      <Shown query={query}>
        {(lanes) => {
          const first = lanes.find((l) => l.parcels.some((p) => p.state === 'labelled'))?.lane;
          return lanes.length === 0 ? (
            <Empty title="No carriers yet">Carriers come with the set-up of a site.</Empty>
          ) : (
            <>
              {trouble.data && <UnroutedBlock unrouted={trouble.data.unrouted} />}
              {lanes.map((l) => (
                <LaneBlock key={l.lane} lane={l} first={l.lane === first} />
              ))}
              {trouble.data && <MissedBlock missed={trouble.data.missed} />}
              <HandOvers />
            </>
          );
        }}
      </Shown>
    </Page>
  );
}
