import { useQuery } from '@tanstack/react-query';
import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useParams } from 'react-router';
import { api, ask } from '../../api/client';
import { useMe } from '../../api/queries';
import { day, plural } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { OpenRow } from '../../ui/open-row';
import { Empty, Shown } from '../../ui/states';
import { InboundWords } from './inbound-words';
import { ListPage } from '../../ui/list-page';
import { FilterLine } from '../../ui/page';
import { TextLink } from '../../ui/button';
import { DenseTable } from '../../ui/table';
import { MoreRows, useLongList } from '../../ui/long-list';

const GLYPHS: Readonly<Record<string, GlyphName>> = { sent: 'half', credited: 'full', 'taken back': 'undo' };
export const RETURN_STATES: Readonly<Record<string, string>> = {
  sent: 'gone, credit awaited',
  credited: 'credited',
  'taken back': 'taken back',
};

/** What went back to suppliers, those that wait for their credit first. */
export function ReturnsPage() {
  const { code: open } = useParams();
  const me = useMe();
  const query = useLongList(key('supplier-returns'), (query) => ask(api.GET('/api/supplier-returns', { params: { query } })));
  const aside = useQuery({ queryKey: key('aside'), queryFn: () => ask(api.GET('/api/supplier-returns/aside')) });
  const waiting = aside.data?.length ?? 0;
  return (
    <ListPage title="Returns to suppliers" width={520}>
      <FilterLine>
        <InboundWords here="returns" />
        {me.data?.rights.includes('buy') && (
          <TextLink to="/inbound/returns/new">{waiting > 0 ? `Send back, ${waiting} apart` : 'Send goods back'}</TextLink>
        )}
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing has gone back yet">
              {waiting > 0
                ? `${plural(waiting, 'lot of goods stands', 'lots of goods stand')} apart, damaged or wrong. Choose what goes back.`
                : 'What the dock sets apart, damaged or wrong, can be sent back from here.'}
            </Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td />
                  <th>Return</th>
                  <th>Supplier</th>
                  <th>Sent</th>
                  <th className="num">Lines</th>
                  <th className="num">Credit</th>
                </tr>
              </thead>
              <tbody>
                {list.map((r) => (
                  <OpenRow key={r.code} to={`/inbound/returns/${r.code}`} open={r.code === open} soft={r.state === 'taken back'}>
                    <td>
                      <Glyph name={GLYPHS[r.state] ?? 'empty'} size={14} says />
                    </td>
                    <td className="code">{r.code}</td>
                    <td>{r.supplier}</td>
                    <td className="mid">{day(r.sentAt)}</td>
                    <td className="num">{r.lines}</td>
                    <td className="num">{r.expected ? moneyText(micro(r.expected), r.currency) : ''}</td>
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['return', 'returns']} />
    </ListPage>
  );
}
