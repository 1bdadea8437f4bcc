import { Outlet, useLocation } from 'react-router';
import { useMe } from '../../api/queries';
import { Empty } from '../../ui/states';
import { FilterLine, Page } from '../../ui/page';
import { WordLinks } from '../../ui/word-links';

/** Each part of Setup, with the rights of which one opens it. */
const WORDS: readonly (readonly [to: string, says: string, rights: readonly string[]])[] = [
  ['/setup/people', 'People', ['set-up']],
  ['/setup/devices', 'Devices', ['set-up']],
  ['/setup/imports', 'Imports', ['items', 'buy', 'order-desk', 'set-up']],
  ['/setup/labels', 'Labels', []],
  ['/setup/printers', 'Printers and scales', []],
  ['/setup/scanner', 'Scanner', []],
  ['/setup/company', 'Company', ['set-up']],
  ['/setup/channels', 'Channels', ['set-up']],
  ['/setup/carriers', 'Carriers', ['set-up']],
  ['/setup/boxes', 'Boxes', ['set-up']],
  ['/setup/inserts', 'Inserts', ['set-up']],
  ['/setup/letters', 'Letters', ['set-up']],
  ['/setup/outbox', 'Outbox', ['set-up']],
];

/** Setup: people, devices, files, labels, the company's choices, channels, and what waits to leave the building. */
export function SetupPage() {
  const { pathname } = useLocation();
  const me = useMe();
  const may = (rights: readonly string[]) => rights.length === 0 || rights.some((r) => me.data?.rights.includes(r));
  const here = WORDS.find(([to]) => pathname.startsWith(to));
  return (
    <div className="h-full grid" style={{ gridTemplateRows: 'auto minmax(0,1fr)' }}>
      <FilterLine style={{ padding: '9px 20px 6px' }}>
        <WordLinks label="Setup" links={WORDS.filter(([, , rights]) => may(rights)).map(([to, says]) => ({ to, says }))} here={here?.[0]} />
      </FilterLine>
      {me.data && here && !may(here[2]) ? (
        <Page>
          <Empty title={`${here[1]} is not among your duties`}>Ask the owner, or whoever sets up people.</Empty>
        </Page>
      ) : (
        <Outlet />
      )}
    </div>
  );
}
