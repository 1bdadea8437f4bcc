import type { ReactNode } from 'react';
import { useMe } from '../../api/queries';
import { FilterLine } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['buy', 'To buy', '/plan'],
  ['coverage', 'Coverage', '/plan/coverage'],
  ['much', 'Too much', '/plan/too-much'],
  ['rules', 'Rules', '/plan/rules'],
  ['proof', 'Proof', '/plan/proof'],
] as const;

/** The parts of planning. */
export function PlanWords({ at, children }: { at: (typeof WORDS)[number][0]; children?: ReactNode }) {
  const me = useMe();
  return (
    <FilterLine>
      <WordLinks
        label="Plan"
        links={WORDS.filter(([part]) => part !== 'proof' || me.data?.seesCosts === true).map(([, says, to]) => ({ to, says }))}
        here={WORDS.find(([key]) => key === at)?.[2]}
      />
      {children}
    </FilterLine>
  );
}
