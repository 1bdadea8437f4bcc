import { DropdownMenu } from 'radix-ui';
import { NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { useSignOut } from '../door/use-sign-out';
import { useLive } from '../api/live';
import { KeptWord } from '../flow/kept-word';
import { useMe } from '../api/queries';
import { MarkName } from '../ui/mark';
import { MenuPaper } from '../ui/menu-paper';
import { useSingleKeys } from '../ui/single-keys';
import { TapeLine, useUndoKey } from '../ui/tape';
import { AnyField } from './any-field';
import { TheLine } from './the-line';
import { UrgentWord } from './urgent-word';

const STAGE_KEYS = ['/', '/inbound', '/shelves', '/orders', '/picking', '/packing', '/dispatch'];

/** 0 is Now, 1 to 6 the stages, N the next action, P print. */
function useStageKeys(): void {
  const navigate = useNavigate();
  const press = (selector: string) => document.querySelector<HTMLElement>(selector)?.click();
  useSingleKeys({
    ...Object.fromEntries(STAGE_KEYS.map((to, i) => [String(i), () => void navigate(to)])),
    n: () => press('.act-next:not(:disabled)'),
    p: () => press('[data-print]'),
  });
}

function WhoMenu() {
  const me = useMe();
  const navigate = useNavigate();
  const signOut = useSignOut();
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="who" aria-label={`Signed in as ${me.data?.name ?? ''}`}>
        <span>{me.data?.sites.length === 1 ? me.data.sites[0]?.name : 'All sites'}</span>
        <b className="ml-[10px]">{me.data?.name}</b>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content asChild align="end" sideOffset={6}>
          <MenuPaper>
            <DropdownMenu.Item onSelect={() => void navigate('/floor')}>Go to the floor</DropdownMenu.Item>
            <DropdownMenu.Item onSelect={() => void navigate('/bench')}>Go to the packing table</DropdownMenu.Item>
            <DropdownMenu.Item onSelect={() => void navigate('/own')}>Your own page</DropdownMenu.Item>
            <DropdownMenu.Item onSelect={() => void signOut()}>Sign out</DropdownMenu.Item>
          </MenuPaper>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The office: top, the Line, the open stage beneath it, the tape at the foot. */
export function OfficeShell() {
  const up = useLive();
  const rights = useMe().data?.rights ?? [];
  const { pathname } = useLocation();
  useStageKeys();
  useUndoKey();
  const isNow = pathname === '/';
  return (
    <div className={`office ${isNow ? '' : 'has-tapeline'}`} data-face="office">
      <a href="#page" className="skip">
        Skip to the page
      </a>
      <header className="top relative">
        <MarkName to="/" />
        <AnyField />
        {!up && (
          <span className="fault" role="status">
            No line to the server. What you see may be old
          </span>
        )}
        <KeptWord />
        <UrgentWord />
        <nav className="duties" aria-label="Side duties">
          {rights.includes('buy') && <NavLink to="/plan">Plan</NavLink>}
          {rights.includes('invoices') && <NavLink to="/books">Books</NavLink>}
          <NavLink to="/setup">Setup</NavLink>
        </nav>
        <WhoMenu />
      </header>
      <TheLine />
      <main className="under" id="page" tabIndex={-1}>
        <Outlet />
      </main>
      {!isNow && <TapeLine />}
    </div>
  );
}
