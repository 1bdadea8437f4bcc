import { useQuery } from '@tanstack/react-query';
import { key } from '../../../api/keys';
import { useParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { ExportLinks } from '../../../ui/export-links';
import { plural } from '../../../ui/format';
import { Glyph, type GlyphName } from '../../../ui/glyph';
import { OpenRow } from '../../../ui/open-row';
import { Shown } from '../../../ui/states';
import { ListPage, useBeside } from '../../../ui/list-page';
import { FilterLine } from '../../../ui/page';
import { TextLink } from '../../../ui/button';
import { DenseTable, GlyphCell } from '../../../ui/table';

const STATES: Readonly<Record<string, readonly [GlyphName, string]>> = {
  here: ['full', 'works here'],
  invited: ['half', 'invited'],
  left: ['empty', 'has left'],
};
export const dutyWords = (duties: readonly string[]) => duties.map((d) => d.replace('-', ' ')).join(', ');

/** Who works here, with their duties and sites; one open beside the list. */
export function PeoplePage() {
  const beside = useBeside();
  const { id: open } = useParams();
  const query = useQuery({ queryKey: key('people'), queryFn: () => ask(api.GET('/api/people')) });
  return (
    <ListPage title="People" width={520}>
      <FilterLine>
        <span className="note">{query.data && plural(query.data.filter((p) => p.state !== 'left').length, 'person', 'people')}</span>
        <span className="flex gap-5 items-baseline">
          {!beside && <ExportLinks list="people" />}
          <TextLink to="/setup/people/duties">Duties and rights</TextLink>
          <TextLink to="/setup/people/new">Invite somebody</TextLink>
        </span>
      </FilterLine>
      <Shown query={query}>
        {(list) => (
          <DenseTable>
            <thead>
              <tr>
                <GlyphCell />
                <th>Name</th>
                <th>Duties</th>
                {!beside && <th>Sites</th>}
                {!beside && <th>Mail</th>}
                <th>Badge</th>
              </tr>
            </thead>
            <tbody>
              {list.map((p) => (
                <OpenRow key={p.id} to={`/setup/people/${p.id}`} open={String(p.id) === open} soft={p.state === 'left'}>
                  <GlyphCell>
                    <Glyph name={STATES[p.state]?.[0] ?? 'empty'} size={12} says={STATES[p.state]?.[1]} />
                  </GlyphCell>
                  <td>{p.name}</td>
                  <td className="max-w-[260px] overflow-hidden text-ellipsis">{dutyWords(p.duties)}</td>
                  {!beside && <td className="mid">{p.sites}</td>}
                  {!beside && <td className="mid">{p.email}</td>}
                  <td className="code">{p.badge}</td>
                </OpenRow>
              ))}
            </tbody>
          </DenseTable>
        )}
      </Shown>
    </ListPage>
  );
}
