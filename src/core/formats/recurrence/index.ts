/**
 * Rules of calendars that come again, and the instants that they name. RFC 5545, 3.3.10. Start at `expand.ts`.
 */
export { expandRecurrence, STEPS_OF_A_RULE, type Budget, type Recurrence } from './expand';
