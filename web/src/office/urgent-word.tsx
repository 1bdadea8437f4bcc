import { Link } from 'react-router';
import { useLine } from '../api/queries';
import { plural, when } from '../ui/format';

/** Says that an urgent order waits for somebody to begin with it, whatever page is open; gone as soon as somebody does. */
export function UrgentWord() {
  const { urgent = [], urgentCount = 0 } = useLine().data ?? {};
  const [first] = urgent;
  if (!first) return <span role="status" />;
  return (
    <span role="status">
      <Link
        className="stamped inline-flex items-center min-h-[24px]"
        to={urgentCount === 1 ? `/orders/${first.code}` : '/orders?show=urgent'}
        title={urgent.map((o) => `${o.code}, ${o.customer}, for ${when(o.promisedAt)}`).join('\n')}
      >
        {plural(urgentCount, 'urgent order waits', 'urgent orders wait')}
      </Link>
    </span>
  );
}
