import { DndContext, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import { useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { stepTitle, timeIn } from '@decurio/core';
import type { PlanBar, PlanOrderView, PlanView } from '@decurio/contract';
import { of100 } from '../../ui/of-100.js';
import { clockOf, isAtRisk, orderNumber, serialOf } from '../plan-words.js';
import { lanesOf, type Lane, type Span } from './lanes.js';
import classes from './timeline.module.css';

interface TimelineProps {
  readonly plan: PlanView;
  readonly day: Span;
  /** Null where nobody may give a unit to somebody. */
  readonly onGive: ((unitId: string, personId: string) => void) | null;
  readonly onOpen: (unitId: string) => void;
}

const HOUR_MS = 3_600_000;
/** A press becomes a drag once it moved so far, px: a click opens. */
const DRAG_FROM = 6;

/** People and places down, hours across. A unit's bar can be dragged to somebody else; arrow keys go from bar to bar. */
export function Timeline({ onGive, onOpen, ...laidOut }: TimelineProps) {
  // A day that is laid out anew meanwhile would take the bar out of the hand.
  const [held, setHeld] = useState<Pick<TimelineProps, 'plan' | 'day'> | null>(null);
  const { plan, day } = held ?? laidOut;
  const lanes = useMemo(() => lanesOf(plan, day), [plan, day]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM } }));
  const hours = Array.from(
    { length: Math.round((day.toMs - day.fromMs) / HOUR_MS) },
    (_, i) => day.fromMs + i * HOUR_MS,
  );
  const chart = useRef<HTMLDivElement>(null);
  const now = plan.madeAtMs;
  const due = plan.orders.filter(({ dueMs }) => dueMs !== null && dueMs > day.fromMs && dueMs <= day.toMs);
  return (
    <DndContext
      sensors={sensors}
      autoScroll={false}
      onDragStart={() => setHeld({ plan, day })}
      onDragCancel={() => setHeld(null)}
      onDragEnd={({ active, over }) => {
        setHeld(null);
        const [unitId = '', from = ''] = String(active.id).split(' ');
        if (over && onGive && String(over.id) !== from) onGive(unitId, String(over.id));
      }}
    >
      <div className={classes['chart']}>
        <div className={classes['hours']} aria-hidden="true">
          <span />
          <div>
            {hours.map((ms) => (
              <b key={ms} style={{ left: percent(ms, day) }}>
                {timeIn(plan.zone, ms).slice(11, 13)}
              </b>
            ))}
            {now > day.fromMs && now < day.toMs && (
              <b className={classes['now']} style={{ left: percent(now, day) }}>
                {timeIn(plan.zone, now).slice(11)}
              </b>
            )}
          </div>
        </div>
        <div
          className={classes['rows']}
          ref={chart}
          role="grid"
          tabIndex={0}
          aria-label="The day: people and places down, hours across. Arrow keys go from unit to unit, Enter opens one."
          onKeyDown={(event) => walk(event, chart.current, onOpen)}
        >
          {lanes.map((lane) => (
            <Row
              key={lane.id}
              lane={lane}
              plan={plan}
              day={day}
              hours={hours}
              mayGive={onGive !== null}
              onOpen={onOpen}
            />
          ))}
          <div className={classes['flags']} aria-hidden="true">
            {now > day.fromMs && now < day.toMs && (
              <i className={classes['nowLine']} style={{ left: percent(now, day) }} />
            )}
            {due.map((order) => (
              <i
                key={order.id}
                className={classes['dueLine']}
                data-risk={isAtRisk(order) || undefined}
                style={{ left: percent(order.dueMs ?? 0, day) }}
              />
            ))}
          </div>
        </div>
        <Flags due={due} day={day} />
      </div>
    </DndContext>
  );
}

/** When orders are due, with their chance, beneath the rows. */
function Flags({ due, day }: { readonly due: readonly PlanOrderView[]; readonly day: Span }) {
  if (due.length === 0) return null;
  return (
    <ul className={classes['dues']} aria-label="Due on this day">
      {due.map((order, i) => {
        const share = ((order.dueMs ?? 0) - day.fromMs) / (day.toMs - day.fromMs);
        return (
          <li
            key={order.id}
            data-risk={isAtRisk(order) || undefined}
            data-end={share > 0.75 || undefined}
            style={{ left: percent(order.dueMs ?? 0, day), top: i * 26 }}
          >
            {order.number} · {clockOf(order.dueMs ?? 0).slice(-5)}
            {order.inTime !== null && ` · ${of100(order.inTime)}`}
          </li>
        );
      })}
    </ul>
  );
}

interface RowProps {
  readonly lane: Lane;
  readonly plan: PlanView;
  readonly day: Span;
  readonly hours: readonly number[];
  readonly mayGive: boolean;
  readonly onOpen: (unitId: string) => void;
}

