import { useState } from 'react';
import type { Band } from '@vectrum/core/scan';
import { FeedbackBand } from '../flow/band';
import { QuantityPad } from '../flow/quantity-pad';
import { BinLabel } from '../floor/bin-label';
import { ReceivedStrip } from '../office/inbound/received-strip';
import { Barcode } from '../ui/barcode';
import { Field } from '../ui/field';
import { Glyph, Pips, type GlyphName } from '../ui/glyph';
import { useDrawings } from '../api/queries';
import { Picture } from '../ui/picture';
import { Waybill } from '../ui/sheet';
import { Empty, ProblemNote, Skeleton } from '../ui/states';
import { WhyNumber, WhySum } from '../ui/why';
import { BlockHead } from '../ui/page';
import { Button, TextButton } from '../ui/button';
import { Input } from '../ui/input';
import { Keys, Key, PhonePiece } from '../ui/phone/parts';

const GLYPHS: GlyphName[] = [
  'empty',
  'quarter',
  'half',
  'most',
  'full',
  'over',
  'blocked',
  'held',
  'fb-ok',
  'fb-wrong',
  'fb-many',
  'fb-unknown',
  'scan',
  'go',
  'down',
  'undo',
  'link',
  'shut',
  'print',
  'sound',
  'person',
  'clock',
  'pen',
];
const BANDS: [Band, string, string][] = [
  ['accepted', '2 boxes and 3 jars', 'Jar 454 g, to DOCK-1'],
  ['not-this', 'Jar 227 g, round', 'Belongs in C-09-1'],
  ['too-many', '1 jar over', 'P-1187 has room for no more. Set the rest apart'],
  ['unknown', '5099999999994', 'On no item or place here'],
];
const ITEM = {
  id: 1,
  sku: 'JAR',
  name: 'Jar',
  picture: 'jar',
  tracking: 'none' as const,
  home: null,
  packs: [
    { id: 3, name: 'pallet', plural: 'pallets', factor: 1536 },
    { id: 2, name: 'tray', plural: 'trays', factor: 48 },
    { id: 1, name: 'jar', plural: 'jars', factor: 1 },
  ],
};

function Block({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mb-6">
      <BlockHead>
        <h2>{title}</h2>
      </BlockHead>
      {children}
    </section>
  );
}

/** Every component in every state, for whoever changes one. Served in development only. */
export function KitPage() {
  const drawings = useDrawings();
  const [why, setWhy] = useState(true);
  const [counts, setCounts] = useState<Record<number, number>>({ 2: 3 });
  const [active, setActive] = useState(2);
  return (
    <div className="grid grid-cols-[1fr_1fr_390px] gap-6 p-5 bg-paper min-h-dvh" data-face="office">
      <div>
        <Block title="Glyphs">
          <div className="grid grid-cols-6 gap-3 py-3">
            {GLYPHS.map((g) => (
              <span key={g} className="text-center note">
                <Glyph name={g} size={26} />
                <br />
                {g}
              </span>
            ))}
          </div>
          <Pips lines={['ready', 'part', 'none', 'unknown', 'gone', 'ready', 'ready', 'ready', 'ready', 'ready']} />
        </Block>
        <Block title="Actions">
          <div className="flex gap-3 py-3 items-center flex-wrap">
            <Button next>
              Book in 20 trays <Glyph name="go" size={13} />
            </Button>
            <Button>Other</Button>
            <Button disabled>Not yet: 2 to scan</Button>
            <TextButton>Quiet</TextButton>
          </div>
        </Block>
        <Block title="Why">
          <WhyNumber open={why} onToggle={() => setWhy(!why)} label="Why">
            300
          </WhyNumber>
          {why && (
            <WhySum
              terms={[
                { sign: '', term: 'On hand', units: 412, documents: ['P-1187'] },
                { sign: '−', term: 'Reserved', units: 112, documents: ['S-20406 48', 'S-20415 64'] },
                { sign: '=', term: 'Available', units: 300, documents: [] },
              ]}
              at={400}
            />
          )}
          <WhySum terms={undefined} />
        </Block>
        <Block title="Fields">
          <div className="grid grid-cols-2 gap-3 py-3">
            <Field label="Name">
              <Input defaultValue="Jar 454 g, round" />
            </Field>
            <Field label="SKU" fault="JAR-454 is taken. Choose another SKU">
              <Input className="code" aria-invalid defaultValue="JAR-454" />
            </Field>
          </div>
        </Block>
      </div>
      <div>
        <Block title="Waybill and barcode">
          <Waybill
            cells={[
              { cap: 'Expected', value: 'Today', note: 'part received' },
              { cap: 'To', value: 'Main site', note: 'Door 2' },
              { cap: 'Goods', value: '£1,739.52' },
            ]}
          />
          <div className="py-3">
            <Barcode code="P-1187" />
          </div>
        </Block>
        <Block title="Received strip: none, part, all, over">
          <div className="grid gap-2 py-3">
            {[0, 240, 480, 576].map((n) => (
              <ReceivedStrip key={n} ordered={480} received={n} factor={48} />
            ))}
          </div>
        </Block>
        <Block title="States">
          <Skeleton rows={3} />
          <Empty title="No orders here">Show all to see the others.</Empty>
          <ProblemNote problem={new Error('x')} onRetry={() => undefined} />
        </Block>
        <Block title="Pictures">
          <div className="flex flex-wrap gap-2 py-3">
            {[...drawings.keys()].map((p) => (
              <Picture key={p} name={p} size={52} />
            ))}
          </div>
        </Block>
      </div>
      <PhonePiece style={{ padding: 0 }}>
        {BANDS.map(([band, title, detail]) => (
          <div key={band} className="mb-3">
            <FeedbackBand feedback={{ band, title, detail }} />
          </div>
        ))}
        <BinLabel code="C-07-2" way="12 m on" />
        <div className="mt-4" />
        <QuantityPad
          item={ITEM}
          counts={counts}
          active={active}
          onActive={setActive}
          onCount={(id, n) => setCounts((c) => ({ ...c, [id]: n }))}
        />
        <Keys className="mt-3">
          <Key>Too few</Key>
          <Key next>Book in</Key>
        </Keys>
      </PhonePiece>
    </div>
  );
}
