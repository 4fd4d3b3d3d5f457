import { useSelector } from 'react-redux';
import type { OutboxState } from './outbox.js';

export const useOutbox = (): OutboxState => useSelector((state: { outbox: OutboxState }) => state.outbox);
