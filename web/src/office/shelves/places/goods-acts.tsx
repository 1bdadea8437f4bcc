import { type Purpose, PURPOSE_SAYS, PURPOSES } from '@vectrum/core/scan';
import { useState } from 'react';
import { api, ask, type Dto, newKey, ProblemError } from '../../../api/client';
import { sendFile } from '../../../api/send-file';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button, TextButton } from '../../../ui/button';
import { Words } from '../../../ui/field';
import { Input, Select } from '../../../ui/input';
import { CameraFile } from '../../../ui/camera-file';
import { Said } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';

type Goods = Dto['PlaceStockDto'];
type Condition = Dto['MovedGoodsDto']['condition'];
type What = 'move' | 'use' | 'condition' | 'correct';

const WHAT: readonly { value: What; says: string; right: string }[] = [
  { value: 'move', says: 'Move', right: 'store' },
  { value: 'use', says: 'Use up', right: 'store' },
  { value: 'condition', says: 'Condition', right: 'inspect' },
  { value: 'correct', says: 'Put the number right', right: 'count' },
];
const BECOMES: readonly { value: Condition; says: string }[] = [
  { value: 'good', says: 'good' },
  { value: 'held', says: 'held' },
  { value: 'damaged', says: 'damaged' },
  { value: 'to-inspect', says: 'to be inspected' },
];

/** What can be done at a desk with goods in a place: the same acts as on the phone, typed; and a number put right, for a reason. */
export function GoodsActs({ place, goods: g, onDone }: { place: Dto['PlaceSheetDto']; goods: Goods; onDone: () => void }) {
  const me = useMe();
  const rights = me.data?.rights ?? [];
  const may = WHAT.filter((w) => rights.includes(w.right) && (w.value !== 'correct' || g.condition === 'good'));
  const [what, setWhat] = useState<What>(may[0]?.value ?? 'move');
  const [units, setUnits] = useState(String(g.units));
  const [to, setTo] = useState('');
  const [purpose, setPurpose] = useState<Purpose>('scrap');
  const [becomes, setBecomes] = useState<Condition>(g.condition === 'good' ? 'held' : 'good');
  const [note, setNote] = useState('');
  const [centre, setCentre] = useState('');
  const [picture, setPicture] = useState<File | null>(null);
  const [said, setSaid] = useState('');
  const goods = { itemId: g.itemId, lotId: g.lotId, condition: g.condition as Condition, units: Number(units) };
  const act = useAct({
    act: async (_: void, once) => {
      if (what === 'correct') {
        const body = { place: place.code, sku: g.sku, ...(g.lot ? { lot: g.lot } : {}), units: Number(units), reason: note.trim() };
        const corrected = await ask(api.POST('/api/corrections', { body, headers: once }));
        return [corrected.says, await withPicture(corrected.activityId, picture)].filter(Boolean).join('. ');
      }
      const id = once['idempotency-key'] ?? newKey();
      const common = { id, how: 'typed' as const };
      const command =
        what === 'move'
          ? { ...common, kind: 'move' as const, fromPlaceId: place.id, toPlaceId: await placeIdOf(to), goods: [goods] }
          : what === 'use'
            ? { ...common, kind: 'issue' as const, placeId: place.id, ...goods, purpose, note: note.trim(), costCentre: centre.trim() }
            : { ...common, kind: 'condition' as const, placeId: place.id, ...goods, becomes, note: note.trim() };
      const answer = await ask(
        api.POST('/api/floor/commands', {
          body: { command, madeAt: new Date().toISOString(), madeBy: me.data?.id ?? 0, late: false },
          headers: once,
        }),
      );
      return what === 'move' ? '' : withPicture(answer.activityId, picture);
    },
    onDone: (says) => (says ? setSaid(says) : onDone()),
  });
  const isNumber = /^\d{1,8}$/.test(units.trim()) && (what === 'correct' || Number(units) > 0);
  const ready = isNumber && (what !== 'move' || to.trim() !== '') && (what !== 'correct' || note.trim().length > 1);
  if (may.length === 0) return null;
  return (
    <>
      <Words<What>
        label={`What is done with ${g.name}`}
        value={what}
        words={may.map(({ value, says }) => ({ value, says }))}
        onChange={setWhat}
      />
      <form
        className="flex flex-wrap gap-3 items-center py-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) act.mutate();
        }}
      >
        <Input
          autoFocus
          className="num w-[90px]"
          inputMode="numeric"
          aria-label={what === 'correct' ? 'Units that are there' : 'Units'}
          value={units}
          onChange={(e) => setUnits(e.target.value)}
        />
        {what === 'move' && (
          <Input
            className="code w-[130px]"
            aria-label="To which place"
            placeholder="to which place"
            value={to}
            onChange={(e) => setTo(e.target.value.toUpperCase())}
          />
        )}
        {what === 'use' && (
          <Select className="w-[190px]" aria-label="What for" value={purpose} onChange={(e) => setPurpose(e.target.value as Purpose)}>
            {PURPOSES.map((p) => (
              <option key={p} value={p}>
                {PURPOSE_SAYS[p]}
              </option>
            ))}
          </Select>
        )}
        {what === 'condition' && (
          <Select className="w-[190px]" aria-label="It is" value={becomes} onChange={(e) => setBecomes(e.target.value as Condition)}>
            {BECOMES.filter((b) => b.value !== g.condition).map((b) => (
              <option key={b.value} value={b.value}>
                {b.says}
              </option>
            ))}
          </Select>
        )}
        {what !== 'move' && (
          <Input
            className="w-[190px]"
            aria-label="Why"
            placeholder="why"
            maxLength={60}
            value={note}
            onChange={(e) => setNote(e.target.value)}
          />
        )}
        {what === 'use' && (
          <Input
            className="w-[120px]"
            aria-label="Cost centre"
            placeholder="cost centre"
            maxLength={20}
            value={centre}
            onChange={(e) => setCentre(e.target.value)}
          />
        )}
        {what !== 'move' && (
          <label className="flex items-baseline gap-2 cursor-pointer underline underline-offset-4 focus-within:outline-2 focus-within:outline-ink">
            <span>{picture ? 'Pictured' : 'Picture'}</span>
            <CameraFile onFile={setPicture} />
          </label>
        )}
        <Button type="submit" next disabled={!ready || act.isPending}>
          {may.find((w) => w.value === what)?.says}
        </Button>
        <TextButton type="button" onClick={onDone}>
          Close
        </TextButton>
      </form>
      {said && <Said role="status">{said}</Said>}
      <ProblemNote problem={act.error} />
    </>
  );
}

const placeIdOf = async (code: string): Promise<number> =>
  (await ask(api.GET('/api/places/{code}', { params: { path: { code: code.trim().toUpperCase() } } }))).id;

/** Adds the picture to what was done. That stands by itself: a picture that does not arrive undoes nothing, and is only spoken of. */
async function withPicture(activityId: number | null, picture: File | null): Promise<string> {
  if (!picture || activityId === null) return '';
  return sendFile('PUT', `/api/tape/${activityId}/picture`, picture, { 'idempotency-key': newKey() }).then(
    () => '',
    (problem: unknown) => `That stands, without its picture: ${problem instanceof ProblemError ? problem.message : 'it did not arrive'}`,
  );
}
