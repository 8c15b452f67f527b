/** As systemd writes them, Monday first. Source: systemd.time(7). */
export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
/** One of them. */
export type Weekday = (typeof WEEKDAYS)[number];
