import { useState } from 'react';
import type { Dto } from '../../../api/client';
import { useAddress, withParam } from '../../../ui/address';
import { Input, Select } from '../../../ui/input';
import { FilterLine } from '../../../ui/page';
import { type BoardFilter, vansOf } from './board-filter';

/** What a round holds, and how its orders are told apart: while walking, or at a wall afterwards. */
export interface Most {
  orders: number;
  kilos: number;
  litres: number;
  pooled: boolean;
}

/** What is looked at, and how much a round holds. */
export function BoardFilters({
  board,
  filter,
  most,
  onMost,
  now,
}: {
  board: Dto['ReleaseBoardDto'];
  filter: BoardFilter;
  most: Most;
  onMost: (most: Most) => void;
  now: number;
}) {
  const [, change] = useAddress();
  const set = (name: keyof BoardFilter, value: string) => change((p) => withParam(p, name, value));
  const distinct = (of: (string | null)[]) => [...new Set(of.flatMap((x) => (x ? [x] : [])))].sort();
  return (
    <FilterLine>
      <Choice
        label="Van"
        value={filter.van}
        onChange={(v) => set('van', v)}
        all="All vans"
        options={vansOf(board.orders, now).map((g) => [g.key, `${g.title} (${g.list.length})`])}
      />
      <Choice
        label="Carrier"
        value={filter.carrier}
        onChange={(v) => set('carrier', v)}
        all="All carriers"
        options={distinct(board.vans.map((v) => v.carrier)).map((c) => [c, c])}
      />
      <Choice
        label="Channel"
        value={filter.channel}
        onChange={(v) => set('channel', v)}
        all="All channels"
        options={distinct(board.orders.map((o) => o.channel)).map((c) => [c, c])}
      />
      <Choice
        label="Zone"
        value={filter.zone}
        onChange={(v) => set('zone', v)}
        all="All zones"
        options={distinct(board.places.map((p) => p.zone)).map((z) => [z, z])}
      />
      <Choice
        label="Stops"
        value={filter.stops ? String(filter.stops) : ''}
        onChange={(v) => set('stops', v)}
        all="Any number of stops"
        options={['1', '2', '3', '5'].map((n) => [n, n === '1' ? 'One stop' : `Up to ${n} stops`])}
      />
      <Input style={{ width: 84 }} aria-label="Item" placeholder="Item" value={filter.item} onChange={(e) => set('item', e.target.value)} />
      {board.wallSlots > 0 && (
        <Select
          style={{ width: 'auto', marginLeft: 'auto' }}
          aria-label="Orders are sorted"
          value={most.pooled ? 'wall' : 'walking'}
          onChange={(e) =>
            onMost({ ...most, pooled: e.target.value === 'wall', orders: e.target.value === 'wall' ? board.wallSlots : board.roundOrders })
          }
        >
          <option value="walking">Sorted while walking</option>
          <option value="wall">Sorted at the wall</option>
        </Select>
      )}
      <span className={board.wallSlots > 0 ? 'mid' : 'mid ml-auto'}>A round holds</span>
      <Amount
        key={String(most.pooled)}
        label="Orders on a round"
        unit="orders"
        value={most.orders}
        onChange={(orders) => onMost({ ...most, orders })}
      />
      <Amount label="Kilograms on a round" unit="kg" value={most.kilos} onChange={(kilos) => onMost({ ...most, kilos })} />
      <Amount label="Litres on a round" unit="l" value={most.litres} onChange={(litres) => onMost({ ...most, litres })} />
    </FilterLine>
  );
}

function Choice({
  label,
  value,
  all,
  options,
  onChange,
}: {
  label: string;
  value: string;
  all: string;
  options: (readonly [string, string])[];
  onChange: (value: string) => void;
}) {
  return (
    <Select style={{ width: 'auto', maxWidth: 138 }} aria-label={label} value={value} onChange={(e) => onChange(e.target.value)}>
      <option value="">{all}</option>
      {options.map(([v, says]) => (
        <option key={v} value={v}>
          {says}
        </option>
      ))}
    </Select>
  );
}

/** A whole number from one up; what is no number is shown and not taken. */
function Amount({ label, unit, value, onChange }: { label: string; unit: string; value: number; onChange: (n: number) => void }) {
  const [text, setText] = useState(String(value));
  const isOne = (t: string) => /^[1-9]\d{0,4}$/.test(t.trim());
  return (
    <label className="inline-flex items-center gap-1">
      <Input
        style={{ width: 50 }}
        className="num"
        inputMode="numeric"
        aria-label={label}
        aria-invalid={!isOne(text)}
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          if (isOne(e.target.value)) onChange(Number(e.target.value));
        }}
      />
      {unit}
    </label>
  );
}
