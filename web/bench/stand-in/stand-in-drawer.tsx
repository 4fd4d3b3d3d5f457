import { NativeSelect, Slider, Switch } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useState } from 'react';
import { MOTOR_CHOICES, type Motion, type MotorChoice, type VehicleType } from '@decurio/core';
import type { BenchView } from '@decurio/contract';
import { api } from '../../state/api.js';
import { Handlebar } from '../../ui/handlebar/handlebar.js';
import { Busy } from '../../ui/notice.js';
import { FaultsPanel } from './faults-panel.js';
import { FRESH, keepStandIn, keptStandIn, type KeptStandIn } from './kept-stand-in.js';
import { useStandIn } from './use-stand-in.js';
import classes from './stand-in.module.css';

/** A simulated unit in a drawer, for people without a vehicle at hand. It is pressed by its own keys alone. */
export function StandInDrawer({ bench, onClose }: { readonly bench: BenchView; readonly onClose: () => void }) {
  const types = api.useLibraryQuery('vehicleType');
  const maps = api.useLibraryQuery('displayMap');
  const unitId = bench.unit.id;
  const [kept, setKept] = useState(() => keptStandIn(unitId));
  const type = types.data?.find(({ id }) => id === bench.type.id)?.document as VehicleType | undefined;
  const others = (maps.data ?? [])
    .map(({ document }) => document)
    .filter(
      (document): document is typeof bench.map =>
        'codes' in document && document.id !== bench.map.id && document.menu !== null,
    );
  const lay = (next: KeptStandIn) => {
    keepStandIn(unitId, next);
    setKept(next);
  };
  return (
    <section className={classes['drawer']} aria-label="Stand-in unit">
      <div className={classes['head']}>
        <h2>Stand-in unit</h2>
        <button type="button" aria-label="Put the stand-in unit away" onClick={onClose}>
          <IconX size={20} aria-hidden="true" />
        </button>
      </div>
      {type && maps.data ? (
        <>
          <Vehicle
            key={`${unitId} ${JSON.stringify(kept.faults)}`}
            bench={bench}
            type={type}
            kept={kept}
            other={others.find(({ id }) => id === kept.faults.otherMapId) ?? null}
          />
          <FaultsPanel
            faults={kept.faults}
            map={bench.map}
            others={others}
            onChange={(faults) =>
              lay({
                ...keptStandIn(unitId),
                faults,
                display: faults.otherMapId === kept.faults.otherMapId ? keptStandIn(unitId).display : null,
              })
            }
            onFresh={() => lay({ ...FRESH })}
          />
        </>
      ) : (
        <Busy />
      )}
    </section>
  );
}

interface VehicleProps {
  readonly bench: BenchView;
  readonly type: VehicleType;
  readonly kept: KeptStandIn;
  readonly other: BenchView['map'] | null;
}

