import { Popover } from 'radix-ui';
import { useId, useState } from 'react';
import { Input } from './input';

export interface SearchOption {
  value: string;
  title: string;
  note?: string;
}

/**
 * A field that finds records as they are typed: arrows choose, Enter takes, and what is typed stays where nothing is taken. It
 * asks nothing itself; whoever shows it gives what was found for the text.
 */
export function SearchField({
  label,
  value,
  found,
  code = false,
  autoFocus = false,
  invalid = false,
  disabled = false,
  placeholder,
  onType,
  onTake,
  onDone,
}: {
  label: string;
  value: string;
  found: readonly SearchOption[];
  code?: boolean;
  autoFocus?: boolean;
  invalid?: boolean;
  disabled?: boolean;
  placeholder?: string;
  onType: (text: string) => void;
  onTake: (option: SearchOption) => void;
  /** Enter where there is nothing to choose from. */
  onDone?: () => void;
}) {
  const id = useId();
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const list = open ? found : [];
  const take = (option: SearchOption) => {
    setOpen(false);
    onTake(option);
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    if (list.length === 0 && !(e.key === 'Enter' && onDone)) return;
    if (e.key === 'ArrowDown') setAt((n) => Math.min(n + 1, list.length - 1));
    else if (e.key === 'ArrowUp') setAt((n) => Math.max(n - 1, 0));
    else if (e.key === 'Escape') setOpen(false);
    else if (e.key === 'Enter') {
      const chosen = list[Math.min(at, list.length - 1)];
      if (chosen) take(chosen);
      else onDone?.();
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    // The list lies over everything, so that no table or sheet that scrolls cuts it off.
    <Popover.Root open={list.length > 0}>
      <Popover.Anchor asChild>
        <Input
          className={code ? 'code' : ''}
          role="combobox"
          aria-label={label}
          aria-expanded={list.length > 0}
          aria-controls={id}
          aria-autocomplete="list"
          aria-invalid={invalid}
          autoComplete="off"
          autoFocus={autoFocus}
          disabled={disabled}
          placeholder={placeholder}
          value={value}
          onChange={(e) => {
            setOpen(true);
            setAt(0);
            onType(e.target.value);
          }}
          onKeyDown={onKeyDown}
          onBlur={() => window.setTimeout(() => setOpen(false), 150)}
        />
      </Popover.Anchor>
      <Popover.Portal>
        <Popover.Content
          className="found-here"
          align="start"
          id={id}
          role="listbox"
          aria-label={label}
          onOpenAutoFocus={(e) => e.preventDefault()}
          onCloseAutoFocus={(e) => e.preventDefault()}
        >
          {list.map((f, i) => (
            <div key={f.value} role="option" aria-selected={i === Math.min(at, list.length - 1)} onMouseDown={() => take(f)}>
              <span className="min-w-0 overflow-hidden text-ellipsis whitespace-nowrap">{f.title}</span>
              <span className="code">{f.note ?? f.value}</span>
            </div>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
