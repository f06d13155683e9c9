import { depots } from '../schema';

/** When a depot works, as the columns to select. */
export const depotHours = { workingDays: depots.workingDays, fromMin: depots.opensMin, toMin: depots.closesMin };
