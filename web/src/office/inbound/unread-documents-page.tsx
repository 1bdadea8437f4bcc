import { useParams } from 'react-router';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { ListPage } from '../../ui/list-page';
import { MoreRows, useLongList } from '../../ui/long-list';
import { FilterLine } from '../../ui/page';
import { Empty, Shown } from '../../ui/states';
import { UnreadTable } from '../../ui/unread-table';
import { InboundWords } from './inbound-words';

/** Documents of suppliers' systems that could not be taken in: each waits to be taken in after all, or to be set aside. */
export function UnreadDocumentsPage() {
  const { id: open } = useParams();
  const query = useLongList(key('unread-documents'), (window) => ask(api.GET('/api/unread-documents', { params: { query: window } })));
  return (
    <ListPage title="Documents that cannot be taken in" width={520}>
      <FilterLine>
        <InboundWords here="unread" />
      </FilterLine>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="Every document was taken in">
              What a supplier’s own system sends and cannot be taken in waits here, as it came.
            </Empty>
          ) : (
            <UnreadTable
              rows={rows.map((d) => ({ ...d, from: d.supplier }))}
              heads={{ from: 'Supplier' }}
              to="/inbound/unread"
              open={open}
            />
          )
        }
      </Shown>
      <MoreRows list={query} what={['document', 'documents']} />
    </ListPage>
  );
}
