import { useQuery } from '@tanstack/react-query';
import { api, ask, type Dto } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { RowLink } from '../../ui/button';
import { Glyph } from '../../ui/glyph';
import { BlockHead } from '../../ui/page';
import { DenseTable, GlyphCell } from '../../ui/table';

type Step = Dto['FirstStepDto'];
const PARTS = [
  ['scan', 'To the first scan'],
  ['parcel', 'To the first parcel'],
] as const;

function Part({ title, steps, next }: { title: string; steps: Step[]; next: Step | undefined }) {
  const left = steps.filter((s) => !s.done && !s.optional).length;
  return (
    <section aria-label={title}>
      <BlockHead>
        <h2>{title}</h2>
        <span className="note">{left === 0 ? 'done' : `${left} of ${steps.filter((s) => !s.optional).length} needed steps left`}</span>
      </BlockHead>
      <DenseTable className="w-full">
        <tbody>
          {steps.map((s) => (
            <tr key={s.key}>
              <GlyphCell>
                <Glyph name={s.done ? 'full' : 'empty'} size={14} says={s.done ? 'done' : 'to do'} />
              </GlyphCell>
              <td className="whitespace-normal">
                <b className={s.done ? 'mid' : undefined}>{s.says}</b>
                {!s.done && <span className="note block">{s.optional ? `${s.how}; may wait` : s.how}</span>}
              </td>
              <td className="num">
                {!s.done && (
                  <RowLink to={s.link} first={s === next}>
                    {s === next ? 'Begin' : 'Open'} {s === next && <Glyph name="go" size={13} />}
                  </RowLink>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </DenseTable>
    </section>
  );
}

/** What a new house still needs, until its first parcel has left; for whoever sets it up. */
export function FirstSteps() {
  const me = useMe();
  const query = useQuery({
    queryKey: key('first-steps'),
    queryFn: () => ask(api.GET('/api/first-steps')),
    enabled: me.data?.rights.includes('set-up') === true,
  });
  const steps = query.data?.steps ?? [];
  if (steps.length === 0) return null;
  const next = steps.find((s) => !s.done && !s.optional);
  return (
    <div className="grid gap-7 mb-8 lg:grid-cols-2">
      {PARTS.map(([part, title]) => (
        <Part key={part} title={title} steps={steps.filter((s) => s.part === part)} next={next} />
      ))}
    </div>
  );
}
