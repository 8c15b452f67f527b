import type { Context } from '../../link/context';
import { fanOf } from './model';

/** The name of that unit. */
export const FAN_UNIT = 'yphos-fan.service';
/** Where its script lies on the endpoint. */
export const FAN_SCRIPT = '/opt/yphos/bin/fan.sh';

/** The line that controls the fan, or null when nothing does. A fan in the board's own socket is the kernel's to turn. */
export function fanLine(context: Context): { way: 'switched' | 'pwm'; gpio: number } | null {
	const fan = fanOf(context);
	const movable = fan?.header?.movable[0];
	if (!fan || !movable || fan.control === 'always') return null;
	return { way: fan.control, gpio: context.facts.wiring[fan.id]?.[0] ?? movable.suggested };
}
