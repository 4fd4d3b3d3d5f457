import { expose } from 'comlink';
import { planKeys, planReadout } from '@decurio/core';

const planner = { planKeys, planReadout };
export type Planner = typeof planner;

expose(planner);
