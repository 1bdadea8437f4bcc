import { useAct } from '../../api/use-act';
import { key } from '../../api/keys';
import { api, ask } from '../../api/client';
import { clockSeconds } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { Page } from '../../ui/page';
import { DenseTable, GlyphCell } from '../../ui/table';
import { TextButton } from '../../ui/button';
import { MoreRows, useLongList } from '../../ui/long-list';

const KIND_WORDS: Readonly<Record<string, string>> = {
  'shop.stock': 'stock figure',
  'shop.shipment': 'shipment',
  'mail.purchase-order': 'mail, purchase order',
  'mail.shipment': 'mail, shipment',
  'carrier.label': 'label',
  'carrier.void': 'label given back',
  'carrier.manifest': 'what the driver took',
  'transfer.label': 'label, transfer',
  'transfer.void': 'label given back, transfer',
  'transfer.manifest': 'what the driver took, transfer',
  'print.label': 'print, label',
};

/** What waits to leave the building, with its state and a retry. */
export function OutboxList() {
  const query = useLongList(key('outbox'), (query) => ask(api.GET('/api/outbox', { params: { query } })), { refetchInterval: 3_000 });
  const retry = useAct({ act: (id: number, once) => ask(api.POST('/api/outbox/{id}/retry', { params: { path: { id } }, headers: once })) });
  return (
    <Page aria-label="Outbox" tabIndex={0}>
      <h1 className="sr">Outbox</h1>
      <ProblemNote problem={retry.error} />
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing has left yet">Stock figures, labels, mail and papers pass through here.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <GlyphCell />
                  <th>Written</th>
                  <th>To</th>
                  <th>What</th>
                  <th>About</th>
                  <th className="num">Tries</th>
                  <th>State</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {list.map((o) => (
                  <tr key={o.id}>
                    <GlyphCell>
                      <Glyph name={o.state === 'done' ? 'full' : o.state === 'failing' ? 'blocked' : 'empty'} size={13} says={o.state} />
                    </GlyphCell>
                    <td className="mid">{clockSeconds(o.createdAt)}</td>
                    <td className="code">{o.receiver}</td>
                    <td>{KIND_WORDS[o.kind] ?? o.kind}</td>
                    <td className="code">{o.document}</td>
                    <td className="num">{o.attempts}</td>
                    <td className={o.state === 'failing' ? 'stamped max-w-[360px] overflow-hidden text-ellipsis' : 'mid'}>
                      {o.lastError ?? o.state}
                    </td>
                    <td className="num">
                      {o.state !== 'done' && (
                        <TextButton type="button" onClick={() => retry.mutate(o.id)}>
                          Try now
                        </TextButton>
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['message', 'messages']} />
    </Page>
  );
}
