import { useQuery } from '@tanstack/react-query';
import { useAct } from '../api/use-act';
import { key } from '../api/keys';
import { countOf, packName, spell } from '@vectrum/core/quantity';
import type { Feedback, How } from '@vectrum/core/scan';
import { useCallback, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api, ask, type Dto } from '../api/client';
import { useMe, useSite } from '../api/queries';
import { FeedbackBand } from '../flow/band';
import { soundBand } from '../flow/sound';
import { whole } from '../ui/format';
import { ItemPicture } from '../ui/item-picture';
import { Picture } from '../ui/picture';
import { ProblemNote } from '../ui/states';
import { FloorKeys } from './keys';
import { OnPassing } from './on-passing';
import { PrintLabel } from './print-label';
import { usePageScan } from './scan-context';
import { PhoneHead, Ask, PhoneBody, PhoneList, Key, TaskCard, PhoneItem } from '../ui/phone/parts';
import { Glyph } from '../ui/glyph';

type Look = Dto['LookDto'];

/** Look-up: scan anything, see what it is and where, and go on from there; an unknown barcode is tied to an item. */
export function LookPage() {
  const [params, setParams] = useSearchParams();
  const code = params.get('code') ?? '';
  const me = useMe();
  const { site } = useSite();
  const [tying, setTying] = useState<string | null>(null);
  const [band, setBand] = useState<Feedback | null>(null);
  const look = useQuery({
    queryKey: key('look', code),
    queryFn: () => ask(api.GET('/api/look', { params: { query: { code } } })),
    enabled: code !== '',
  });
  const onScan = useCallback(
    (scanned: string, _how: How) => {
      setBand(null);
      setParams({ code: scanned.trim() }, { replace: true });
    },
    [setParams, setBand],
  );
  usePageScan(onScan);
  const seen = look.data;
  const unknown = seen?.kind === 'unknown' && !tying;
  const mayTie = me.data?.rights.some((r) => r === 'items' || r === 'receive') === true;
  const tie = tying && seen?.kind === 'item' ? seen : undefined;
  return (
    <>
      <FeedbackBand
        feedback={
          band ??
          (unknown
            ? { band: 'unknown', title: seen.code, detail: mayTie ? 'Nothing here has this code. Tie it to an item below' : seen.detail }
            : null)
        }
      />
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
        <span />
        <span>Look up</span>
      </PhoneHead>
      <Ask>{tying ? 'Scan or type what it is' : 'Scan anything'}</Ask>
      {tying && (
        <p className="px-[18px] mt-2 text-[18px]">
          <span className="code">{tying}</span> will be tied to it
        </p>
      )}
      <PhoneBody className="mt-3">
        <ProblemNote problem={look.error} onRetry={() => void look.refetch()} />
        {seen?.kind === 'item' && <ItemCard look={seen} />}
        {seen?.kind === 'place' && <PlaceCard look={seen} />}
        {(seen?.kind === 'document' || seen?.kind === 'person') && <PaperCard look={seen} />}
        {tie?.item && (
          <Tie
            code={tying ?? ''}
            item={tie.item}
            onTied={(says) => {
              setBand({ band: 'accepted', title: tying ?? '', detail: says });
              soundBand('accepted');
              setTying(null);
              void look.refetch();
            }}
          />
        )}
        {unknown && mayTie && (
          <PhoneList>
            <PhoneItem next>
              <button type="button" onClick={() => setTying(seen.code)}>
                <b>Tie it to an item</b>
                <Glyph name="go" size={22} />
                <span>scan another code of the goods, or type their SKU</span>
              </button>
            </PhoneItem>
          </PhoneList>
        )}
        {tying && (seen?.kind === 'unknown' || seen?.kind === 'place') && (
          <Search word={code === tying ? '' : code} onChoose={(sku) => setParams({ code: sku }, { replace: true })} />
        )}
      </PhoneBody>
      <div style={{ marginTop: 'auto' }} />
      <FloorKeys siteId={site?.id}>
        {tying && (
          <Key type="button" onClick={() => setTying(null)}>
            Leave it
          </Key>
        )}
      </FloorKeys>
    </>
  );
}

