import { useQuery } from '@tanstack/react-query';
import { afresh, useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { plural, when } from '../../../ui/format';
import { Glyph, type GlyphName } from '../../../ui/glyph';
import { OpenRow } from '../../../ui/open-row';
import { Empty, ProblemNote, Shown } from '../../../ui/states';
import { dropped } from './open-archive';
import { PicturesDialog } from './pictures-dialog';
import { inOrder, uploadImport } from './upload';
import { ListPage, useBeside } from '../../../ui/list-page';
import { Button, TextAnchor } from '../../../ui/button';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { MoreRows, useLongList } from '../../../ui/long-list';

type Row = Dto['ImportRowDto'];
const GLYPHS: Readonly<Record<string, GlyphName>> = {
  read: 'empty',
  checking: 'quarter',
  checked: 'half',
  applying: 'most',
  applied: 'full',
  undone: 'fb-wrong',
  failed: 'blocked',
};
const STATES: Readonly<Record<string, string>> = {
  read: 'say what its columns hold',
  checking: 'being checked',
  checked: 'checked, not taken in',
  applying: 'being taken in',
  applied: 'taken in',
  undone: 'taken back',
  failed: 'could not be checked',
};

function says(r: Row): string {
  if (r.state === 'applied') return `${plural(r.made, 'made', 'made')}, ${plural(r.changed, 'changed', 'changed')}`;
  if (r.state === 'checked' && r.faulty > 0) return `${plural(r.faulty, 'row is', 'rows are')} faulty`;
  return STATES[r.state] ?? r.state;
}

/** Files taken in: dropped or chosen, several at once, each opened in its turn; and the newest of what came before. */
export function ImportsPage() {
  const beside = useBeside();
  const { id: open } = useParams();
  const navigate = useNavigate();
  const me = useMe();
  const file = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [pictures, setPictures] = useState<readonly File[]>([]);
  const query = useLongList(key('imports', 'list'), (query) => ask(api.GET('/api/imports', { params: { query } })), {
    refetchInterval: (list) => (list?.rows.some((r) => r.state === 'checking' || r.state === 'applying') ? 500 : false),
  });
  const kinds = useQuery({ queryKey: key('imports', 'kinds'), queryFn: () => ask(api.GET('/api/imports/kinds')), staleTime: Infinity });
  const upload = useAct({
    act: async (files: readonly File[]) => {
      const parts = await dropped(files);
      const ids: string[] = [];
      for (const f of inOrder(parts.tables)) ids.push(await uploadImport(f, afresh()));
      return { ids, pictures: parts.pictures };
    },
    onDone: (taken) => {
      setPictures(taken.pictures);
      if (taken.ids[0]) void navigate(`/setup/imports/${taken.ids[0]}`);
    },
  });
  const take = (list: FileList | null) => {
    if (list && list.length > 0) upload.mutate([...list]);
  };
  return (
    <ListPage title="Imports" width={430}>
      <div
        className={`file-drop ${over ? 'over' : ''}`}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          take(e.dataTransfer.files);
        }}
      >
        <input
          ref={file}
          type="file"
          multiple
          accept=".csv,.tsv,.txt,.xlsx,.zip,.jpg,.jpeg,.png,.webp"
          className="sr-only"
          aria-label="Files to take in"
          onChange={(e) => take(e.target.files)}
        />
        <b className="text-head">{upload.isPending ? 'Reading …' : 'Drop spreadsheets and pictures here'}</b>
        <span className="mid">
          CSV or XLSX, pictures of items named by SKU or barcode, or an archive of them, several at once. Nothing is written before you have
          seen what is in them.
          {!beside && kinds.data && ` They may hold ${kinds.data.map((k) => k.says.toLowerCase()).join(', ')}.`}
        </span>
        <Button type="button" next={!beside} className="self-start mt-2" disabled={upload.isPending} onClick={() => file.current?.click()}>
          Choose files <Glyph name="go" size={13} />
        </Button>
      </div>
      <ProblemNote problem={upload.error} />
      {pictures.length > 0 && <PicturesDialog pictures={pictures} onClose={() => setPictures([])} />}
      <Shown query={query}>
        {({ rows: list }) =>
          list.length === 0 ? (
            <Empty title="Nothing taken in yet">
              Begin with items, then places, then opening stock. Files you took in can be taken back from here.
            </Empty>
          ) : (
            <DenseTable className="mt-4">
              <thead>
                <tr>
                  <GlyphCell />
                  <th>File</th>
                  {!beside && <th>Holds</th>}
                  <th className="num">Rows</th>
                  <th>State</th>
                  {!beside && <th>Who</th>}
                  {!beside && <th>When</th>}
                </tr>
              </thead>
              <tbody>
                {list.map((r) => (
                  <OpenRow key={r.id} to={`/setup/imports/${r.id}`} open={r.id === open}>
                    <GlyphCell>
                      <Glyph name={GLYPHS[r.state] ?? 'empty'} size={13} says={STATES[r.state]} />
                    </GlyphCell>
                    <td className="max-w-[220px] overflow-hidden text-ellipsis">{r.fileName}</td>
                    {!beside && <td>{r.says}</td>}
                    <td className="num">{r.total.toLocaleString('en-GB')}</td>
                    <td className={r.faulty > 0 && r.state === 'checked' ? 'stamped' : 'mid'}>{says(r)}</td>
                    {!beside && <td className="mid">{r.who}</td>}
                    {!beside && <td className="mid">{when(r.createdAt)}</td>}
                  </OpenRow>
                ))}
              </tbody>
            </DenseTable>
          )
        }
      </Shown>
      <MoreRows list={query} what={['import', 'imports']} />
      {!beside && (
        <p className="mt-5 flex gap-3 items-baseline flex-wrap">
          <span className="mid">Give everything out as it would be taken in again:</span>
          <TextAnchor href="/api/exports/everything.zip" download>
            all of it, as one archive with the pictures
          </TextAnchor>
          {kinds.data?.map((k) => (
            <span key={k.kind} className="whitespace-nowrap">
              {k.says}{' '}
              <TextAnchor href={`/api/exports/data/${k.kind}.csv`} download>
                CSV
              </TextAnchor>{' '}
              <TextAnchor href={`/api/exports/data/${k.kind}.xlsx`} download>
                XLSX
              </TextAnchor>
            </span>
          ))}
          {me.data && !me.data.seesCosts && <span className="note">without costs</span>}
        </p>
      )}
    </ListPage>
  );
}
