import { spell } from '@vectrum/core/quantity';
import type { Codebook, ItemFacts, PackKit, PackLine } from '@vectrum/core/scan';
import { useState } from 'react';
import { Input } from '../ui/input';
import { TextButton } from '../ui/button';
import { Glyph } from '../ui/glyph';
import { Picture } from '../ui/picture';
import { BenchList, BenchItem } from '../ui/bench/parts';

/** The kit that a line is a part of, in words. */
export function kitOf(kits: readonly PackKit[], book: Codebook, line: number): string {
  const kit = kits.find((k) => k.parts.some((p) => p.line === line));
  return kit ? `, for ${book.items[kit.itemId]?.name ?? 'a kit'}` : '';
}

const baseOf = (item: ItemFacts) => item.packs.find((p) => p.factor === 1)?.id ?? 0;
/** Pieces that are shown one by one. */
const MOST_MARKS = 8;

/** The serial number of the piece in hand: scanned, or typed where it cannot be. */
function TypedSerial({ onSerial }: { onSerial: (serial: string) => void }) {
  const [serial, setSerial] = useState('');
  return (
    <form
      className="flex gap-2 items-center mt-1"
      onSubmit={(e) => {
        e.preventDefault();
        if (serial.trim()) onSerial(serial);
        setSerial('');
      }}
    >
      <span className="text-[17px] font-[680] whitespace-nowrap">Scan its serial number</span>
      <Input
        className="code"
        style={{ width: 170 }}
        aria-label="Serial number"
        maxLength={60}
        value={serial}
        onChange={(e) => setSerial(e.target.value)}
      />
    </form>
  );
}

/** The order's lines, each filling in its place; the next one is in the highlighter. */
export function BenchLines({
  lines,
  next,
  touched,
  kits,
  book,
  serialOf,
  onRest,
  onSerial,
}: {
  lines: (PackLine & { rest: number; shelf: string | null; serials: readonly string[] })[];
  next: number | undefined;
  /** The line last scanned, of which the rest may be counted. */
  touched: number | null;
  kits: readonly PackKit[];
  book: Codebook;
  /** The line of the piece whose serial number is to be scanned. */
  serialOf: number | null;
  onSerial: (serial: string) => void;
  onRest: (packId: number, count: number) => void;
}) {
  return (
    <BenchList>
      {lines.map((l) => {
        const item = book.items[l.itemId];
        return (
          <BenchItem key={l.line} next={l.line === next} isIn={l.rest === 0}>
            <i>{l.line}</i>
            <Picture name={item?.picture} size={50} />
            <div>
              <b>{item?.name}</b>
              <span>
                {item && spell(l.picked, item.packs)}
                {kitOf(kits, book, l.line)}
                {l.insert && ', goes along'}
                {l.shelf && l.rest > 0 && (
                  <>
                    , from <span className="code">{l.shelf}</span>
                  </>
                )}
                {l.serials.length > 0 && <span className="code block">{l.serials.join(', ')}</span>}
                {l.line === serialOf && <TypedSerial onSerial={onSerial} />}
              </span>
            </div>
            <span className="marks" role="img" aria-label={`${l.picked - l.rest} of ${l.picked} in`}>
              {l.picked <= MOST_MARKS ? (
                Array.from({ length: l.picked }, (_, i) => <Glyph key={i} name={i < l.picked - l.rest ? 'full' : 'empty'} />)
              ) : (
                <Glyph name={l.rest === 0 ? 'full' : l.rest === l.picked ? 'empty' : 'half'} />
              )}
            </span>
            <span className="to">
              {l.rest === 0 ? (
                'in the parcel'
              ) : (
                <>
                  <b>{l.rest}</b> to go
                  {l.line === touched && l.rest > 1 && item && !item.scanEach && !item.asksSerial && (
                    <TextButton type="button" className="block ml-auto" onClick={() => onRest(baseOf(item), l.rest)}>
                      all {l.rest} counted
                    </TextButton>
                  )}
                </>
              )}
            </span>
          </BenchItem>
        );
      })}
    </BenchList>
  );
}
