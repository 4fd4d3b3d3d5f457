import type { VisitState } from '@decurio/core';
import type { Visit } from '../use-visit.js';
import { Dialog } from '../../ui/dialog.js';
import { WheelMeasureForm } from './ways/wheel-measure.js';

/** The wheel measured before its code is keyed: the first key-in counts with it. */
export function WheelDialog({
  state,
  visit,
  onClose,
}: {
  readonly state: VisitState;
  readonly visit: Visit;
  readonly onClose: () => void;
}) {
  return (
    <Dialog onClose={onClose} title="How far does the wheel roll in a turn?" size="lg">
      <WheelMeasureForm
        marking={state.opened.setup.speed?.tyre ?? ''}
        known={state.calibration.wheel}
        blocked={null}
        onKeep={(data) => {
          void visit.act('wheelMeasured', data);
          onClose();
        }}
      />
    </Dialog>
  );
}
