import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, ask } from '../api/client';
import { Glyph } from '../ui/glyph';
import { claimedBy } from '../scanner/scan-claim';
import { useScanner } from '../scanner/use-scanner';

/** Opens the record of a scanned code; says so where nobody knows it. */
export function useOpenCode(onUnknown: (code: string) => void) {
  const navigate = useNavigate();
  return async (code: string) => {
    const found = await ask(api.GET('/api/find', { params: { query: { q: code } } }));
    if (found.opens) void navigate(found.opens);
    else onUnknown(code);
  };
}

/** The one field at the top: a word lists records, a scan opens one. */
export function AnyField() {
  const [text, setText] = useState('');
  const [at, setAt] = useState(0);
  const [unknown, setUnknown] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const openCode = useOpenCode(setUnknown);
  useScanner((code) => {
    const taker = claimedBy();
    if (taker) taker(code);
    else void openCode(code);
  });
  const found = useQuery({
    queryKey: key('find', text),
    queryFn: () => ask(api.GET('/api/find', { params: { query: { q: text } } })),
    enabled: text.trim().length > 1,
    placeholderData: (was) => was,
  });
  const list = text.trim().length > 1 ? (found.data?.found ?? []) : [];
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== '/' || (e.target instanceof HTMLElement && e.target.matches('input, textarea, select'))) return;
      e.preventDefault();
      field.current?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const open = (link: string) => {
    setText('');
    field.current?.blur();
    void navigate(link);
  };
  const onKeyDown = (e: React.KeyboardEvent) => {
    setUnknown(null);
    if (e.key === 'ArrowDown') setAt((n) => Math.min(n + 1, list.length - 1));
    else if (e.key === 'ArrowUp') setAt((n) => Math.max(n - 1, 0));
    else if (e.key === 'Escape') {
      setText('');
      field.current?.blur();
    } else if (e.key === 'Enter') {
      const chosen = list[at];
      if (chosen && found.data?.opens === null) open(chosen.link);
      else void openCode(text).then(() => setText(''));
    } else return;
    e.preventDefault();
  };
  return (
    <>
      <label className="any">
        <Glyph name="scan" />
        <input
          ref={field}
          className="flex-1 outline-none bg-transparent"
          placeholder="Type a word or scan a code"
          aria-label="Find anything"
          role="combobox"
          aria-expanded={list.length > 0}
          aria-controls="found"
          value={text}
          onChange={(e) => {
            setText(e.target.value);
            setAt(0);
          }}
          onKeyDown={onKeyDown}
          onBlur={() => window.setTimeout(() => setText(''), 150)}
        />
        <kbd>/</kbd>
      </label>
      {unknown && (
        <span className="fault" role="alert">
          {unknown} is on nothing here
        </span>
      )}
      {list.length > 0 && (
        <div className="found" id="found" role="listbox">
          {list.map((f, i) => (
            <div key={f.link} role="option" aria-selected={i === at} onMouseDown={() => open(f.link)}>
              <span className="soft">{f.kind}</span>
              <span>{f.title}</span>
              <span className="code">{f.code}</span>
            </div>
          ))}
        </div>
      )}
    </>
  );
}
