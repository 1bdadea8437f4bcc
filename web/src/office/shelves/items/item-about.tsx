import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { micro, priceText } from '@vectrum/core/money';
import { countOf, packName } from '@vectrum/core/quantity';
import { useRef } from 'react';
import { Link } from 'react-router';
import { api, ask, type Dto } from '../../../api/client';
import { sendFile } from '../../../api/send-file';
import { plural, whole } from '../../../ui/format';
import { Glyph } from '../../../ui/glyph';
import { ItemPicture } from '../../../ui/item-picture';
import { ProblemNote } from '../../../ui/states';
import { LookedAt } from '../../inbound/inspection/looked-at';
import { lengthText, weightText } from '../../../ui/units';
import { LinesTable, DenseTable } from '../../../ui/table';
import { TextButton, TextLink } from '../../../ui/button';
import { BlockHead, Said } from '../../../ui/page';
import { itemPath } from '../../item-path';

type Item = Dto['ItemDto'];

/** The pack units with their barcodes; an in-house barcode is made for one that has none. */
function Packs({ item, canEdit }: { item: Item; canEdit: boolean }) {
  const make = useAct({
    act: ({ factor, kind }: { factor: number; kind: 'restricted' | 'code-128' }, once) =>
      ask(api.POST('/api/items/{sku}/barcodes', { params: { path: { sku: item.sku } }, body: { factor, make: kind }, headers: once })),
  });
  return (
    <>
      <LinesTable>
        <thead>
          <tr>
            <th>Pack unit</th>
            <th className="num">Weight</th>
            <th className="num">Size</th>
            <th>Barcodes</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {item.packs.map((p) => (
            <tr key={p.id}>
              <td>
                <b>{packName(p, 1)}</b>
              </td>
              <td className="num">{p.weightG ? weightText(p.weightG) : ''}</td>
              <td className="num">{p.lengthMm ? lengthText(p.lengthMm, p.widthMm ?? 0, p.heightMm ?? 0) : ''}</td>
              <td className="code">{p.barcodes.join('  ') || '–'}</td>
              <td className="num whitespace-nowrap">
                {canEdit && p.barcodes.length === 0 && (
                  <TextButton
                    type="button"

                    disabled={make.isPending}
                    onClick={() => make.mutate({ factor: p.factor, kind: 'restricted' })}
                  >
                    Make a barcode
                  </TextButton>
                )}
                <TextLink className="ml-3" to={`/setup/labels/print?subject=item&codes=${encodeURIComponent(item.sku)}&holds=${p.factor}`}>
                  Label
                </TextLink>
              </td>
            </tr>
          ))}
        </tbody>
      </LinesTable>
      <ProblemNote problem={make.error} />
    </>
  );
}

