import { key } from '../../api/keys';
import { useParams } from 'react-router';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { age, clock, dayWord, plural } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Empty, Shown } from '../../ui/states';
import { GroupedList } from './grouped-list';
import { arrivalGroups } from './groups';
import { InboundWords } from './inbound-words';
import { ListPage } from '../../ui/list-page';
import { OpenItem } from '../../ui/open-row';
import { FilterLine } from '../../ui/page';
import { MoreRows, useLongList } from '../../ui/long-list';

type Row = Dto['ArrivalRowDto'];

function glyphOf(a: Row): GlyphName {
  if (a.state === 'closed') return 'full';
  if (a.state === 'open') return 'half';
  return a.late ? 'blocked' : 'empty';
}

function when(a: Row): string {
  if (a.state === 'open' && a.openedAt) return `here ${age(a.openedAt)}`;
  if (a.state === 'closed' && a.closedAt) return `${clock(a.closedAt)}${a.closedBy ? `, ${a.closedBy}` : ''}`;
  return dayWord(a.expectedOn);
}

function what(a: Row): string {
  const parts = [
    a.orders.join(', ') || 'no order',
    a.door ? `at ${a.door}` : '',
    a.pallets > 0 ? `${a.palletsIn} of ${plural(a.pallets, 'pallet', 'pallets')} in` : '',
    a.receipts > 0 ? plural(a.receipts, 'receipt', 'receipts') : '',
  ];
  return parts.filter(Boolean).join(' · ');
}

function ArrivalRow({ arrival, open }: { arrival: Row; open: boolean }) {
  const to = `/inbound/arrivals/${arrival.code}`;
  return (
    <OpenItem to={to} open={open}>
      <Glyph name={glyphOf(arrival)} size={14} says />
      <span>
        <Link to={to}>
          <b>{arrival.supplier}</b>
        </Link>
        <span className="note">
          <span className="code">{arrival.code}</span> {what(arrival)}
        </span>
        {arrival.aside > 0 && <span className="note stamped block">{arrival.aside} damaged or set apart</span>}
      </span>
      <span className={`note ${arrival.late ? 'stamped' : ''}`}>{when(arrival)}</span>
    </OpenItem>
  );
}

/** Arrivals: what stands at the door and for how long, what was announced, and what came in, by whom and on which day. */
export function ArrivalsPage() {
  const { code: open } = useParams();
  const query = useLongList(key('arrivals'), (query) => ask(api.GET('/api/arrivals', { params: { query } })));
  return (
    <ListPage title="Arrivals" width={360} grouped>
      <FilterLine>
        <InboundWords here="arrivals" />
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing has come yet">
              An arrival begins when the first goods of an order are booked in, or when a supplier announces them.
            </Empty>
          ) : (
            <GroupedList
              groups={arrivalGroups(list, new Date())}
              row={(a) => <ArrivalRow key={a.code} arrival={a} open={a.code === open} />}
            />
          )
        }
      </Shown>
      <MoreRows list={query} what={['arrival', 'arrivals']} />
    </ListPage>
  );
}
