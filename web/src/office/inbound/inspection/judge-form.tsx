import { useAct } from '../../../api/use-act';
import { useState } from 'react';
import { actOnFloor } from '../../../api/act-on-floor';
import { newKey, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { Glyph } from '../../../ui/glyph';
import { ProblemNote } from '../../../ui/states';
import { Acts } from '../../../ui/page';
import { Button } from '../../../ui/button';
import { Select, Input } from '../../../ui/input';

type Verdict = 'pass' | 'quarantine' | 'back';

/** Passes or rejects what waits in one place, all of it or some. */
export function JudgeForm({ of: n }: { of: Dto['InspectionDto'] }) {
  const me = useMe();
  const [at, setAt] = useState(0);
  const goods = n.waiting[at] ?? n.waiting[0];
  const [units, setUnits] = useState(String(goods?.units ?? ''));
  const [reason, setReason] = useState('');
  const judge = useAct({
    act: (verdict: Verdict) =>
      actOnFloor(me.data, {
        kind: 'judge',
        id: newKey(),
        inspection: n.code,
        lotId: goods?.lotId ?? 0,
        placeId: goods?.placeId ?? 0,
        units: Number(units),
        verdict,
        reason,
        how: 'typed',
      }),
  });
  const open = n.checks.filter((c) => c.fulfilled === null).length;
  const counted = /^\d+$/.test(units) && Number(units) > 0;
  const rejects = counted && reason.trim() !== '';
  return (
    <>
      <ProblemNote problem={judge.error} />
      <Acts>
        <Button type="button" next={open === 0} disabled={!counted || open > 0 || judge.isPending} onClick={() => judge.mutate('pass')}>
          {open > 0 ? `${open} of ${n.checks.length} checks open` : `Pass ${Number(units) === goods?.units ? goods.words : units}`}{' '}
          <Glyph name="go" size={13} />
        </Button>
        {n.waiting.length > 1 && (
          <Select
            style={{ width: 200 }}
            aria-label="Which goods"
            value={at}
            onChange={(e) => {
              setAt(Number(e.target.value));
              setUnits(String(n.waiting[Number(e.target.value)]?.units ?? ''));
            }}
          >
            {n.waiting.map((w, i) => (
              <option key={`${w.placeId}/${w.lotId}`} value={i}>
                {w.words} at {w.place}
                {w.lot ? `, ${w.lot}` : ''}
              </option>
            ))}
          </Select>
        )}
        <Input
          className="num"
          style={{ width: 72 }}
          inputMode="numeric"
          aria-label="Units judged"
          value={units}
          onChange={(e) => setUnits(e.target.value.trim())}
        />
        <span className="note">units, or</span>
        <Input
          style={{ flex: 1, minWidth: 100 }}
          aria-label="What is wrong with them"
          placeholder="say what is wrong with them"
          maxLength={200}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
        <Button type="button" disabled={!rejects || judge.isPending} onClick={() => judge.mutate('quarantine')}>
          Set aside
        </Button>
        <Button type="button" disabled={!rejects || judge.isPending} onClick={() => judge.mutate('back')}>
          Send back
        </Button>
      </Acts>
    </>
  );
}
