import { useCallback } from 'react';
import { Link, useNavigate } from 'react-router';
import type { Dto } from '../api/client';
import { useAnswer, useQuestions } from '../flow/questions';
import { plural, when } from '../ui/format';
import { Glyph } from '../ui/glyph';
import { ProblemNote, Shown } from '../ui/states';
import { FloorKeys } from './keys';
import { usePageScan } from './scan-context';
import { PhoneHead, Ask, Key } from '../ui/phone/parts';
import { keptLook } from '../flow/kept-word';

/** One's own questions, told from every page of the floor. */
export function QuestionsWord() {
  const questions = useQuestions();
  const count = questions.data?.filter((q) => q.mine).length ?? 0;
  if (count === 0) return null;
  return (
    <div role="status">
      <Link to="/floor/questions" className={keptLook(true)}>
        {plural(count, 'act', 'acts')} came too late. Answer {count === 1 ? 'it' : 'them'}
      </Link>
    </div>
  );
}

/** One by one: what was done, why it could not be booked, and what is to become of it. */
export function QuestionsPage() {
  const navigate = useNavigate();
  const questions = useQuestions();
  usePageScan(useCallback((code) => void navigate(`/floor/look?code=${encodeURIComponent(code.trim())}`), [navigate]));
  return (
    <>
      <PhoneHead>
        <Link to="/floor">‹ Tasks</Link>
      </PhoneHead>
      <Shown query={questions}>
        {(list) => {
          const [first, ...rest] = [...list].sort((a, b) => Number(b.mine) - Number(a.mine));
          if (!first) return <Ask>Nothing came too late</Ask>;
          return <Question key={first.id} question={first} more={rest.length} />;
        }}
      </Shown>
      <div style={{ marginTop: 'auto' }} />
      <FloorKeys siteId={undefined} />
    </>
  );
}

function Question({ question: q, more }: { question: Dto['QuestionDto']; more: number }) {
  const answer = useAnswer();
  return (
    <>
      <Ask>What becomes of this?</Ask>
      <div className="question" role="group" aria-label={q.what}>
        <Glyph name="blocked" size={24} />
        <div>
          <b>{q.what}</b>
          <span>
            {q.mine ? 'You' : q.who}, {when(q.madeAt)}
          </span>
          <p>{q.detail}.</p>
        </div>
      </div>
      <div className="mx-[14px]">
        <ProblemNote problem={answer.error} />
      </div>
      <div className="grid gap-[10px] px-[14px] mt-3">
        {q.choices.map((c, i) => (
          <Key
            key={c.answer}
            type="button"
            next={i === 0}
            style={{ minHeight: 64 }}
            disabled={answer.isPending}
            onClick={() => answer.mutate({ id: q.id, answer: c.answer })}
          >
            {c.says}
          </Key>
        ))}
      </div>
      {more > 0 && <p className="px-[18px] mt-3 text-[17px]">{plural(more, 'more', 'more')} after this one</p>}
    </>
  );
}
