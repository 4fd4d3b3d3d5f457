import { Autocomplete, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { HouseView } from '@decurio/contract';
import { api, asProblem } from '../state/api.js';
import { useSession } from '../state/session.js';
import { ActButton } from '../ui/act-button.js';
import { Busy, Notice } from '../ui/notice.js';
import { nowInHouse } from '../ui/house-zone.js';
import { whenFull } from '../ui/when.js';
import classes from './house-page.module.css';

/** What is true of the house as a whole: its clock, and whom to call where a pack burns. */
export function HousePage() {
  const { data, error, refetch } = api.useHouseQuery(null, { refetchOnMountOrArgChange: true });
  const problem = asProblem(error);
  if (!data)
    return problem ? (
      <Notice kind="stop" says={problem.message} act={{ label: 'Try again', onAct: () => void refetch() }} page />
    ) : (
      <Busy />
    );
  return <House house={data} />;
}

function House({ house }: { readonly house: HouseView }) {
  const { who } = useSession();
  const [change, changing] = api.useChangeHouseMutation();
  const [zone, setZone] = useState(house.zone);
  const [fireService, setFireService] = useState(house.fireService);
  const problem = asProblem(changing.error);
  const isOwner = who?.role === 'owner';
  const isChanged = zone !== house.zone || fireService.trim() !== house.fireService;
  return (
    <form
      className={classes['page']}
      onSubmit={(event) => {
        event.preventDefault();
        void change({ zone: zone.trim(), fireService: fireService.trim() });
      }}
    >
      <h1>The house</h1>
      <p className="soft">
        It is {whenFull(nowInHouse())} here. Due times, "today" and papers go by this clock, wherever a tablet or the
        server stands.
      </p>
      <Autocomplete
        label="Time zone"
        description="Such as Europe/Berlin"
        value={zone}
        onChange={setZone}
        data={ZONES}
        limit={12}
        disabled={!isOwner}
        required
        error={problem?.fields?.['zone']}
      />
      <TextInput
        label="Fire service"
        description="Shown where a pack stands in quarantine"
        placeholder="The number that is called from this house"
        value={fireService}
        onChange={(e) => setFireService(e.target.value)}
        maxLength={60}
        disabled={!isOwner}
        error={problem?.fields?.['fireService']}
      />
      {problem && !problem.fields && <Notice kind="stop" says={problem.message} />}
      {changing.isSuccess && !isChanged && <Notice kind="done" says="Kept. Every screen goes by it within seconds." />}
      {isOwner ? (
        <div className={classes['acts']}>
          <ActButton type="submit" look="main" busy={changing.isLoading} disabled={!isChanged} onAct={() => undefined}>
            Keep
          </ActButton>
        </div>
      ) : (
        <p className="soft">An owner changes it.</p>
      )}
    </form>
  );
}

const ZONES = Intl.supportedValuesOf('timeZone');
