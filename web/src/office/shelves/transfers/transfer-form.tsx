import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ask } from '../../../api/client';
import { key } from '../../../api/keys';
import { useMe } from '../../../api/queries';
import { useAct } from '../../../api/use-act';
import { Button, TextButton } from '../../../ui/button';
import { Field } from '../../../ui/field';
import { plural } from '../../../ui/format';
import { Input, Select } from '../../../ui/input';
import { Acts, BlockHead } from '../../../ui/page';
import { Sheet } from '../../../ui/sheet';
import { Empty, ProblemNote } from '../../../ui/states';
import { LinesTable } from '../../../ui/table';

interface Line {
  sku: string;
  units: string;
}

/** Asks for goods of another site: what orders wait for is proposed, anything else is added by its SKU. */
export function TransferForm() {
  const me = useMe();
  const navigate = useNavigate();
  const [params] = useSearchParams();
  const sites = me.data?.sites ?? [];
  // Whoever comes from a proposal has said already from where to where.
  const named = (name: string) => sites.find((s) => s.id === Number(params.get(name)))?.id ?? null;
  const [chosenFrom, setFrom] = useState<number | null>(null);
  const [chosenTo, setTo] = useState<number | null>(null);
  const [from, to] = [chosenFrom ?? named('from'), chosenTo ?? named('to')];
  const fromId = from ?? sites[0]?.id ?? 0;
  const toId = to ?? sites.find((s) => s.id !== fromId)?.id ?? 0;
  const [lines, setLines] = useState<Line[]>([{ sku: params.get('sku') ?? '', units: params.get('units') ?? '' }]);
  const [note, setNote] = useState('');
  const [day, setDay] = useState('');
  const needed = useQuery({
    queryKey: key('transfers', 'needed', fromId, toId),
    queryFn: () => ask(api.GET('/api/transfers/needed', { params: { query: { from: String(fromId), to: String(toId) } } })),
    enabled: fromId > 0 && toId > 0 && fromId !== toId,
  });
  const filled = lines.filter((l) => l.sku.trim() !== '' && Number(l.units) > 0);
  const request = useAct({
    act: (_: void, once) =>
      ask(
        api.POST('/api/transfers', {
          body: {
            fromSiteId: fromId,
            toSiteId: toId,
            note,
            expectedOn: day || null,
            lines: filled.map((l) => ({ sku: l.sku.trim(), units: Number(l.units) })),
          },
          headers: once,
        }),
      ),
    onDone: ({ code }) => navigate(`/shelves/transfers/${code}`),
  });
  const change = (i: number, part: Partial<Line>) => setLines(lines.map((l, j) => (j === i ? { ...l, ...part } : l)));
  const take = (sku: string, units: number) => {
    const at = lines.findIndex((l) => l.sku === sku || l.sku === '');
    const line = { sku, units: String(units) };
    setLines(at < 0 ? [...lines, line] : lines.map((l, j) => (j === at ? line : l)));
  };
  if (sites.length < 2)
    return (
      <Sheet address="shelves/transfers/new" title="Send to another site" back="/shelves/transfers">
        <Empty title="You are at one site only">
          Another site is made under Setup, Company; whoever sets up people says who works there.
        </Empty>
      </Sheet>
    );
  const siteSelect = (label: string, value: number, onChange: (id: number) => void, but: number) => (
    <Field label={label}>
      <Select value={value} onChange={(e) => onChange(Number(e.target.value))}>
        {sites
          .filter((s) => s.id !== but)
          .map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
      </Select>
    </Field>
  );
  return (
    <Sheet address="shelves/transfers/new" title="Send to another site" back="/shelves/transfers">
      <div className="grid gap-4 mt-3" style={{ maxWidth: 640 }}>
        <div className="grid gap-4 sm:grid-cols-3">
          {siteSelect(
            'From',
            fromId,
            (id) => {
              setFrom(id);
              if (id === toId) setTo(null);
            },
            0,
          )}
          {siteSelect('To', toId, setTo, fromId)}
          <Field label="Wanted there">
            <Input type="date" value={day} onChange={(e) => setDay(e.target.value)} />
          </Field>
        </div>
        {lines.map((l, i) => (
          <div key={i} className="flex gap-3 items-end">
            <Field label={i === 0 ? 'SKU' : ''}>
              <Input
                className="code"
                aria-label={`SKU of line ${i + 1}`}
                autoFocus={i === lines.length - 1}
                value={l.sku}
                onChange={(e) => change(i, { sku: e.target.value })}
              />
            </Field>
            <Field label={i === 0 ? 'Units' : ''}>
              <Input
                className="num w-[100px]"
                inputMode="numeric"
                aria-label={`Units of line ${i + 1}`}
                value={l.units}
                onChange={(e) => change(i, { units: e.target.value })}
                onKeyDown={(e) => {
                  if (e.key !== 'Enter') return;
                  e.preventDefault();
                  if (i === lines.length - 1) setLines([...lines, { sku: '', units: '' }]);
                }}
              />
            </Field>
            {lines.length > 1 && (
              <TextButton type="button" aria-label={`Take line ${i + 1} away`} onClick={() => setLines(lines.filter((_, j) => j !== i))}>
                Take away
              </TextButton>
            )}
          </div>
        ))}
        <div>
          <TextButton type="button" onClick={() => setLines([...lines, { sku: '', units: '' }])}>
            Another line
          </TextButton>
        </div>
        <Field label="Note">
          <Input value={note} maxLength={200} onChange={(e) => setNote(e.target.value)} />
        </Field>
        <ProblemNote problem={request.error} />
        <Acts>
          <Button type="button" next disabled={filled.length === 0 || request.isPending} onClick={() => request.mutate()}>
            {filled.length === 0 ? 'Ask for it' : `Ask for ${plural(filled.length, 'line', 'lines')}`}
          </Button>
        </Acts>
        {needed.data && needed.data.length > 0 && (
          <>
            <BlockHead>
              <h2>What orders wait for there</h2>
              <span className="note">and is free here</span>
            </BlockHead>
            <LinesTable aria-label="What orders wait for there">
              <thead>
                <tr>
                  <th>Goods</th>
                  <th className="num">Lacking</th>
                  <th className="num">Free here</th>
                  <th className="num">Orders</th>
                  <td />
                </tr>
              </thead>
              <tbody>
                {needed.data.map((n) => (
                  <tr key={n.sku}>
                    <td>
                      <b>{n.item}</b>
                      <span className="note code">{n.sku}</span>
                    </td>
                    <td className="num">{n.units}</td>
                    <td className="num">{n.free}</td>
                    <td className="num">{n.orders}</td>
                    <td className="num">
                      <TextButton type="button" aria-label={`Add ${n.item}`} onClick={() => take(n.sku, Math.min(n.units, n.free))}>
                        Add
                      </TextButton>
                    </td>
                  </tr>
                ))}
              </tbody>
            </LinesTable>
          </>
        )}
      </div>
    </Sheet>
  );
}
