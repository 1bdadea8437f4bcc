import { useQuery } from '@tanstack/react-query';
import { key } from '../api/keys';
import type { Found } from '@vectrum/core/scan';
import type { ReactNode } from 'react';
import { useContext, useState } from 'react';
import { api, ask } from '../api/client';
import { useCameraOpen } from '../camera/camera-open';
import { useMe } from '../api/queries';
import { ScanContext } from './scan-context';
import { Button } from '../ui/button';
import { Key, Keys, PhoneList, Typed } from '../ui/phone/parts';

/** The practice scanner: the codes that lie around, to be scanned by a touch. */
function Practice({ siteId, document, onClose }: { siteId: number; document: string; onClose: () => void }) {
  const { scan } = useContext(ScanContext);
  const codes = useQuery({
    queryKey: key('practice', siteId, document),
    queryFn: () => ask(api.GET('/api/practice/codes', { params: { query: { site: String(siteId), document } } })),
  });
  return (
    <div className="slip" role="dialog" aria-label="Practice scanner">
      <div className="flex justify-between items-center">
        <b>Codes within reach</b>
        <Button type="button" style={{ height: 48 }} onClick={onClose}>
          Close
        </Button>
      </div>
      {codes.data?.map((g) => (
        <section key={g.title}>
          <h3>{g.title}</h3>
          <div className="codes">
            {g.codes.map((c) => (
              <button
                key={c.code + c.says}
                type="button"
                onClick={() => {
                  scan(c.code, 'scanned');
                  onClose();
                }}
              >
                <span className="code">{c.code}</span>
                <span>{c.says}</span>
              </button>
            ))}
          </div>
        </section>
      ))}
    </div>
  );
}

/** The keys in the thumb's reach: what the page needs, typing a code, and where a house is tried out the practice scanner. */
export function FloorKeys({
  siteId,
  document = '',
  find,
  words = find !== undefined,
  children,
}: {
  siteId: number | undefined;
  document?: string;
  /** What words that are typed could mean here; absent where only codes are asked for. */
  find?: (text: string) => readonly Found[];
  /** Whether words may be typed in place of a code. */
  words?: boolean;
  children?: ReactNode;
}) {
  const { scan } = useContext(ScanContext);
  const [open, setOpen] = useState<'type' | 'practice' | null>(null);
  const [text, setText] = useState('');
  const [camera, setCamera] = useCameraOpen();
  const me = useMe();
  const typed = (e: React.FormEvent) => {
    e.preventDefault();
    if (text.trim() === '') return;
    choose(text.trim());
  };
  const choose = (code: string) => {
    scan(code, 'typed');
    setText('');
    setOpen(null);
  };
  const found = open === 'type' && text.trim().length > 1 ? (find?.(text) ?? []) : [];
  return (
    <>
      {found.length > 0 && (
        <PhoneList className="mb-2 max-h-[40dvh] overflow-y-auto" aria-label="What the words could mean">
          {found.map((f) => (
            <li key={`${f.kind}/${f.code}`}>
              <button type="button" onClick={() => choose(f.code)}>
                <b>{f.kind === 'place' ? <span className="code">{f.code}</span> : f.says}</b>
                <span className={f.kind === 'place' ? '' : 'code'}>{f.kind === 'place' ? f.says : f.code}</span>
              </button>
            </li>
          ))}
        </PhoneList>
      )}
      {open === 'type' && (
        <Typed onSubmit={typed}>
          <input
            autoFocus
            autoComplete="off"
            autoCapitalize="characters"
            aria-label="Code"
            placeholder={words ? 'Code or words' : 'The code on the label'}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <Key next className="px-5">
            Enter
          </Key>
        </Typed>
      )}
      <Keys style={{ marginTop: 12 }}>
        {children}
        {!camera && (
          <Key type="button" onClick={() => setCamera(true)}>
            Camera
          </Key>
        )}
        {me.data?.typesCodes !== false && (
          <Key type="button" aria-expanded={open === 'type'} onClick={() => setOpen((o) => (o === 'type' ? null : 'type'))}>
            Type code
          </Key>
        )}
        {siteId !== undefined && me.data?.practice && (
          <Key type="button" onClick={() => setOpen('practice')}>
            Practice
          </Key>
        )}
      </Keys>
      {open === 'practice' && siteId !== undefined && <Practice siteId={siteId} document={document} onClose={() => setOpen(null)} />}
    </>
  );
}
