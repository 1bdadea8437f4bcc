import { type Settlement, SETTLEMENTS } from '@vectrum/core/customer-returns';
import { micro, moneyText } from '@vectrum/core/money';
import { useState } from 'react';
import { api, ask, type Dto, ifMatch } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button, TextButton } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { Glyph } from '../../../ui/glyph';
import { Input } from '../../../ui/input';
import { Acts, BlockHead, Said, Sentence } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';
import { PrintAt } from '../../print-at';
import { SETTLE_WORDS } from './return-words';

type Return = Dto['CustomerReturnDto'];

/** What can be done with a return: decide what the customer gets, mail its paper, or call it off. */
export function ReturnActs({ of: r }: { of: Return }) {
  const rights = useMe().data?.rights ?? [];
  if (r.state === 'here') {
    const hasRepair = r.goodsBack.some((l) => l.pieces.some((p) => p.fate === 'repair' && !p.undone && !p.givenBack));
    return rights.includes('settle-returns') && r.proposed ? <Settle of={r} proposed={r.proposed} hasRepair={hasRepair} /> : null;
  }
  return r.state === 'announced' && rights.includes('order-desk') ? <Waiting of={r} /> : null;
}

/** A key says what it would cost. */
const keyWords = (s: Settlement, r: Return): string =>
  s === 'refund' && r.refund ? `${SETTLE_WORDS.refund}, ${moneyText(micro(r.refund), r.currency)}` : SETTLE_WORDS[s];

function Settle({ of: r, proposed, hasRepair }: { of: Return; proposed: NonNullable<Return['proposed']>; hasRepair: boolean }) {
  const [why, setWhy] = useState(proposed.why);
  const [wentWith, setWentWith] = useState('');
  const headers = ifMatch(r.version);
  const settle = useAct({
    act: (settlement: Settlement, once) =>
      ask(
        api.POST('/api/customer-returns/{code}/settle', {
          params: { path: { code: r.code } },
          headers: { ...once, ...headers },
          body: { settlement, why, ...(settlement === 'repair' ? { wentWith } : {}) },
        }),
      ),
  });
  const may = (s: Settlement) => (hasRepair ? s === 'repair' : s !== 'repair') && (r.order !== null || s === 'nothing');
  const can = (s: Settlement) => why.trim() !== '' && !settle.isPending && (s !== 'repair' || wentWith.trim() !== '');
  const others = SETTLEMENTS.filter((s) => s !== proposed.settlement && may(s));
  return (
    <>
      <BlockHead className="mt-4">
        <h2>What the customer gets</h2>
      </BlockHead>
      <Sentence>
        Proposed: {SETTLE_WORDS[proposed.settlement].toLowerCase()}. {proposed.why}.
      </Sentence>
      <div className="flex gap-3 flex-wrap mt-2">
        <Field label="Why, as the customer reads it" className="flex-1">
          <Input maxLength={200} value={why} onChange={(e) => setWhy(e.target.value)} />
        </Field>
        {hasRepair && (
          <Field label="It goes back with" className="flex-1">
            <Input
              maxLength={120}
              placeholder="carrier and number, or fetched"
              value={wentWith}
              onChange={(e) => setWentWith(e.target.value)}
            />
          </Field>
        )}
      </div>
      <ProblemNote problem={settle.error} />
      <Acts>
        {may(proposed.settlement) && (
          <Button type="button" next disabled={!can(proposed.settlement)} onClick={() => settle.mutate(proposed.settlement)}>
            {keyWords(proposed.settlement, r)} <Glyph name="go" size={13} />
          </Button>
        )}
        {others.map((s) => (
          <Button key={s} type="button" disabled={!can(s)} onClick={() => settle.mutate(s)}>
            {keyWords(s, r)}
          </Button>
        ))}
      </Acts>
      {hasRepair && <KeptInstead of={r} />}
    </>
  );
}

/** What cannot be repaired is kept instead, for its supplier or as scrap; the customer gets something else for it. */
function KeptInstead({ of: r }: { of: Return }) {
  const keep = useAct({
    act: ({ id, fate }: { id: number; fate: 'scrap' | 'supplier' }, once) =>
      ask(
        api.POST('/api/customer-returns/{code}/pieces/{id}/keep', {
          params: { path: { code: r.code, id } },
          headers: { ...once, ...ifMatch(r.version) },
          body: { fate },
        }),
      ),
  });
  const pieces = r.goodsBack.flatMap((l) =>
    l.pieces.filter((p) => p.fate === 'repair' && !p.undone && !p.givenBack).map((p) => ({ l, p })),
  );
  return (
    <>
      <ProblemNote problem={keep.error} />
      {pieces.map(({ l, p }) => (
        <p key={p.id} className="mt-2 flex gap-4 flex-wrap items-baseline">
          <span>
            {p.words} of {l.name} cannot be repaired:
          </span>
          <TextButton type="button" disabled={keep.isPending} onClick={() => keep.mutate({ id: p.id, fate: 'supplier' })}>
            Keep it for its supplier
          </TextButton>
          <TextButton type="button" disabled={keep.isPending} onClick={() => keep.mutate({ id: p.id, fate: 'scrap' })}>
            Scrap it
          </TextButton>
        </p>
      ))}
    </>
  );
}

function Waiting({ of: r }: { of: Return }) {
  const [why, setWhy] = useState('');
  const params = { path: { code: r.code } };
  const mail = useAct({ act: (_: void, once) => ask(api.POST('/api/customer-returns/{code}/paper', { params, headers: once })) });
  const off = useAct({
    act: (_: void, once) =>
      ask(api.POST('/api/customer-returns/{code}/call-off', { params, headers: { ...once, ...ifMatch(r.version) }, body: { why } })),
  });
  return (
    <>
      <ProblemNote problem={mail.error ?? off.error} />
      {mail.isSuccess && (
        <Said role="status">
          <Glyph name="go" size={13} /> The paper is on its way to {r.email}
        </Said>
      )}
      <Acts>
        {r.email !== '' && (
          <Button type="button" disabled={mail.isPending} onClick={() => mail.mutate()}>
            Mail the paper again
          </Button>
        )}
        <PrintAt paper="return-slip" code={r.code} says="the paper" />
        <Input
          aria-label="Why nothing comes"
          placeholder="why nothing comes"
          maxLength={200}
          style={{ width: 220 }}
          value={why}
          onChange={(e) => setWhy(e.target.value)}
        />
        <Button type="button" disabled={why.trim() === '' || off.isPending} onClick={() => off.mutate()}>
          Call it off
        </Button>
      </Acts>
    </>
  );
}
