import { useQuery } from '@tanstack/react-query';
import { micro, moneyText } from '@vectrum/core/money';
import { spell } from '@vectrum/core/quantity';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { useBook } from '../../../flow/book';
import { Button, ButtonLink, TextButton } from '../../../ui/button';
import { when } from '../../../ui/format';
import { Glyph, progressGlyph } from '../../../ui/glyph';
import { Acts } from '../../../ui/page';
import { Sheet, ShownSheet, Waybill } from '../../../ui/sheet';
import { ProblemNote } from '../../../ui/states';
import { GlyphCell, LinesTable } from '../../../ui/table';
import { itemPath } from '../../item-path';
import { buildState } from './build-words';
import { FinishForm } from './finish-form';

type Build = Dto['BuildDto'];

/** One assembly: its parts as far as they are gathered, what was used, and what it cost. */
export function BuildSheet() {
  const { code = '' } = useParams();
  const query = useQuery({
    queryKey: key('build', code),
    queryFn: () => ask(api.GET('/api/builds/{code}', { params: { path: { code } } })),
  });
  return (
    <ShownSheet query={query} back="/shelves/builds">
      {(b) => <One key={`${b.code} ${b.state}`} build={b} />}
    </ShownSheet>
  );
}

function One({ build: b }: { build: Build }) {
  const me = useMe();
  const rights = me.data?.rights ?? [];
  const [finishing, setFinishing] = useState(false);
  const money = (text: string | null) => (text === null ? '' : moneyText(micro(text), me.data?.homeCurrency));
  const cancel = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/builds/{code}/cancel', { params: { path: { code: b.code } }, headers: { ...once, ...ifMatch(b.version) } })),
  });
  const isOpen = b.state === 'planned' || b.state === 'gathering';
  return (
    <Sheet address={`shelves/builds/${b.code}`} title={b.item} about={buildState(b)} code={b.code} back="/shelves/builds">
      <Waybill
        cells={[
          {
            cap: b.state === 'built' ? (b.isApart ? 'Taken apart' : 'Built') : 'To be built',
            value: b.state === 'built' ? b.builtUnits : b.units,
            note: b.state === 'built' && b.builtUnits !== b.units ? `of ${b.units} planned` : b.site,
          },
          { cap: 'Planned', value: when(b.madeAt), note: b.madeBy ?? '' },
          { cap: 'Done', value: b.builtAt ? when(b.builtAt) : 'not yet', note: b.builtBy ?? b.note },
          ...(b.unitCost !== null
            ? [
                {
                  cap: 'One is worth',
                  value: money(b.unitCost),
                  note: `parts ${money(b.partsCost)}, labour ${money(b.labourCost)}${b.labourMinutes ? ` for ${b.labourMinutes} min` : ''}`,
                },
              ]
            : []),
        ]}
      />
      {b.lots.length > 0 && (
        <p className="mt-3">
          {b.lots.map((lot, i) => (
            <span key={lot}>
              {i > 0 && ', '}
              <Link className="code" to={`/shelves/trace?sku=${encodeURIComponent(b.sku)}&lot=${encodeURIComponent(lot)}`}>
                {lot}
              </Link>
            </span>
          ))}
        </p>
      )}
      {finishing ? <FinishForm build={b} onClose={() => setFinishing(false)} /> : <Parts build={b} />}
      {!finishing && (
        <>
          <ProblemNote problem={cancel.error} />
          <Acts>
            {isOpen && rights.includes('store') && (
              <ButtonLink to={`/floor/gather/${b.code}`} next={b.state === 'planned'}>
                Gather the parts on the phone
              </ButtonLink>
            )}
            {b.state === 'gathering' && rights.includes('store') && (
              <Button type="button" next onClick={() => setFinishing(true)}>
                It is built
              </Button>
            )}
            {isOpen && (
              <TextButton type="button" disabled={cancel.isPending} onClick={() => cancel.mutate()}>
                {b.state === 'gathering' ? 'Call it off, and put the parts back' : 'Call it off'}
              </TextButton>
            )}
            <ButtonLink to={itemPath(b.sku)}>The item</ButtonLink>
          </Acts>
        </>
      )}
    </Sheet>
  );
}

function Parts({ build: b }: { build: Build }) {
  const book = useBook(b.siteId);
  const units = (itemId: number, n: number) => spell(n, book.data?.items[itemId]?.packs ?? []);
  const isOver = b.state === 'built';
  return (
    <LinesTable aria-label="Parts">
      <thead>
        <tr>
          <GlyphCell />
          <th>Part</th>
          <th className="num">Wanted</th>
          <th className="num">{isOver ? 'Used' : 'Gathered'}</th>
          <th className="num">{isOver ? 'Spoilt' : 'Free'}</th>
        </tr>
      </thead>
      <tbody>
        {b.parts.map((p) => (
          <tr key={p.partId}>
            <GlyphCell>
              <Glyph name={progressGlyph(isOver ? p.used : p.gathered, p.units)} size={14} says />
            </GlyphCell>
            <td>
              <Link to={itemPath(p.sku)}>
                <b>{p.item}</b>
              </Link>
              <span className="note">
                {p.lots.map((lot, i) => (
                  <span key={lot}>
                    {i > 0 && ', '}
                    <Link to={`/shelves/trace?sku=${encodeURIComponent(p.sku)}&lot=${encodeURIComponent(lot)}`}>{lot}</Link>
                  </span>
                ))}
              </span>
            </td>
            <td className="num">{units(p.itemId, p.units)}</td>
            <td className="num">{(isOver ? p.used : p.gathered) > 0 ? units(p.itemId, isOver ? p.used : p.gathered) : ''}</td>
            <td className={`num ${!isOver && p.free + p.gathered < p.units ? 'stamped' : ''}`}>
              {isOver ? (p.scrapped > 0 ? units(p.itemId, p.scrapped) : '') : p.free}
            </td>
          </tr>
        ))}
      </tbody>
    </LinesTable>
  );
}
