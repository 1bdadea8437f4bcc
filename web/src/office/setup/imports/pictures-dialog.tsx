import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, ask, type Dto, ProblemError } from '../../../api/client';
import { key } from '../../../api/keys';
import { sendFile } from '../../../api/send-file';
import { afresh, useAct } from '../../../api/use-act';
import { Button } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { plural } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { Shown } from '../../../ui/states';
import { DenseTable, GlyphCell } from '../../../ui/table';
import { nameOf } from './open-archive';

const AT_ONCE = 100;

/** Which items the files are named for, asked for a hundred at a time. */
async function named(files: readonly File[]): Promise<Map<string, Dto['PictureForDto']['item']>> {
  const names = [...new Set(files.map(nameOf))].filter((name) => name !== '' && !name.includes(','));
  const found: Dto['PictureForDto'][] = [];
  for (let i = 0; i < names.length; i += AT_ONCE)
    found.push(...(await ask(api.GET('/api/pictures', { params: { query: { names: names.slice(i, i + AT_ONCE).join(',') } } }))));
  return new Map(found.map((f) => [f.name, f.item]));
}

/** How each file has fared: null where it is in place, otherwise why not. */
type Fates = ReadonlyMap<File, string | null>;

/** Pictures of items by the names of their files: what they would be pictures of is shown before any is put in place. */
export function PicturesDialog({ pictures, onClose }: { pictures: readonly File[]; onClose: () => void }) {
  const [fates, setFates] = useState<Fates>(new Map());
  const query = useQuery({ queryKey: key('items', 'named', pictures.map(nameOf)), queryFn: () => named(pictures), staleTime: Infinity });
  const put = useAct({
    act: async (items: ReadonlyMap<string, Dto['PictureForDto']['item']>) => {
      const now = new Map(fates);
      for (const file of pictures) {
        const item = items.get(nameOf(file));
        if (!item || now.has(file)) continue;
        try {
          await sendFile('PUT', `/api/items/${encodeURIComponent(item.sku)}/picture`, file, afresh());
          now.set(file, null);
        } catch (thrown) {
          if (!(thrown instanceof ProblemError)) throw thrown;
          now.set(file, thrown.fields?.['picture'] ?? thrown.message);
        }
        setFates(new Map(now));
      }
    },
  });
  const done = [...fates.values()].filter((f) => f === null).length;
  return (
    <Dialog
      title="Pictures of items"
      about="Each file is named for its item: by the SKU, or by one of its barcodes."
      {...(put.isPending ? {} : { onClose })}
    >
      <Shown query={query}>
        {(items) => {
          const known = pictures.filter((f) => items.get(nameOf(f)));
          // What was refused would be refused again.
          const left = known.filter((f) => !fates.has(f)).length;
          return (
            <>
              <div className="mt-3 max-h-[44vh] overflow-y-auto" tabIndex={0} role="group" aria-label="Files and their items">
                <DenseTable>
                  <tbody>
                    {pictures.map((file, i) => (
                      <PictureRow key={i} file={file} item={items.get(nameOf(file)) ?? null} fate={fates.get(file)} />
                    ))}
                  </tbody>
                </DenseTable>
              </div>
              <p className="mt-3" role="status">
                {put.isPending || done > 0
                  ? `${plural(done, 'picture', 'pictures')} of ${known.length} put in place.`
                  : `${plural(known.length, 'file', 'files')} of ${pictures.length} ${known.length === 1 ? 'has its' : 'have their'} item.`}
              </p>
              {put.error && (
                <p className="stamped mt-2" role="alert">
                  The server does not answer. What is in place stays; press again to go on
                </p>
              )}
              <div className="flex gap-3 mt-4">
                {left > 0 && (
                  <Button type="button" next disabled={put.isPending} onClick={() => put.mutate(items)}>
                    {put.isPending ? 'Putting in place …' : `Put ${plural(left, 'picture', 'pictures')} in place`}
                  </Button>
                )}
                <Button type="button" disabled={put.isPending} onClick={onClose}>
                  Close
                </Button>
              </div>
            </>
          );
        }}
      </Shown>
    </Dialog>
  );
}

function PictureRow({ file, item, fate }: { file: File; item: Dto['PictureForDto']['item']; fate: string | null | undefined }) {
  const wrong = item === null ? 'No item has this SKU or barcode' : (fate ?? null);
  const isIn = fate === null;
  return (
    <tr>
      <GlyphCell>
        <Glyph name={wrong ? 'blocked' : isIn ? 'full' : 'empty'} size={13} says={wrong ? 'not taken in' : isIn ? 'in place' : 'waits'} />
      </GlyphCell>
      <td className="max-w-[150px] overflow-hidden text-ellipsis whitespace-nowrap" title={file.name}>
        {file.name}
      </td>
      <td className={`whitespace-normal ${wrong ? 'stamped' : ''}`}>
        {wrong ?? item?.name}
        {!wrong && item?.hasPicture && !isIn && <span className="note"> in place of the one it has</span>}
      </td>
    </tr>
  );
}
