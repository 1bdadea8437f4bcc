import { useQuery } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { TextButton } from '../../../ui/button';
import { when } from '../../../ui/format';
import { Glyph, type GlyphName } from '../../../ui/glyph';
import { MoreRows, useLongList } from '../../../ui/long-list';
import { Empty, Shown } from '../../../ui/states';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { readably } from '../../orders/readably';

type Row = Dto['ExchangeRowDto'];
const WENT: Readonly<Record<string, readonly [GlyphName, string]>> = {
  well: ['full', 'done'],
  again: ['empty', 'said nothing new'],
  parked: ['blocked', 'put aside to be mended'],
  failed: ['held', 'failed'],
};
const SAYS: Readonly<Record<string, string>> = {
  'in order': 'An order',
  'in change': 'A change of an order',
  'in cancel': 'A cancellation',
  'in message': 'Something unreadable',
  'in file': 'A file of orders',
  'out taken': 'Told that an order came in',
  'out parcel': 'Told of a parcel',
  'out cancel': 'Told of a cancellation',
  'out stock': 'Told of stock',
  'out asked': 'Asked for orders',
};

function Raw({ channel, id }: { channel: string; id: number }) {
  const query = useQuery({
    queryKey: key('exchange', channel, id),
    queryFn: () => ask(api.GET('/api/channels/{code}/exchanges/{id}', { params: { path: { code: channel, id } } })),
  });
  return (
    <Shown query={query}>
      {(e) => (
        <pre className="code whitespace-pre-wrap break-all py-2 max-h-[320px] overflow-y-auto">
          {readably(e.raw ?? 'Nothing was sent along')}
        </pre>
      )}
    </Shown>
  );
}

/** What was said between the house and a channel, newest first; each opens to what was sent. */
export function ChannelMessages({ channel }: { channel: string }) {
  const [open, setOpen] = useState<number | null>(null);
  const list = useLongList(key('exchanges', channel), (query) =>
    ask(api.GET('/api/channels/{code}/exchanges', { params: { path: { code: channel }, query } })),
  );
  return (
    <>
      <Shown query={list}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title="No message yet">Each that comes from this channel, and each that it is told, is kept here as it was.</Empty>
          ) : (
            <DenseTable className="w-full">
              <tbody>
                {rows.map((e: Row) => {
                  const [glyph, says] = WENT[e.went] ?? ['empty', e.went];
                  return (
                    <Fragment key={e.id}>
                      <tr>
                        <GlyphCell>
                          <Glyph name={glyph} size={13} says={says} />
                        </GlyphCell>
                        <td className="mid whitespace-nowrap">{when(e.at)}</td>
                        <td>
                          <TextButton type="button" aria-expanded={open === e.id} onClick={() => setOpen(open === e.id ? null : e.id)}>
                            {SAYS[`${e.direction} ${e.what}`] ?? e.what}
                          </TextButton>
                        </td>
                        <td className="code">{e.ref}</td>
                        <td className={`whitespace-normal ${e.went === 'well' || e.went === 'again' ? 'mid' : 'stamped'}`}>{e.detail}</td>
                      </tr>
                      {open === e.id && (
                        <tr>
                          <td colSpan={5}>
                            <Raw channel={channel} id={e.id} />
                          </td>
                        </tr>
                      )}
                    </Fragment>
                  );
                })}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={list} what={['message', 'messages']} />
    </>
  );
}
