import { useAct } from '../../../api/use-act';
import { useState } from 'react';
import { actOnFloor } from '../../../api/act-on-floor';
import { newKey, type Dto } from '../../../api/client';
import { useMe } from '../../../api/queries';
import { ProblemNote } from '../../../ui/states';
import { TextButton } from '../../../ui/button';
import { Input } from '../../../ui/input';

/** Answers one check where it stands: yes or no, a measurement, or words. */
export function AnswerCheck({ code, check: c }: { code: string; check: Dto['InspectionCheckDto'] }) {
  const me = useMe();
  const [text, setText] = useState(c.value ?? '');
  const answer = useAct({
    act: (value: string) => actOnFloor(me.data, { kind: 'check', id: newKey(), inspection: code, no: c.no, value }),
  });
  const keep = () => {
    if (text.trim() !== '' && text.trim() !== c.value) answer.mutate(text.trim());
  };
  if (c.kind === 'yes')
    return (
      <span className="flex gap-3">
        {['yes', 'no'].map((said) => (
          <TextButton
            key={said}
            type="button"

            aria-pressed={c.value === said}
            style={c.value === said ? { background: 'var(--color-ink)', color: 'var(--color-on-ink)', padding: '0 8px' } : undefined}
            onClick={() => answer.mutate(said)}
          >
            {said}
          </TextButton>
        ))}
      </span>
    );
  return (
    <>
      <span className="flex items-center gap-2">
        <Input
          className={c.kind === 'measure' ? 'num' : ''}
          style={{ width: c.kind === 'measure' ? 90 : 220 }}
          aria-label={c.says}
          value={text}
          maxLength={120}
          onChange={(e) => setText(e.target.value)}
          onBlur={keep}
          onKeyDown={(e) => e.key === 'Enter' && keep()}
        />
        {c.unit}
      </span>
      <ProblemNote problem={answer.error} />
    </>
  );
}
