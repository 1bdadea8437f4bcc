import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { TextAnchor } from '../../ui/button';
import { plural, when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { MoreRows, useLongList } from '../../ui/long-list';
import { BlockHead } from '../../ui/page';
import { Shown } from '../../ui/states';
import { DenseTable, GlyphCell } from '../../ui/table';

/** What went with which van and who signed for it. */
export function HandOvers() {
  const query = useLongList(key('hand-overs'), (page) => ask(api.GET('/api/dispatch/hand-overs', { params: { query: page } })));
  return (
    <section className="mb-6" aria-label="Handed over">
      <BlockHead className="items-center">
        <h2>Handed over</h2>
      </BlockHead>
      <Shown query={query}>
        {({ rows }) =>
          rows.length === 0 ? (
            <p className="note py-3">Nothing has gone yet</p>
          ) : (
            <DenseTable>
              <thead>
                <tr>
                  <GlyphCell />
                  <th>List</th>
                  <th>Carrier</th>
                  <th className="num">When</th>
                  <th className="num">Parcels</th>
                  <th>Driver</th>
                  <th>Handed over by</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {rows.map((h) => (
                  <tr key={h.code}>
                    <GlyphCell>
                      <Glyph name={h.signed ? 'full' : 'empty'} size={14} says={h.signed ? 'signed' : 'not signed on a screen'} />
                    </GlyphCell>
                    <td>
                      <TextAnchor className="code" href={`/api/dispatch/hand-overs/${h.code}/list`} target="_blank" rel="noreferrer">
                        {h.code}
                      </TextAnchor>
                    </td>
                    <td>{h.carrier}</td>
                    <td className="num">{when(h.at)}</td>
                    <td className="num">{plural(h.parcels, 'parcel', 'parcels')}</td>
                    <td className={h.driver ? '' : 'mid'}>{h.driver ?? 'signs on paper'}</td>
                    <td className="mid">{h.person}</td>
                    <td className="num">
                      <TextAnchor href={`/api/dispatch/hand-overs/${h.code}/consignment-notes`} target="_blank" rel="noreferrer">
                        Consignment notes
                      </TextAnchor>
                    </td>
                  </tr>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['list', 'lists']} />
    </section>
  );
}