function Vehicle({ bench, type, kept, other }: VehicleProps) {
  const run = useStandIn({ unitId: bench.unit.id, serial: bench.unit.serial, type, map: bench.map, other, kept });
  const { controls, control, instruments, motion, autoOffMin } = run;
  const brake = (lever: 'front' | 'rear', on: boolean) => control({ brakes: { ...controls.brakes, [lever]: on } });
  const [lit, setLit] = useState(false);
  const lightWords = !lit
    ? 'Lights'
    : kept.faults.lightOut
      ? 'Lights: the front one stays dark'
      : 'Lights: front and rear are steady';
  const isDark = !run.isPackIn || run.bar.state.screen.kind === 'off';
  return (
    <div className={classes['vehicle']}>
      <div className={classes['plugs']} role="group" aria-label="Power and plugs">
        <button type="button" aria-pressed={run.isPackIn} onClick={run.isPackIn ? run.packOut : run.packIn}>
          Pack {run.isPackIn ? 'on' : 'off'}
        </button>
        <button type="button" onClick={run.unplug}>
          Unplug the display and plug it in
        </button>
        <button type="button" onClick={() => run.charge(100)}>
          Charge to the end
        </button>
        <button type="button" onClick={() => run.charge(60)}>
          Ride it down
        </button>
        {autoOffMin !== null && (
          <button type="button" onClick={run.leaveAlone}>
            Let {autoOffMin} min pass
          </button>
        )}
      </div>
      <Handlebar
        map={run.map}
        bar={run.bar}
        keyboard="off"
        speed={instruments.speed.toFixed(run.map.speed?.decimals ?? 0)}
      />
      <dl className={classes['meters']}>
        <div>
          <dt>Glass</dt>
          <dd>
            {isDark
              ? 'dark'
              : `${instruments.speed} ${instruments.unit}, gauge ${instruments.gaugePercent === null ? 'nothing' : instruments.gaugePercent > 100 ? 'over full' : `${instruments.gaugePercent} %`}`}
          </dd>
        </div>
        <div>
          <dt>Meter</dt>
          <dd>{instruments.meterV.toFixed(1)} V</dd>
        </div>
        <div>
          <dt>Odometer</dt>
          <dd>{run.odometerKm} km</dd>
        </div>
        <div>
          <dt>Errors</dt>
          <dd>{isDark ? 'dark' : instruments.errors.length === 0 ? 'none' : instruments.errors.join(' ')}</dd>
        </div>
        <div>
          <dt>Motor</dt>
          <dd>{motorsSay(motion, type, run.driven)}</dd>
        </div>
      </dl>
      {run.bar.state.motorStarted && motion.trueKmh > 0 && <p role="alert">That press started the motor.</p>}
      <div className={classes['hands']}>
        {type.throttleFitted && (
          <label>
            <span>Throttle</span>
            <Slider
              value={Math.round(controls.throttle * 100)}
              onChange={(value) => control({ throttle: value / 100 })}
              thumbLabel="Throttle"
              label={(value) => `${value} %`}
              color="verdigris"
            />
          </label>
        )}
        <Switch
          label="Pedals turn"
          checked={controls.pedalling}
          onChange={(e) => control({ pedalling: e.currentTarget.checked })}
          disabled={type.pedalMagnets === null}
        />
        <Switch
          label="Front brake"
          checked={controls.brakes.front}
          onChange={(e) => brake('front', e.currentTarget.checked)}
        />
        <Switch
          label="Rear brake"
          checked={controls.brakes.rear}
          onChange={(e) => brake('rear', e.currentTarget.checked)}
        />
        {type.fittings.includes('frontLight') && (
          <Switch label={lightWords} checked={lit} onChange={(e) => setLit(e.currentTarget.checked)} />
        )}
        {type.motors.length > 1 && (
          <NativeSelect
            aria-label="Motors that the rider chose"
            value={controls.motors}
            onChange={(event) => control({ motors: event.currentTarget.value as MotorChoice })}
            data={Object.entries(MOTOR_CHOICES).map(([value, label]) => ({ value, label }))}
          />
        )}
        <Switch
          label="On the road"
          checked={!controls.onStand}
          onChange={(e) => control({ onStand: !e.currentTarget.checked })}
        />
      </div>
      <details className={classes['truth']}>
        <summary>What nobody at the stand knows</summary>
        <p>
          True speed {motion.trueKmh.toFixed(1)} km/h; shows {run.ratio.toFixed(3)} of it. Charge{' '}
          {motion.chargePercent.toFixed(0)} %.
        </p>
      </details>
    </div>
  );
}

/** What turns, and with how much: of two motors, which of them. */
function motorsSay(
  { currentA, isCutOff }: Motion,
  { motors }: Pick<VehicleType, 'motors'>,
  driven: readonly string[],
): string {
  if (isCutOff) return 'cut off';
  if (currentA <= 0.1) return 'still';
  const amps = `${currentA.toFixed(1)} A`;
  if (motors.length < 2) return amps;
  return driven.length === motors.length ? `${amps}, both wheels` : `${amps}, ${driven.join()} wheel alone`;
}
