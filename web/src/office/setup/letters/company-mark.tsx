import { useState } from 'react';
import { api, ask } from '../../../api/client';
import { sendFile } from '../../../api/send-file';
import { useAct } from '../../../api/use-act';
import { TextButton, TextLabel } from '../../../ui/button';
import { BlockHead } from '../../../ui/page';
import { ProblemNote } from '../../../ui/states';

/** The company's mark: shown as it stands on a mail, chosen from a file, or taken away. */
export function CompanyMark() {
  const [seen, setSeen] = useState(0);
  const [has, setHas] = useState(true);
  const again = () => {
    setHas(true);
    setSeen((n) => n + 1);
  };
  const keep = useAct({
    act: (file: File, once) => sendFile('PUT', '/api/mark', file, once),
    onDone: again,
  });
  const drop = useAct({ act: (_: void, once) => ask(api.DELETE('/api/mark', { headers: once })), onDone: () => setHas(false) });
  return (
    <section aria-label="The company’s mark" className="mb-4">
      <BlockHead className="items-center">
        <h2>Mark</h2>
        <span className="note" style={{ marginLeft: 0 }}>
          at the head of mails and papers
        </span>
        <span className="ml-auto flex gap-3">
          <TextLabel className="cursor-pointer">
            {has ? 'Another file' : 'Choose a file'}
            <input
              type="file"
              className="sr"
              accept="image/png,image/jpeg,image/webp"
              onChange={(e) => {
                const [file] = e.target.files ?? [];
                if (file) keep.mutate(file);
                e.target.value = '';
              }}
            />
          </TextLabel>
          {has && (
            <TextButton type="button" onClick={() => drop.mutate()}>
              Take it away
            </TextButton>
          )}
        </span>
      </BlockHead>
      <ProblemNote problem={keep.error ?? drop.error} />
      {has ? (
        <img
          key={seen}
          src={`/api/mark?seen=${seen}`}
          alt="The company’s mark"
          style={{ maxHeight: 90, maxWidth: 320, marginTop: 8 }}
          onError={() => setHas(false)}
        />
      ) : (
        <p className="note py-2">None yet: mails and papers begin with the company’s name.</p>
      )}
    </section>
  );
}