function ItemCard({ look }: { look: Look }) {
  const item = look.item;
  if (!item) return null;
  const pack = item.packs.find((p) => p.factor === item.holds);
  const base = item.packs.find((p) => p.factor === 1) ?? { name: 'unit', plural: 'units' };
  return (
    <>
      <TaskCard className="mx-[14px]">
        <ItemPicture item={item} size={96} />
        <div>
          <h2>{item.name}</h2>
          <p className="code text-[18px]">{item.sku}</p>
          <p className="text-[17px]">
            {pack && packName(pack, 1)}
            {look.lot && `, ${item.tracking === 'serial' ? 'no.' : 'lot'} ${look.lot}`}
            {look.expires && `, until ${look.expires}`}
          </p>
          <p className="text-[17px]">
            {spell(item.onHand, item.packs)} on hand, {whole(item.available)} free
          </p>
        </div>
      </TaskCard>
      <PhoneList className="mt-3">
        {look.stock.map((s) => (
          <li key={`${s.place}${s.lot}${s.condition}`}>
            <Link to={`/floor/look?code=${encodeURIComponent(s.place)}`} replace>
              <b className="code">{s.place}</b>
              <span>{countOf(s.units, base)}</span>
              <span>
                {s.kind.replace('-', ' ')}
                {s.place === item.home && ', its home'}
                {s.lot && `, ${s.lot}`}
                {s.expires && `, until ${s.expires}`}
                {s.condition !== 'good' && `, ${s.condition.replace('-', ' ')}`}
              </span>
            </Link>
          </li>
        ))}
      </PhoneList>
      {look.stock.length === 0 && (
        <p className="px-[18px] text-[18px]">None of it lies here{item.home ? `. Its home is ${item.home}` : ''}.</p>
      )}
      <PrintLabel
        key={`${item.sku}/${item.holds}/${look.lot}`}
        subject="item"
        code={item.sku}
        holds={item.holds}
        lot={look.lot}
        expires={look.expires}
      />
    </>
  );
}

function PlaceCard({ look }: { look: Look }) {
  return (
    <>
      <div className="px-[18px]">
        <h2 className="code text-[40px] leading-[46px] font-bold">{look.title}</h2>
        <p className="text-[18px]">{look.detail}</p>
      </div>
      <PhoneList className="mt-3">
        {look.contents.map((c) => (
          <li key={`${c.sku}${c.lot}${c.condition}`}>
            <Link to={`/floor/look?code=${encodeURIComponent(c.sku)}`} replace>
              <b className="flex gap-2 items-center">
                <Picture name={c.picture} size={30} /> {c.name}
              </b>
              <span>
                {whole(c.units)} {c.unit}
              </span>
              <span>
                <span className="code">{c.sku}</span>
                {c.lot && `, ${c.lot}`}
                {c.condition !== 'good' && `, ${c.condition.replace('-', ' ')}`}
              </span>
            </Link>
          </li>
        ))}
      </PhoneList>
      {look.contents.length === 0 && <p className="px-[18px] text-[18px]">Nothing lies here.</p>}
      <OnPassing key={`count ${look.title}`} code={look.title} />
      <PrintLabel key={look.title} subject="place" code={look.title} />
    </>
  );
}

function PaperCard({ look }: { look: Look }) {
  const navigate = useNavigate();
  return (
    <>
      <div className="px-[18px]">
        <h2 className="text-[26px] leading-[32px] font-bold">{look.title}</h2>
        <p className="text-[18px]">{look.detail}</p>
      </div>
      {look.go && (
        <PhoneList className="mt-3">
          <PhoneItem next>
            <button type="button" onClick={() => void navigate(look.go ?? '/floor')}>
              <b>Go on with it</b>
              <Glyph name="go" size={22} />
            </button>
          </PhoneItem>
        </PhoneList>
      )}
    </>
  );
}

/** Which pack of the item the code is on: one touch ties it. */
function Tie({ code, item, onTied }: { code: string; item: Dto['LookItemDto']; onTied: (says: string) => void }) {
  const tie = useAct({
    act: (factor: number, once) =>
      ask(api.POST('/api/items/{sku}/barcodes', { params: { path: { sku: item.sku } }, body: { factor, code }, headers: once })),
    onDone: (_, factor) => {
      const pack = item.packs.find((p) => p.factor === factor);
      onTied(`is a ${pack ? packName(pack, 1) : 'pack'} of ${item.name} from now on`);
    },
  });
  return (
    <>
      <ProblemNote problem={tie.error} />
      <PhoneList className="mt-3" aria-label="Which pack is it?">
        {[...item.packs].reverse().map((p, i) => (
          <PhoneItem key={p.id} next={i === 0}>
            <button type="button" disabled={tie.isPending} onClick={() => tie.mutate(p.factor)}>
              <b>It is a {packName(p, 1)}</b>
              <Glyph name="go" size={22} />
            </button>
          </PhoneItem>
        ))}
      </PhoneList>
    </>
  );
}

/** Items by a part of their name, where the goods have no other code to scan. */
function Search({ word, onChoose }: { word: string; onChoose: (sku: string) => void }) {
  const found = useQuery({
    queryKey: key('look-items', word),
    queryFn: () =>
      ask(api.GET('/api/items', { params: { query: { search: word, limit: '12', ...(word === '' ? { state: 'no-barcode' } : {}) } } })),
  });
  return (
    <PhoneList className="mt-3" aria-label="Items it may be">
      {found.data?.rows.map((r) => (
        <li key={r.sku}>
          <button type="button" onClick={() => onChoose(r.sku)}>
            <b>{r.name}</b>
            <span className="code">{r.sku}</span>
            {r.lacks.includes('barcode') && <span>has no barcode yet</span>}
          </button>
        </li>
      ))}
    </PhoneList>
  );
}