function Row({ lane, plan, day, hours, mayGive, onOpen }: RowProps) {
  const { setNodeRef, isOver } = useDroppable({ id: lane.id, disabled: lane.of !== 'person' || !mayGive });
  return (
    <div role="row" className={classes['row']} data-of={lane.of} data-over={isOver || undefined} ref={setNodeRef}>
      <div role="rowheader" className={classes['name']}>
        <b>{lane.name}</b>
        <span className="soft">{lane.says}</span>
      </div>
      <div className={classes['lines']}>
        {hours.map((ms) => (
          <i key={ms} className={classes['hour']} style={{ left: percent(ms, day) }} />
        ))}
        {lane.shut.map(({ fromMs, toMs }) => (
          <i
            key={fromMs}
            className={classes['shut']}
            style={{ left: percent(fromMs, day), width: width(fromMs, toMs, day) }}
          />
        ))}
        {lane.lines.map((line, i) => (
          <div key={i} className={classes['line']}>
            {line.map((bar) => (
              <Bar
                key={`${bar.unitId} ${bar.step} ${bar.tone} ${bar.fromMs}`}
                bar={bar}
                plan={plan}
                day={day}
                lane={lane}
                mayGive={mayGive}
                onOpen={onOpen}
              />
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}

interface BarProps extends Pick<RowProps, 'plan' | 'day' | 'lane' | 'mayGive' | 'onOpen'> {
  readonly bar: PlanBar;
}

const TAIL = 4;

function Bar({ bar, plan, day, lane, mayGive, onOpen }: BarProps) {
  const isHands = bar.personId !== null && lane.of === 'person';
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: `${bar.unitId} ${lane.id} ${bar.step} ${bar.fromMs}`,
    disabled: !mayGive || !isHands,
  });
  const serial = serialOf(plan, bar.unitId);
  const isDone = bar.toMs <= plan.madeAtMs;
  const what = bar.tone === 'charge' ? 'charges' : bar.tone === 'wait' ? 'waits' : stepTitle(bar.step).toLowerCase();
  const says = `${serial}, ${what}, ${clockOf(bar.fromMs)} to ${clockOf(bar.toMs)}, of ${orderNumber(plan, bar.orderId)}`;
  const isWide = (bar.toMs - bar.fromMs) / (day.toMs - day.fromMs) > 0.047;
  return (
    <div
      className={classes['slot']}
      style={{ left: percent(Math.max(bar.fromMs, day.fromMs), day), width: width(bar.fromMs, bar.toMs, day) }}
    >
      <div
        role="gridcell"
        tabIndex={-1}
        ref={setNodeRef}
        {...(listeners ?? {})}
        className={classes['bar']}
        data-tone={bar.tone}
        data-wide={isWide || undefined}
        data-done={isDone || undefined}
        data-dragging={isDragging || undefined}
        data-unit={bar.unitId}
        aria-label={says}
        title={says}
        style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
        onClick={() => onOpen(bar.unitId)}
      >
        {isWide && bar.tone !== 'wait' && serial.slice(-TAIL)}
      </div>
    </div>
  );
}

const percent = (ms: number, { fromMs, toMs }: Span): string => `${(100 * (ms - fromMs)) / (toMs - fromMs)}%`;
const width = (fromMs: number, toMs: number, day: Span): string => {
  const from = Math.max(fromMs, day.fromMs);
  const to = Math.min(toMs, day.toMs);
  return `${(100 * Math.max(0, to - from)) / (day.toMs - day.fromMs)}%`;
};

/** Arrow keys go to the bar before and after in time, and to the one above and below; Enter opens its unit. */
function walk(event: KeyboardEvent, chart: HTMLElement | null, onOpen: (unitId: string) => void): void {
  const bars = [...(chart?.querySelectorAll<HTMLElement>('[data-unit]') ?? [])];
  const at = bars.indexOf(document.activeElement as HTMLElement);
  const unitId = bars[at]?.dataset['unit'];
  if (event.key === 'Enter' && unitId !== undefined) {
    event.preventDefault();
    return onOpen(unitId);
  }
  if (!['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'].includes(event.key)) return;
  event.preventDefault();
  // Only the chart itself has the focus: its first bar is the way in.
  if (at < 0) return bars[0]?.focus();
  if (event.key === 'ArrowLeft' || event.key === 'ArrowRight')
    return bars[Math.max(0, Math.min(bars.length - 1, at + (event.key === 'ArrowRight' ? 1 : -1)))]?.focus();
  const here = (bars[at] as HTMLElement).getBoundingClientRect();
  const isBelow = event.key === 'ArrowDown';
  const others = bars
    .map((bar) => ({ bar, box: bar.getBoundingClientRect() }))
    .filter(({ box }) => (isBelow ? box.top > here.bottom - 2 : box.bottom < here.top + 2))
    .map(({ bar, box }) => ({ bar, far: Math.abs(box.top - here.top) * 10 + Math.abs(box.left - here.left) }));
  others.sort((a, b) => a.far - b.far)[0]?.bar.focus();
}
