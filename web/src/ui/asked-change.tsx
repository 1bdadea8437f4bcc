import type { Dto } from '../api/client';
import { Button } from './button';
import { Glyph } from './glyph';
import { ProblemNote } from './states';

/** What somebody asks to change of a person's address or duties, in words, with the ways to answer it. */
export function AskedChange({
  asked,
  whose,
  agree,
  refuse,
  isBusy,
  problem,
}: {
  asked: Dto['AskedChangeDto'];
  /** "your" on one's own page, otherwise "their". */
  whose: 'your' | 'their';
  agree?: () => void;
  refuse?: { says: string; act: () => void } | undefined;
  isBusy: boolean;
  problem: unknown;
}) {
  const what = [
    ...(asked.email ? [`${whose} e-mail address should become ${asked.email}`] : []),
    ...(asked.duties ? [`${whose} duties should be ${asked.duties.map((d) => d.replace('-', ' ')).join(', ') || 'none'}`] : []),
  ].join(', and ');
  return (
    <section className="mt-4" aria-label="A change that waits">
      <p className="flex gap-2 items-baseline font-semibold py-1.5">
        <span className="flex-none self-center">
          <Glyph name="half" />
        </span>
        <span>
          {asked.by} asks: {what}. Until it is agreed to, nothing changes.
        </span>
      </p>
      <p className="flex gap-3 flex-wrap items-center">
        {agree && (
          <Button type="button" next={whose === 'your'} disabled={isBusy} onClick={agree}>
            Agree
          </Button>
        )}
        {refuse && (
          <Button type="button" disabled={isBusy} onClick={refuse.act}>
            {refuse.says}
          </Button>
        )}
      </p>
      <ProblemNote problem={problem} />
    </section>
  );
}
