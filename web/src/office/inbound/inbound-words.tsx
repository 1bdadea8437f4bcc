import { Link } from 'react-router';
import { useMe } from '../../api/queries';

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
    <nav className="words">
      {WORDS.filter(([key]) => key !== 'bills' || bills).map(([key, to, says]) => (
        <Link key={key} to={to} aria-current={key === here ? 'true' : undefined}>
          {says}
        </Link>
      ))}
    </nav>
  );
}
