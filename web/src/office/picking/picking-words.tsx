import type { ReactNode } from 'react';
import { useMe } from '../../api/queries';
import { FilterLine } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['rounds', 'Rounds', '/picking'],
  ['walks', 'Who is where', '/picking/walks'],
  ['release', 'Release', '/picking/release'],
  ['runs', 'Daily runs', '/picking/runs'],
] as const;

/** The pages of Picking; what is picked next is decided by those who may. */
export function PickingWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  const mayRelease = useMe().data?.rights.includes('release') === true;
  const links = WORDS.filter(([key]) => (key !== 'release' && key !== 'runs') || mayRelease);
  return (
    <FilterLine>
      <WordLinks label="Picking" links={links.map(([, says, to]) => ({ to, says }))} here={WORDS.find(([key]) => key === at)?.[2]} />
      {children}
    </FilterLine>
  );
}
