import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { functionTitle, shortSeal, type CodeFunction } from '@decurio/core';
import type { LedgerAnswer } from '@decurio/contract';
import { whenFull } from '../ui/when.js';
import classes from './answer-list.module.css';

const ROW_PX = 42;

export interface AnswerListProps {
  readonly items: LedgerAnswer['items'];
  /** The code that was asked for, with a column of its own. */
  readonly code: CodeFunction | undefined;
  readonly hasMore: boolean;
  readonly onMore: () => void;
}

/** Units that were found, newest first: only those in sight are drawn, and more come as one goes on. */
export function AnswerList({ items, code, hasMore, onMore }: AnswerListProps) {
  const scroll = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer is used in this component alone
  const rows = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  });
  const shown = rows.getVirtualItems();
  const last = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasMore && last >= items.length - 10) onMore();
  }, [hasMore, last, items.length, onMore]);
  const hasCode = code !== undefined;
  return (
    <div ref={scroll} className={classes['scroll']} tabIndex={0} role="region" aria-label="Sealed visits">
      <div role="table" aria-label="Units found" aria-rowcount={hasMore ? -1 : items.length + 1}>
        <div role="row" aria-rowindex={1} className={`cap ${classes['head']}`} data-code={hasCode}>
          <span role="columnheader">Serial</span>
          <span role="columnheader">Customer</span>
          {hasCode && <span role="columnheader">{functionTitle(code)}</span>}
          <span role="columnheader">Type</span>
          <span role="columnheader">Order</span>
          <span role="columnheader">Sealed</span>
          <span role="columnheader">By</span>
          <span role="columnheader">Now</span>
          <span role="columnheader">Seal</span>
        </div>
        <div role="rowgroup" style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {shown.map(({ index, start }) => {
            const item = items[index];
            if (!item) return null;
            return (
              <div
                key={item.visitId}
                role="row"
                aria-rowindex={index + 2}
                className={classes['row']}
                data-code={hasCode}
                style={{ transform: `translateY(${start}px)` }}
              >
                <b role="rowheader">
                  <Link to={`/ledger/${item.visitId}`}>{item.serial}</Link>
                </b>
                <span role="cell">{item.customer}</span>
                {hasCode && (
                  <span role="cell">
                    {item.codes.map(({ label, shown: digits, says }) => (
                      <span key={label} title={label}>
                        <b className="num">{digits}</b> <small>{says}</small>{' '}
                      </span>
                    ))}
                  </span>
                )}
                <span role="cell">{item.typeName}</span>
                <span role="cell" className="num">
                  {item.orderNumber}
                </span>
                <span role="cell">{whenFull(item.sealedAt)}</span>
                <span role="cell">{item.sealedBy}</span>
                <span role="cell">{item.isOut ? 'out' : 'in the house'}</span>
                <span role="cell" className="num">
                  {shortSeal(item.seal)}
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}