function Parts({ item }: { item: Item }) {
  return (
    <>
      <BlockHead className="mt-4">
        <h2>Parts of one {item.kind}</h2>
        <span className="note">{plural(item.buildable ?? 0, 'can be made', 'can be made')} of what is free</span>
      </BlockHead>
      <DenseTable>
        <tbody>
          {item.parts.map((p) => (
            <tr key={p.sku}>
              <td className="num strong" style={{ width: 60 }}>
                {p.units}
              </td>
              <td>
                <Link to={itemPath(p.sku)}>{p.name}</Link> <span className="code mid">{p.sku}</span>
              </td>
              <td className="num mid">{whole(p.available)} free</td>
              <td className="num">enough for {whole(Math.max(0, Math.floor(p.available / p.units)))}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </>
  );
}

function Sites({ item }: { item: Item }) {
  const kept = item.sites.filter((s) => s.home || s.cost || [s.reorderPoint, s.orderUpTo, s.refillBelow].some((level) => level !== null));
  const base = item.packs.find((p) => p.factor === 1) ?? { name: 'unit', plural: 'units' };
  return (
    <>
      <BlockHead className="mt-4">
        <h2>At each site</h2>
        <span className="note">{kept.length === 0 ? 'nothing set yet' : 'home, when to buy and to refill, cost there'}</span>
      </BlockHead>
      <DenseTable>
        <tbody>
          {kept.map((s) => (
            <tr key={s.siteId}>
              <td>{s.site}</td>
              <td>
                {s.home ? (
                  <Link className="code" to={`/shelves/places/${s.home}`}>
                    {s.home}
                  </Link>
                ) : (
                  <span className="soft">no home</span>
                )}
              </td>
              <td>
                {[
                  s.reorderPoint !== null && `buy at ${countOf(s.reorderPoint, base)}`,
                  s.orderUpTo !== null && `up to ${countOf(s.orderUpTo, base)}`,
                  s.refillBelow !== null && `refill below ${countOf(s.refillBelow, base)}`,
                  s.refillUpTo !== null && `up to ${countOf(s.refillUpTo, base)}`,
                ]
                  .filter(Boolean)
                  .join(', ')}
              </td>
              <td className="num">{s.cost ? priceText(micro(s.cost)) : ''}</td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </>
  );
}

/** The picture, with a way to change it: a JPEG, PNG or WebP from this device. */
function Photo({ item, canEdit }: { item: Item; canEdit: boolean }) {
  const file = useRef<HTMLInputElement>(null);
  const keep = useAct({
    act: (picture: File, once) => sendFile('PUT', `/api/items/${encodeURIComponent(item.sku)}/picture`, picture, once),
  });
  const drop = useAct({
    act: (_: void, once) => ask(api.DELETE('/api/items/{sku}/picture', { params: { path: { sku: item.sku } }, headers: once })),
  });
  return (
    <div className="flex gap-5 items-end mt-4">
      <ItemPicture item={item} size={128} large />
      {canEdit && (
        <span className="flex flex-col gap-2 items-start">
          <input
            ref={file}
            type="file"
            accept="image/jpeg,image/png,image/webp"
            className="sr-only"
            aria-label="Picture file"
            onChange={(e) => e.target.files?.[0] && keep.mutate(e.target.files[0])}
          />
          <TextButton type="button" disabled={keep.isPending} onClick={() => file.current?.click()}>
            {item.pictureMark ? 'Another picture' : 'Put in a picture'}
          </TextButton>
          {item.pictureMark && (
            <TextButton type="button" onClick={() => drop.mutate()}>
              Back to the drawing
            </TextButton>
          )}
          <span className="note">JPEG, PNG or WebP, up to 8 MB</span>
        </span>
      )}
      <ProblemNote problem={keep.error ?? drop.error} />
    </div>
  );
}

/** What an item is: packs and barcodes, parts, sites, the company's own fields, its picture. */
export function ItemAbout({ item, canEdit }: { item: Item; canEdit: boolean }) {
  const fields = useQuery({ queryKey: key('extra-fields'), queryFn: () => ask(api.GET('/api/items/extra-fields')), staleTime: 60_000 });
  const own = (fields.data?.fields ?? []).filter((f) => item.extra[f.name]);
  return (
    <>
      <Packs item={item} canEdit={canEdit} />
      {item.parts.length > 0 && <Parts item={item} />}
      {item.usedIn.length > 0 && (
        <p className="mt-3">
          A part of{' '}
          {item.usedIn.map((sku) => (
            <Link key={sku} className="code mr-3" to={itemPath(sku)}>
              {sku}
            </Link>
          ))}
        </p>
      )}
      <LookedAt sku={item.sku} />
      <Sites item={item} />
      {own.length > 0 && (
        <>
          <BlockHead className="mt-4">
            <h2>Own fields</h2>
          </BlockHead>
          <DenseTable>
            <tbody>
              {own.map((f) => (
                <tr key={f.name}>
                  <td className="mid" style={{ width: 220 }}>
                    {f.name}
                  </td>
                  <td>{item.extra[f.name]}</td>
                </tr>
              ))}
            </tbody>
          </DenseTable>
        </>
      )}
      {item.lacks.length > 0 && (
        <Said className="mt-3">
          <Glyph name="held" size={14} /> Incomplete: it lacks {item.lacks.join(', ')}
        </Said>
      )}
      <Photo item={item} canEdit={canEdit} />
    </>
  );
}
