import { Menu } from '@mantine/core';
import { IconDevices, IconHome, IconDoorExit } from '@tabler/icons-react';
import type { ReactNode } from 'react';
import { NavLink, useNavigate } from 'react-router';
import type { SessionView } from '@decurio/contract';
import { api } from '../state/api.js';
import { Mark } from './mark.js';
import { ScanBox } from './scan-box.js';
import classes from './strap.module.css';

const PLACES = [
  ['/line', 'Line'],
  ['/bench', 'Bench'],
  ['/orders', 'Orders'],
  ['/library', 'Library'],
  ['/ledger', 'Ledger'],
  ['/practice', 'Practice'],
] as const;

/** The strap over every place: where one is, the scan box, and who works where. */
export function Strap({ who, children }: { readonly who: SessionView; readonly children?: ReactNode }) {
  const [signOut] = api.useSignOutMutation();
  const navigate = useNavigate();
  const leave = async () => {
    await signOut(null);
    void navigate('/line');
  };
  return (
    <header className={classes['strap']}>
      <Mark />
      <nav aria-label="Places">
        {PLACES.map(([to, name]) => (
          <NavLink key={to} to={to} className={({ isActive }) => (isActive ? `${classes['here']}` : '')}>
            {name}
          </NavLink>
        ))}
      </nav>
      <ScanBox />
      {children}
      <Menu position="bottom-end">
        <Menu.Target>
          <button type="button" className={classes['who']}>
            {who.name}
            {who.station !== '' && ` · ${who.station}`}
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>Signed in as {who.role}</Menu.Label>
          <Menu.Item leftSection={<IconHome size={18} />} onClick={() => void navigate('/house')}>
            The house
          </Menu.Item>
          <Menu.Item leftSection={<IconDevices size={18} />} onClick={() => void navigate('/signed-in')}>
            Where you are signed in
          </Menu.Item>
          <Menu.Item leftSection={<IconDoorExit size={18} />} onClick={() => void leave()}>
            Sign out
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
    </header>
  );
}
