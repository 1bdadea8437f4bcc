import { useQuery } from '@tanstack/react-query';
import { useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { key } from '../../../api/keys';
import { ExportLinks } from '../../../ui/export-links';
import { whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { ListPage, useBeside } from '../../../ui/list-page';
import { OpenRow } from '../../../ui/open-row';
import { Empty, Shown } from '../../../ui/states';
import { weightText } from '../../../ui/units';
import { FilterLine } from '../../../ui/page';
import { TextLink } from '../../../ui/button';
import { DenseTable, GlyphCell } from '../../../ui/table';

const left = (b: Dto['BoxDto']) => b.stock.reduce((sum, k) => sum + k.units, 0);
const isLow = (b: Dto['BoxDto']) => b.stock.some((k) => k.units <= b.lowAt && b.lowAt > 0);

/** The boxes that parcels are packed in, smallest first. */
export function BoxesPage() {
  const beside = useBeside();
  const { code: open } = useParams();
  const query = useQuery({ queryKey: key('cartons'), queryFn: () => ask(api.GET('/api/boxes')) });
  return (
    <ListPage title="Boxes" width={420}>
      <FilterLine>
        {!beside && <ExportLinks list="boxes" />}
        <span />
        <TextLink to="/setup/boxes/new">New box</TextLink>
      </FilterLine>
      <Shown query={query}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="No boxes yet">A parcel is packed in a box: say its inner size and what it carries.</Empty>
          ) : (
            <DenseTable className="w-full">
              <thead>
                <tr>
                  <GlyphCell />
                  <th>Box</th>
                  <th className="num">Inside, mm</th>
                  {!beside && <th className="num">Holds, l</th>}
                  {!beside && <th className="num">Weighs</th>}
                  <th className="num">Carries</th>
                  {!beside && <th className="num">Costs</th>}
                  {!beside && <th>Kept as</th>}
                  <th className="num">Left</th>
                </tr>
              </thead>
              <tbody>
                {list.map((b) => (
                  <OpenRow key={b.code} to={`/setup/boxes/${b.code}`} open={b.code === open}>
                    <GlyphCell>{isLow(b) && <Glyph name="blocked" size={12} says="few are left" />}</GlyphCell>
                    <td className="code">{b.code}</td>
                    <td className="num">
                      {b.lengthMm} × {b.widthMm} × {b.heightMm}
                    </td>
                    {!beside && <td className="num">{((b.lengthMm * b.widthMm * b.heightMm) / 1_000_000).toFixed(1)}</td>}
                    {!beside && <td className="num">{weightText(b.tareG)}</td>}
                    <td className="num">{weightText(b.mostG)}</td>
                    {!beside && <td className="num">{b.cost === undefined ? '' : Number(b.cost).toFixed(2)}</td>}
                    {!beside && <td className="code">{b.sku}</td>}
                    <td className="num strong">{b.stock.length === 0 && !b.sku ? 'not counted' : whole(left(b))}</td>
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
    </ListPage>
  );
}
