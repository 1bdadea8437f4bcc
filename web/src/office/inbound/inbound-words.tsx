import { useMe } from '../../api/queries';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['orders', '/inbound', 'Orders'],
  ['arrivals', '/inbound/arrivals', 'Arrivals'],
  ['inspection', '/inbound/inspection', 'Inspection'],
  ['suppliers', '/inbound/suppliers', 'Suppliers'],
  ['bills', '/inbound/bills', 'Bills'],
  ['returns', '/inbound/returns', 'Returns'],
] as const;

/** The parts of the stage Inbound, as words. */
export function InboundWords({ here }: { here: (typeof WORDS)[number][0] }) {
  const me = useMe();
  const bills = me.data?.rights.includes('bills') ?? false;
  return (
    <WordLinks
      label="Inbound"
      links={WORDS.filter(([key]) => key !== 'bills' || bills).map(([, to, says]) => ({ to, says }))}
      here={WORDS.find(([key]) => key === here)?.[1]}
    />
  );
}
