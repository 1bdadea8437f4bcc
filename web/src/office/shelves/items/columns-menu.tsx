import { Popover } from 'radix-ui';
import { MenuPaper } from '../../../ui/menu-paper';
import { columnsOf, type ItemColumn, USUAL_COLUMNS } from './item-columns';
import { TextButton } from '../../../ui/button';

/** Which columns the list shows and in which order; each person's own. */
export function ColumnsMenu({
  all,
  shown,
  seesCosts,
  onChange,
}: {
  /** Every column that there is, with the company's own fields. */
  all: readonly ItemColumn[];
  shown: readonly string[];
  seesCosts: boolean;
  /** Null until it is known what the person had arranged. */
  onChange: ((keys: string[]) => void) | null;
}) {
  const here = columnsOf(shown, seesCosts, all);
  const rest = all.filter((c) => !shown.includes(c.key) && (!c.cost || seesCosts));
  const move = (key: string, by: -1 | 1) => {
    const keys = here.map((c) => c.key);
    const at = keys.indexOf(key);
    const to = at + by;
    if (to < 0 || to >= keys.length) return;
    keys.splice(at, 1);
    keys.splice(to, 0, key);
    onChange?.(keys);
  };
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <TextButton type="button" disabled={!onChange}>
          Columns
        </TextButton>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content asChild align="end" sideOffset={6} aria-label="Columns of the list">
          <MenuPaper className="p-3">
            <ul className="columns-list">
              {[...here, ...rest].map((c, i) => {
                const isShown = i < here.length;
                return (
                  <li key={c.key} className={isShown ? undefined : 'mid'}>
                    <label>
                      <input
                        type="checkbox"
                        checked={isShown}
                        disabled={isShown && here.length === 1}
                        onChange={() => onChange?.((isShown ? here.filter((x) => x !== c) : [...here, c]).map((x) => x.key))}
                      />{' '}
                      {c.head}
                    </label>
                    {isShown && (
                      <>
                        <button type="button" aria-label={`${c.head} further left`} disabled={i === 0} onClick={() => move(c.key, -1)}>
                          ↑
                        </button>
                        <button
                          type="button"
                          aria-label={`${c.head} further right`}
                          disabled={i === here.length - 1}
                          onClick={() => move(c.key, 1)}
                        >
                          ↓
                        </button>
                      </>
                    )}
                  </li>
                );
              })}
            </ul>
            <TextButton type="button" className="mt-2" onClick={() => onChange?.([...USUAL_COLUMNS])}>
              As it came
            </TextButton>
          </MenuPaper>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
