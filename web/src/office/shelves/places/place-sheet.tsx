import { useQuery } from '@tanstack/react-query';
import { useAct } from '../../../api/use-act';
import { key } from '../../../api/keys';
import { Fragment, useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, ifMatch, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { whole } from '../../../ui/format';
import { Picture } from '../../../ui/picture';
import { NumberField, SelectField } from '../../../ui/record/fields';
import { type FieldWords, RecordBody } from '../../../ui/record/record-form';
import { useRecord } from '../../../ui/record/use-record';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { Empty, ProblemNote } from '../../../ui/states';
import { weightText } from '../../../ui/units';
import { GoodsActs } from './goods-acts';
import { kindWords } from './place-kinds';
import { LinesTable, PictureCell } from '../../../ui/table';
import { Acts } from '../../../ui/page';
import { Button, ButtonLink, TextButton } from '../../../ui/button';
import { itemPath } from '../../item-path';

/** One place: what lies there, whether it is open to picking or blocked. */
export function PlaceSheet() {
  const { code = '' } = useParams();
  const me = useMe();
  const [open, setOpen] = useState<string | null>(null);
  const mayAct = ['store', 'count', 'inspect'].some((r) => me.data?.rights.includes(r));
  const query = useQuery({
    queryKey: key('place', code),
    queryFn: () => ask(api.GET('/api/places/{code}', { params: { path: { code } } })),
  });
  const change = useAct({
    act: (body: Dto['EditPlaceDto'], once) =>
      ask(
        api.PATCH('/api/places/{code}', {
          params: { path: { code } },
          headers: { ...once, ...ifMatch(query.data?.version ?? 0) },
          body,
        }),
      ),
  });
  return (
    <ShownSheet query={query} back="/shelves/places">
      {(p) => (
        <Sheet address={`places/${p.code}`} title={p.code} about={kindWords(p.kind)} code={p.code} back="/shelves/places">
          <Waybill
            cells={[
              { cap: 'Site', value: p.site, note: p.zone ? `zone ${p.zone}` : 'no zone' },
              { cap: 'Picking', value: p.pickable ? 'open' : 'not open', note: p.blocked ? 'blocked' : 'in use' },
              { cap: 'Walking order', value: p.walkOrder, note: p.fixedOrder ? 'fixed by hand' : 'from the plan' },
              {
                cap: 'Full',
                value: p.fullPercent === null ? 'not known' : `${p.fullPercent} %`,
                note: p.holdsMl
                  ? `holds ${whole(Math.round(p.holdsMl / 1000))} l${p.holdsG ? `, ${weightText(p.holdsG)}` : ''}`
                  : 'say what it holds',
              },
            ]}
          />
          {p.kind === 'sorting-wall' ? (
            <Empty title="Goods lie in its slots">
              <Link to="/shelves/places?kind=wall-slot">Its slots</Link> are places of their own, each for one order at a time.
            </Empty>
          ) : p.stock.length === 0 ? (
            <Empty title="Nothing lies here">Goods come by two scans: the goods, then this place’s label.</Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <th>Item</th>
                  <th>Lot or number</th>
                  <th>Condition</th>
                  <th className="num">Units</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {p.stock.map((s) => {
                  const row = `${s.sku}/${s.lot ?? ''}/${s.condition}`;
                  return (
                    <Fragment key={row}>
                      <tr>
                        <PictureCell>
                          <Picture name={s.picture} size={30} />
                        </PictureCell>
                        <td>
                          <b>
                            <Link to={itemPath(s.sku)}>{s.name}</Link>
                          </b>
                          <span className="note code">{s.sku}</span>
                        </td>
                        <td className="code">{s.lot}</td>
                        <td className={s.condition === 'good' ? 'mid' : 'stamped'}>{s.condition.replace('-', ' ')}</td>
                        <td className="num strong">{whole(s.units)}</td>
                        <td className="num">
                          {mayAct && s.condition !== 'apart' && (
                            <TextButton
                              type="button"
                              aria-label={`Do something with ${s.name}`}
                              aria-expanded={open === row}
                              onClick={() => setOpen(open === row ? null : row)}
                            >
                              Move, use, correct
                            </TextButton>
                          )}
                        </td>
                      </tr>
                      {open === row && (
                        <tr>
                          <td colSpan={6}>
                            <GoodsActs place={p} goods={s} onDone={() => setOpen(null)} />
                          </td>
                        </tr>
                      )}
                    </Fragment>
                  );
                })}
              </tbody>
            </LinesTable>
          )}
          {me.data?.rights.includes('set-up') && <PlaceDetails key={p.code} place={p} />}
          <ProblemNote problem={change.error} />
          {me.data?.rights.includes('set-up') && (
            <Acts>
              <Button type="button" onClick={() => change.mutate({ pickable: !p.pickable })}>
                {p.pickable ? 'Close to picking' : 'Open to picking'}
              </Button>
              <Button type="button" onClick={() => change.mutate({ blocked: !p.blocked })}>
                {p.blocked ? 'Free the place' : 'Block the place'}
              </Button>
              <ButtonLink to={`/setup/labels/print?subject=place&codes=${p.code}`} data-print>
                Print its label
              </ButtonLink>
            </Acts>
          )}
        </Sheet>
      )}
    </ShownSheet>
  );
}

interface Details {
  zone: string;
  litres: string;
  kilos: string;
  order: string;
}
const WORDS: Readonly<Record<keyof Details, FieldWords>> = {
  zone: { label: 'Zone' },
  litres: { label: 'Holds, litres' },
  kilos: { label: 'Holds, kg' },
  order: { label: 'Order by hand' },
};
const detailsOf = (p: Dto['PlaceSheetDto']): Details => ({
  zone: p.zone ?? '',
  litres: p.holdsMl ? String(p.holdsMl / 1000) : '',
  kilos: p.holdsG ? String(p.holdsG / 1000) : '',
  order: p.fixedOrder ? String(p.walkOrder) : '',
});
const thousandth = (t: string) => (t.trim() === '' ? null : Math.round(Number(t) * 1000));

/** What a place holds, its zone, and its number in the walking order where a person fixes it. */
function PlaceDetails({ place }: { place: Dto['PlaceSheetDto'] }) {
  const zones = useQuery({ queryKey: key('zones'), queryFn: () => ask(api.GET('/api/zones')), staleTime: 60_000 });
  const record = useRecord<Details, unknown>({
    source: { values: detailsOf(place), version: place.version },
    save: (v, version, once) =>
      ask(
        api.PATCH('/api/places/{code}', {
          params: { path: { code: place.code } },
          headers: { ...once, ...ifMatch(version ?? 0) },
          body: {
            zone: v.zone,
            holdsMl: thousandth(v.litres),
            holdsG: thousandth(v.kilos),
            walkOrder: v.order.trim() === '' ? null : Number(v.order),
          },
        }),
      ),
    onSaved: () => undefined,
  });
  return (
    <RecordBody record={record} words={WORDS} keep="Keep" quiet>
      <div className="grid grid-cols-2 sm:grid-cols-4 gap-4 items-end">
        <SelectField name="zone" label="Zone">
          <option value="">none</option>
          {(zones.data ?? [])
            .filter((z) => z.siteId === place.siteId)
            .map((z) => (
              <option key={z.code} value={z.code}>
                {z.name}
              </option>
            ))}
        </SelectField>
        <NumberField name="litres" label="Holds, litres" />
        <NumberField name="kilos" label="Holds, kg" />
        <NumberField name="order" label="Walking order" placeholder="from the plan" />
      </div>
    </RecordBody>
  );
}
