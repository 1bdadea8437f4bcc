import { micro, moneyText } from '@vectrum/core/money';
import { Fragment, useState } from 'react';
import { Link } from 'react-router';
import { TextButton } from '../../ui/button';
import { day, whole } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { BlockHead } from '../../ui/page';
import { Picture } from '../../ui/picture';
import { ChooseCell, LinesTable, PictureCell } from '../../ui/table';
import { SumRow } from '../../ui/why';
import { type Choices, lacksOf, lastsDays, type Line, lineKey, packsOf, type Supplier, takenOf, withoutIt, worthOf } from './buying';
import { PutOff } from './put-off';

export const planPath = (sku: string): string => `/plan/items/${encodeURIComponent(sku)}`;

/** What one supplier would be asked for: a line an item, with what happens without it, and how many are ordered. */
export function Basket({
  supplier,
  today,
  siteId,
  open,
  beside,
  choices,
  onPacks,
  onLeave,
}: {
  supplier: Supplier;
  /** The site's day. */
  today: string;
  siteId: number;
  open: string | undefined;
  beside: boolean;
  choices: Choices;
  onPacks: (line: Line, packs: string) => void;
  onLeave: (line: Line, isLeft: boolean) => void;
}) {
  const [off, setOff] = useState<string | null>(null);
  const taken = takenOf(choices, supplier);
  const lacks = lacksOf(supplier, taken);
  const worth = worthOf(taken);
  const columns = beside ? 5 : 9;
  return (
    <section aria-label={supplier.name} className="mt-5">
      <BlockHead>
        <h2>
          <Link to={`/inbound/suppliers/${supplier.code}`}>{supplier.name}</Link>
        </h2>
        <span className="note">
          {supplier.orderOn > today ? `takes orders again ${day(supplier.orderOn)}` : 'ordered today'}, here {day(supplier.hereOn)}
          {worth > 0 && ` · ${moneyText(micro(worth.toFixed(2)), supplier.currency)}`}
        </span>
        {lacks && <span className="note stamped">{lacks}</span>}
      </BlockHead>
      <LinesTable className="table-fixed">
        <thead>
          <tr>
            <td className="w-[40px]" />
            <td className="w-[44px] max-sm:hidden" />
            <th className="max-sm:w-[150px]">Goods</th>
            {!beside && <th className="num w-[80px] max-sm:hidden">Free</th>}
            {!beside && <th className="num w-[80px] max-sm:hidden">Coming</th>}
            {!beside && <th className="num w-[80px] max-sm:hidden">A week</th>}
            <th className="w-[200px] max-sm:w-[150px]">Order</th>
            <th className="num w-[70px] max-sm:hidden">Lasts</th>
            {!beside && <td className="w-[130px] max-sm:w-[90px]" />}
          </tr>
        </thead>
        <tbody>
          {supplier.lines.map((line) => {
            const id = lineKey(supplier.code, line.sku);
            const packs = packsOf(choices, supplier.code, line);
            const lasts = packs === null ? null : lastsDays(line, packs);
            const isLeft = choices.left.has(id);
            return (
              <Fragment key={line.sku}>
                <tr className={line.sku === open ? 'open' : isLeft ? 'soft' : ''}>
                  <ChooseCell says={`Order ${line.name}`} checked={!isLeft} onChoose={(on) => onLeave(line, !on)} />
                  <PictureCell className="max-sm:hidden">
                    <Picture name={line.picture} size={30} />
                  </PictureCell>
                  <td>
                    <Link to={planPath(line.sku)}>
                      <b>{line.name}</b>
                    </Link>
                    <span className={line.broken > 0 ? 'note stamped' : 'note'}>
                      {withoutIt(line, day)}
                      {line.because && ` · ${line.because}`}
                    </span>
                    {line.elsewhere && (
                      <Link
                        className="note"
                        to={`/shelves/transfers/new?to=${siteId}&from=${line.elsewhere.siteId}&sku=${encodeURIComponent(line.sku)}`}
                      >
                        {line.elsewhere.site} has {whole(line.elsewhere.units)} to spare <Glyph name="go" size={11} />
                      </Link>
                    )}
                  </td>
                  {!beside && <td className="num max-sm:hidden">{whole(line.free)}</td>}
                  {!beside && <td className="num max-sm:hidden">{line.onOrder > 0 ? whole(line.onOrder) : ''}</td>}
                  {!beside && <td className="num max-sm:hidden">{line.weekMean}</td>}
                  <td>
                    <span className="flex gap-2 items-center whitespace-nowrap">
                      <Input
                        className="w-[64px] text-right"
                        inputMode="numeric"
                        aria-label={`${line.packPlural} of ${line.name}`}
                        aria-invalid={packs === null || undefined}
                        value={choices.packs[id] ?? String(line.units / line.factor)}
                        onChange={(e) => onPacks(line, e.target.value)}
                      />
                      <span>
                        {packs === 1 ? line.pack : line.packPlural}
                        {line.factor > 1 && (
                          <span className="note">
                            {packs === null ? 'a whole number' : `${whole(packs * line.factor)} ${line.unitPlural}`}
                          </span>
                        )}
                      </span>
                    </span>
                  </td>
                  <td className="num max-sm:hidden">{lasts === null ? '' : `${whole(lasts)} d`}</td>
                  {!beside && (
                    <td className="num">
                      {line.yesterday === null ? '' : <span className="note">yesterday {whole(line.yesterday)}</span>}
                      <TextButton
                        type="button"
                        aria-label={`Put ${line.name} off`}
                        onClick={() => setOff(off === line.sku ? null : line.sku)}
                      >
                        Not now
                      </TextButton>
                    </td>
                  )}
                </tr>
                {off === line.sku && (
                  <SumRow columns={columns}>
                    <PutOff siteId={siteId} sku={line.sku} name={line.name} onDone={() => setOff(null)} />
                  </SumRow>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </LinesTable>
    </section>
  );
}
