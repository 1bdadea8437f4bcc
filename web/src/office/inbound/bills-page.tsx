import { key } from '../../api/keys';
import { micro, moneyText } from '@vectrum/core/money';
import { useParams } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { day } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { OpenRow } from '../../ui/open-row';
import { Empty, Shown } from '../../ui/states';
import { InboundWords } from './inbound-words';
import { ListPage } from '../../ui/list-page';
import { FilterLine } from '../../ui/page';
import { TextLink } from '../../ui/button';
import { DenseTable } from '../../ui/table';
import { MoreRows, useLongList } from '../../ui/long-list';

const GLYPHS: Readonly<Record<string, GlyphName>> = { differs: 'blocked', queried: 'held', posted: 'full' };
export const BILL_STATES: Readonly<Record<string, string>> = { differs: 'differs, wants a decision', queried: 'queried', posted: 'posted' };

/** Suppliers' bills: those that differ from order or arrival first. */
export function BillsPage() {
  const { code: open } = useParams();
  const query = useLongList(key('bills'), (query) => ask(api.GET('/api/bills', { params: { query } })));
  return (
    <ListPage title="Bills" width={500}>
      <FilterLine>
        <InboundWords here="bills" />
        <TextLink to="/inbound/bills/new">Enter a bill</TextLink>
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="No bills yet">Enter one when it comes: it is held against order and arrival, and posted where it fits.</Empty>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <td />
                  <th>Bill</th>
                  <th>Supplier</th>
                  <th>Of</th>
                  <th className="num">Total</th>
                </tr>
              </thead>
              <tbody>
                {list.map((b: Dto['BillRowDto']) => (
                  <OpenRow key={b.code} to={`/inbound/bills/${b.code}`} open={b.code === open}>
                    <td>
                      <Glyph name={GLYPHS[b.state] ?? 'empty'} size={14} says />
                    </td>
                    <td className="code">{b.code}</td>
                    <td>{b.supplier}</td>
                    <td className="mid">{day(b.billedOn)}</td>
                    <td className="num">{moneyText(micro(b.total), b.currency)}</td>
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['bill', 'bills']} />
    </ListPage>
  );
}
