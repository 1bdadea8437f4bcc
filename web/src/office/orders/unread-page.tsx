import { useParams } from 'react-router';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { ListPage } from '../../ui/list-page';
import { FilterLine } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { UnreadTable } from '../../ui/unread-table';
import { OrdersWords } from './orders-words';
import { MoreRows, useLongList } from '../../ui/long-list';

/** Messages of channels that cannot be understood: each waits to be mended or set aside, and holds up no other. */
export function UnreadPage() {
  const { id: open } = useParams();
  const query = useLongList(key('unread'), (query) => ask(api.GET('/api/parked-messages', { params: { query } })));
  return (
    <ListPage title="Messages that cannot be understood" width={520}>
      <FilterLine>
        <OrdersWords here="/orders/unread" />
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Every message was understood">What a channel sends and nobody can read waits here, as it came.</Empty>
          ) : (
            <UnreadTable
              rows={list.map((m) => ({ ...m, from: m.channel }))}
              heads={{ from: 'Channel', ref: 'Their number' }}
              to="/orders/unread"
              open={open}
            />
          )
        }
      </Shown>
      <MoreRows list={query} what={['message', 'messages']} />
    </ListPage>
  );
}
