import { key } from '../../../api/keys';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { age, day } from '../../../ui/format';
import { Glyph, type GlyphName } from '../../../ui/glyph';
import { Empty, Shown } from '../../../ui/states';
import { GroupedList } from '../grouped-list';
import { InboundWords } from '../inbound-words';
import { ListPage } from '../../../ui/list-page';
import { OpenItem } from '../../../ui/open-row';
import { FilterLine } from '../../../ui/page';
import { TextLink } from '../../../ui/button';
import { MoreRows, useLongList } from '../../../ui/long-list';

type Row = Dto['InspectionRowDto'];

const glyphOf = (r: Row): GlyphName => (r.closedAt === null ? 'held' : r.passed ? 'full' : 'blocked');

/** What waits to be looked at, the oldest first, then what was. */
export function inspectionGroups(list: readonly Row[]): [string, Row[]][] {
  const groups: [string, Row[]][] = [
    ['Wait to be looked at', list.filter((r) => r.closedAt === null)],
    ['Rejected, in whole or part', list.filter((r) => r.closedAt !== null && !r.passed)],
    ['Passed', list.filter((r) => r.closedAt !== null && r.passed)],
  ];
  return groups.filter(([, rows]) => rows.length > 0);
}

function InspectionRow({ inspection: r, open }: { inspection: Row; open: boolean }) {
  const to = `/inbound/inspection/${r.code}`;
  return (
    <OpenItem to={to} open={open}>
      <Glyph name={glyphOf(r)} size={14} says />
      <span>
        <Link to={to}>
          <b>{r.name}</b>
        </Link>
        <span className="note">
          {r.words} from {r.supplier ?? 'nobody known'} · <span className="code">{r.arrival}</span>
        </span>
      </span>
      <span className="note">{r.closedAt === null ? `here ${age(r.openedAt)}` : day(r.closedAt)}</span>
    </OpenItem>
  );
}

/** Deliveries that are held until somebody has looked at them. */
export function InspectionsPage() {
  const { code: open } = useParams();
  const query = useLongList(key('inspections'), (query) => ask(api.GET('/api/inspections', { params: { query } })));
  return (
    <ListPage title="Inspection" width={480} grouped>
      <FilterLine>
        <InboundWords here="inspection" />
        <TextLink to="/inbound/inspection/rules">What is looked at</TextLink>
      </FilterLine>
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing waits to be looked at">
              Say under “What is looked at” which items or suppliers are inspected. Their goods are then held as they come in.
            </Empty>
          ) : (
            <GroupedList
              groups={inspectionGroups(list)}
              row={(r) => <InspectionRow key={r.code} inspection={r} open={r.code === open} />}
            />
          )
        }
      </Shown>
      <MoreRows list={query} what={['inspection', 'inspections']} />
    </ListPage>
  );
}
