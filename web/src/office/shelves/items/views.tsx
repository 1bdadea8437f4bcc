import { useState } from 'react';
import { Link } from 'react-router';
import { usePreference } from '../../../api/preferences';
import { Glyph } from '../../../ui/glyph';
import { Input } from '../../../ui/input';
import { TextButton } from '../../../ui/button';

interface View extends Record<string, string> {
  name: string;
  query: string;
}

/** Filters that a person has given a name; a view is an address, so it can be sent to somebody else too. */
export function Views({ query }: { query: string }) {
  const [{ views }, keep] = usePreference<{ views: View[] }>('item-views', { views: [] });
  const [naming, setNaming] = useState<string | null>(null);
  const here = views.find((v) => v.query === query);
  return (
    <span className="flex gap-4 items-baseline whitespace-nowrap">
      {views.map((v) => (
        <Link key={v.name} to={`/shelves/items?${v.query}`} aria-current={v === here ? 'true' : undefined} className="view-link">
          {v.name}
        </Link>
      ))}
      {naming !== null ? (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            const name = naming.trim();
            if (name) keep?.({ views: [...views.filter((v) => v.name !== name), { name, query }] });
            setNaming(null);
          }}
        >
          <Input
            style={{ width: 130, height: 24 }}
            autoFocus
            aria-label="Name of this view"
            placeholder="Name this view"
            value={naming}
            onChange={(e) => setNaming(e.target.value)}
            onBlur={() => setNaming(null)}
          />
        </form>
      ) : !keep ? null : here ? (
        <button type="button" className="note" onClick={() => keep({ views: views.filter((v) => v !== here) })}>
          <Glyph name="shut" size={11} /> Forget this view
        </button>
      ) : (
        query !== '' && (
          <TextButton type="button" onClick={() => setNaming('')}>
            Keep this view
          </TextButton>
        )
      )}
    </span>
  );
}
