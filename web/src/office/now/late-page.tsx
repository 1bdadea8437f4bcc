import { Link } from 'react-router';
import { useAnswer, useQuestions } from '../../flow/questions';
import { when } from '../../ui/format';
import { Glyph } from '../../ui/glyph';
import { Empty, ProblemNote, Shown } from '../../ui/states';
import { Page } from '../../ui/page';
import { LinesTable } from '../../ui/table';
import { TextButton } from '../../ui/button';

/** What phones did without a network and could not be booked when it returned: each with its answers. */
export function LatePage() {
  const questions = useQuestions();
  const answer = useAnswer();
  return (
    <Page aria-label="What came too late">
      <h1 className="text-title font-[680]">What came too late</h1>
      <ProblemNote problem={answer.error} />
      <Shown query={questions}>
        {(list) =>
          list.length === 0 ? (
            <Empty title="Nothing came too late">
              What a phone did without a network and could not be booked afterwards waits here. <Link to="/">Back to Now</Link>
            </Empty>
          ) : (
            <LinesTable>
              <thead>
                <tr>
                  <td />
                  <th>What was done</th>
                  <th>Why it is not booked</th>
                  <th>Who, when</th>
                  <th>What becomes of it</th>
                </tr>
              </thead>
              <tbody>
                {list.map((q) => (
                  <tr key={q.id}>
                    <td>
                      <Glyph name="blocked" size={16} />
                    </td>
                    <td>
                      <b>{q.what}</b>
                      <span className="note code"> {q.document}</span>
                    </td>
                    <td>{q.detail}</td>
                    <td>
                      {q.who}
                      <span className="note"> {when(q.madeAt)}</span>
                    </td>
                    <td>
                      <span className="flex flex-wrap gap-3">
                        {q.choices.map((c) => (
                          <TextButton
                            key={c.answer}
                            type="button"
                            className="text-left"
                            disabled={answer.isPending}
                            onClick={() => answer.mutate({ id: q.id, answer: c.answer })}
                          >
                            {c.says}
                          </TextButton>
                        ))}
                      </span>
                    </td>
                  </tr>
                ))}
              </tbody>
            </LinesTable>
          )
        }
      </Shown>
    </Page>
  );
}
