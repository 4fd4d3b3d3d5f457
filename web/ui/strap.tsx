import { Menu } from '@mantine/core';
import { IconActivity, IconDevices, IconHome, IconDoorExit, IconMenu2, IconUser, IconUsers } from '@tabler/icons-react';
import { useState, type ReactNode } from 'react';
import { NavLink, useLocation, useNavigate } from 'react-router';
import type { SessionView } from '@decurio/contract';
import { api } from '../state/api.js';
import { Dialog } from './dialog.js';
import { Mark } from './mark.js';
import { PLACES, placeOf } from './places.js';
import { ScanBox } from './scan-box.js';
import classes from './strap.module.css';

/** The strap over every place: where one is, the scan box, and who works where. */
export function Strap({ who, children }: { readonly who: SessionView; readonly children?: ReactNode }) {
  const [problem, setProblem] = useState<string | null>(null);
  const [signOut] = api.useSignOutMutation();
  const navigate = useNavigate();
  const { pathname } = useLocation();
  const here = placeOf(pathname) ?? 'none of them';
  const leave = async () => {
    const { error } = await signOut(null);
    if (error) setProblem('You are still signed in: signing out needs the server, which does not answer.');
    else void navigate('/line');
  };
  return (
    <header className={classes['strap']}>
      <span className={classes['mark']}>
        <Mark />
      </span>
      <nav aria-label="Places">
        {PLACES.map(([to, name]) => (
          <NavLink key={to} to={to} className={({ isActive }) => (isActive ? `${classes['here']}` : '')}>
            {name}
          </NavLink>
        ))}
      </nav>
      <Menu position="bottom-start">
        <Menu.Target>
          <button type="button" className={classes['places']} aria-label={`Places, now ${here}`}>
            <IconMenu2 size={22} aria-hidden="true" />
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {PLACES.map(([to, name]) => (
            <Menu.Item key={to} onClick={() => void navigate(to)}>
              {name}
            </Menu.Item>
          ))}
        </Menu.Dropdown>
      </Menu>
      <ScanBox />
      {children}
      <Menu position="bottom-end">
        <Menu.Target>
          <button type="button" className={classes['who']}>
            <span className={classes['whoWords']}>
              {who.name}
              {who.station !== '' && ` · ${who.station}`}
            </span>
            <IconUser size={22} className={classes['whoSign']} aria-hidden="true" />
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Label>Signed in as {who.role}</Menu.Label>
          <Menu.Item leftSection={<IconHome size={18} />} onClick={() => void navigate('/house')}>
            The house
          </Menu.Item>
          {who.role === 'owner' && (
            <Menu.Item leftSection={<IconUsers size={18} />} onClick={() => void navigate('/accounts')}>
              Who may sign in
            </Menu.Item>
          )}
          {who.role === 'owner' && (
            <Menu.Item leftSection={<IconActivity size={18} />} onClick={() => void navigate('/status')}>
              How it runs
            </Menu.Item>
          )}
          <Menu.Item leftSection={<IconDevices size={18} />} onClick={() => void navigate('/signed-in')}>
            Where you are signed in
          </Menu.Item>
          <Menu.Item leftSection={<IconDoorExit size={18} />} onClick={() => void leave()}>
            Sign out
          </Menu.Item>
        </Menu.Dropdown>
      </Menu>
      {problem !== null && (
        <Dialog title="Not signed out" onClose={() => setProblem(null)}>
          <p>{problem}</p>
        </Dialog>
      )}
    </header>
  );
}
