import { Link, Outlet, useLocation } from 'react-router';
import { useMe } from '../../api/queries';
import { Empty } from '../../ui/states';

const WORDS = [
  ['/setup/people', 'People'],
  ['/setup/devices', 'Devices'],
  ['/setup/channels', 'Channels'],
  ['/setup/outbox', 'Outbox'],
] as const;

/** Setup: people, devices, channels, and what waits to leave the building. */
export function SetupPage() {
  const { pathname } = useLocation();
  const me = useMe();
  if (me.data && !me.data.rights.includes('set-up')) {
    return (
      <section className="list">
        <Empty title="Setup is not among your duties">Ask the owner, or whoever sets up people.</Empty>
      </section>
    );
  }
  return (
    <div className="h-full grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
      <div className="filter" style={{ padding: '9px 20px 6px' }}>
        <nav className="words" aria-label="Setup">
          {WORDS.map(([to, says]) => (
            <Link key={to} to={to} aria-current={pathname.startsWith(to) ? 'true' : undefined}>
              {says}
            </Link>
          ))}
        </nav>
      </div>
      <Outlet />
    </div>
  );
}
