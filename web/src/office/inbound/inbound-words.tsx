import { useMe } from '../../api/queries';
import { WordLinks } from '../../ui/word-links';

const WORDS = [
  ['orders', '/inbound', 'Orders'],
  ['arrivals', '/inbound/arrivals', 'Arrivals'],
  ['lines', '/inbound/lines', 'Lines'],
  ['inspection', '/inbound/inspection', 'Inspection'],
  ['suppliers', '/inbound/suppliers', 'Suppliers'],
  ['bills', '/inbound/bills', 'Bills'],
  ['returns', '/inbound/returns', 'Returns'],
  ['unread', '/inbound/unread', 'Unread'],
] as const;

/** The parts of the stage Inbound, as words. */
export function InboundWords({ here }: { here: (typeof WORDS)[number][0] }) {
  const me = useMe();
  const may = (right: string) => me.data?.rights.includes(right) ?? false;
  const isShown = (part: string) => (part === 'bills' ? may('bills') : part === 'unread' ? may('buy') : true);
  return (
    <WordLinks
      label="Inbound"
      links={WORDS.filter(([key]) => isShown(key)).map(([, to, says]) => ({ to, says }))}
      here={WORDS.find(([key]) => key === here)?.[1]}
    />
  );
}
