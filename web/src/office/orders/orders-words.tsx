import { useQuery } from '@tanstack/react-query';
import { api, ask } from '../../api/client';
import { key } from '../../api/keys';
import { useMe } from '../../api/queries';
import { WordLinks } from '../../ui/word-links';

/** The parts of the stage Orders, as words; what cannot be read is for the order desk. */
export function OrdersWords({ here }: { here: string }) {
  const me = useMe();
  const isDesk = me.data?.rights.includes('order-desk') ?? false;
  const unread = useQuery({
    queryKey: key('unread', 'waiting'),
    queryFn: () => ask(api.GET('/api/parked-messages', { params: { query: { limit: '1' } } })),
    enabled: isDesk,
  });
  const waiting = unread.data?.waiting ?? 0;
  return (
    <WordLinks
      label="Orders"
      here={here}
      links={[
        { to: '/orders', says: 'Orders' },
        { to: '/orders/customers', says: 'Customers' },
        { to: '/orders/returns', says: 'Returns' },
        ...(isDesk
          ? [
              { to: '/orders/claims', says: 'On the road' },
              {
                to: '/orders/unread',
                says:
                  waiting > 0 ? (
                    <>
                      Unread <b>{waiting}</b>
                    </>
                  ) : (
                    'Unread'
                  ),
              },
            ]
          : []),
      ]}
    />
  );
}
