import { useState } from 'react';
import { Link } from 'react-router';
import { TextButton } from '../../ui/button';
import { Glyph } from '../../ui/glyph';
import { Input } from '../../ui/input';
import { type OrderView, paramsOf, useKeptViews } from './order-views';

const MOST = 12;

/** A person's own views of the orders: one click away, kept under a name, let go again. */
export function KeptViews({ view }: { view: OrderView }) {
  const [views, keep] = useKeptViews();
  const [name, setName] = useState<string | null>(null);
  const here = new URLSearchParams(paramsOf(view)).toString();
  const isKept = views.some((v) => new URLSearchParams(v.params).toString() === here);
  const save = () => {
    const called = name?.trim() ?? '';
    if (called === '' || !keep) return;
    keep([...views.filter((v) => v.name !== called), { name: called, params: paramsOf(view) }].slice(-MOST));
    setName(null);
  };
  return (
    <span className="flex gap-4 items-baseline flex-wrap">
      {views.map((v) => {
        const to = new URLSearchParams(v.params).toString();
        return (
          <span key={v.name} className="flex gap-1 items-baseline">
            <Link to={`/orders?${to}`} aria-current={to === here ? 'true' : undefined} className={to === here ? 'strong' : 'mid'}>
              {v.name}
            </Link>
            {to === here && keep && (
              <button type="button" aria-label={`Let the view ${v.name} go`} onClick={() => keep(views.filter((x) => x !== v))}>
                <Glyph name="shut" size={11} />
              </button>
            )}
          </span>
        );
      })}
      {!isKept && here !== '' && keep && name === null && (
        <TextButton type="button" onClick={() => setName('')}>
          Keep this view
        </TextButton>
      )}
      {name !== null && (
        <form
          className="flex gap-2 items-center"
          onSubmit={(e) => {
            e.preventDefault();
            save();
          }}
        >
          <Input
            aria-label="Name of the view"
            autoFocus
            maxLength={30}
            className="w-[130px]"
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <TextButton>Keep it</TextButton>
        </form>
      )}
    </span>
  );
}
