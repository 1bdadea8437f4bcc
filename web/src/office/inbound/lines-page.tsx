import { Link } from 'react-router';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { Days, useAsked } from '../../ui/asked';
import { ExportLinks } from '../../ui/export-links';
import { day } from '../../ui/format';
import { Glyph, type GlyphName } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { MoreRows, useLongList } from '../../ui/long-list';
import { FilterLine, Page } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { Empty, Shown } from '../../ui/states';
import { LinesTable, PictureCell } from '../../ui/table';
import { WordLinks } from '../../ui/word-links';
import { itemPath } from '../item-path';
import { InboundWords } from './inbound-words';

type Row = Dto['InboundLineDto'];

const CAME_AS: Readonly<Record<string, string>> = { extra: 'beyond its order', unordered: 'on no order', apart: 'set apart' };

/** Lines that are due, or goods that came in, between two days; with the file of just these. */
export function LinesPage() {
  const { asked, put } = useAsked();
  const what = asked('what') === 'received' ? 'received' : 'due';
  const [from, to, search] = ['from', 'to', 'search'].map(asked) as [string, string, string];
  const filter = { what, from, to, search } as const;
  const query = useLongList(key('inbound-lines', what, from, to, search), (window) =>
    ask(api.GET('/api/inbound-lines', { params: { query: { ...window, ...filter } } })),
  );
  return (
    <Page aria-label="Lines">
      <h1 className="sr">{what === 'due' ? 'Lines that are due' : 'Lines that came in'}</h1>
      <FilterLine>
        <InboundWords here="lines" />
        <ExportLinks list="inbound-lines" query={filter} />
      </FilterLine>
      <div className="flex flex-wrap gap-x-5 gap-y-2 items-center mb-3">
        <WordLinks
          label="What is shown"
          links={[
            { to: '/inbound/lines', says: 'Due' },
            { to: '/inbound/lines?what=received', says: 'Received' },
          ]}
          here={what === 'due' ? '/inbound/lines' : '/inbound/lines?what=received'}
        />
        <Days asked={asked} put={put} />
        <Input
          className="w-[240px]"
          aria-label="Supplier, goods or order"
          placeholder="supplier, goods or order"
          value={search}
          onChange={(e) => put('search', e.target.value)}
        />
      </div>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <Empty title={what === 'due' ? 'Nothing is due in these days' : 'Nothing came in these days'}>
              Choose other days, or leave them empty to see all.
            </Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <th>Day</th>
                  <td />
                  <th>Goods</th>
                  <th className="num">{what === 'due' ? 'To come' : 'Came'}</th>
                  <th>Supplier</th>
                  <th>Order</th>
                  <th>{what === 'due' ? 'To' : 'Booked in'}</th>
                </tr>
              </thead>
              <tbody>
                {rows.map((l, i) => (
                  <LineRow key={`${l.order}/${l.line}/${l.arrival}/${i}`} line={l} />
                ))}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['line', 'lines']} />
    </Page>
  );
}

function glyphOf(l: Row): GlyphName {
  if (l.by === null) return l.late ? 'blocked' : 'empty';
  return l.condition === 'good' ? 'full' : 'held';
}

function LineRow({ line: l }: { line: Row }) {
  const came = [CAME_AS[l.takenAs], l.condition === 'damaged' ? 'damaged' : ''].filter(Boolean).join(', ');
  return (
    <tr>
      <td>
        <Glyph name={glyphOf(l)} size={14} says />
      </td>
      <td className={l.late ? 'stamped' : ''}>{l.day === null ? 'no day' : day(l.day)}</td>
      <PictureCell>
        <Picture name={l.picture} size={30} />
      </PictureCell>
      <td>
        <Link to={itemPath(l.sku)}>
          <b>{l.name}</b>
        </Link>
        <span className="note code">{l.sku}</span>
      </td>
      <td className="num">
        {l.words}
        {came && <span className="note stamped">{came}</span>}
      </td>
      <td>{l.supplier}</td>
      <td className="code">
        {l.order ? <Link to={`/inbound/${l.order}`}>{l.order}</Link> : ''}
        {l.line !== null && <span className="note">line {l.line}</span>}
      </td>
      <td>
        {l.by === null ? (
          l.site
        ) : (
          <>
            {l.by}
            <span className="note">
              {l.arrival && (
                <Link className="code" to={`/inbound/arrivals/${l.arrival}`}>
                  {l.arrival}
                </Link>
              )}
            </span>
          </>
        )}
      </td>
    </tr>
  );
}
