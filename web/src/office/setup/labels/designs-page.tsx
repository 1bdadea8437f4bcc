import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { Page, FilterLine } from '../../../ui/page';
import { TextLink, TextButton } from '../../../ui/button';
import { DenseTable } from '../../../ui/table';

const mediaWords = (m: Dto['MediaDto']) =>
  m.kind === 'roll' ? `${m.widthMm} × ${m.heightMm} mm, roll` : `${m.widthMm} × ${m.heightMm} mm, ${m.columns} × ${m.rows} on a sheet`;

/** Every label design, to be changed, copied, printed with or thrown out. */
export function DesignsPage() {
  const query = useQuery({ queryKey: key('designs'), queryFn: () => ask(api.GET('/api/labels/designs')) });
  const drop = useAct({
    act: (id: number, once) => ask(api.DELETE('/api/labels/designs/{id}', { params: { path: { id } }, headers: once })),
  });
  return (
    <Page aria-label="Label designs">
      <h1 className="sr">Label designs</h1>
      <FilterLine>
        <span className="mid">What a label shows and where; the preview is the print.</span>
        <TextLink to="/setup/labels/new">New design</TextLink>
      </FilterLine>
      <ProblemNote problem={drop.error} />
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No designs">Make one: drag what should stand on the label into place.</Empty>
          ) : (
            <DenseTable style={{ maxWidth: 980 }}>
              <thead>
                <tr>
                  <th>Design</th>
                  <th>Of</th>
                  <th>Printed on</th>
                  <th className="num">Elements</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {list.map((d) => (
                  <tr key={d.id}>
                    <td>
                      <Link to={`/setup/labels/${d.id}`}>{d.name}</Link>
                    </td>
                    <td className="mid">{d.subject}s</td>
                    <td className="mid">{mediaWords(d.media)}</td>
                    <td className="num">{d.elements.length}</td>
                    <td className="num">
                      <TextLink to={`/setup/labels/print?subject=${d.subject}`}>Print</TextLink>{' '}
                      <TextLink className="ml-3" to={`/setup/labels/new?copy=${d.id}`}>
                        Copy
                      </TextLink>
                      <TextButton type="button" className="ml-3" disabled={drop.isPending} onClick={() => drop.mutate(d.id)}>
                        Throw out
                      </TextButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
    </Page>
  );
}
