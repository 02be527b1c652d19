// Where the work on a job goes on.
import type { JobRow } from '../../lib/api/client';

/** The station of its first knot that is not tied. */
export const stationOf = ({ knots }: Pick<JobRow, 'knots'>): string =>
  knots.find((knot) => knot.state !== 'tied')?.name ?? (knots.length ? 'box' : 'measure');
