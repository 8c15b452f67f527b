import type { Expander } from './expand';
import { elements, get, scalar, set, type Shell, type Step } from './state';
import type { Assignment } from './syntax';

/** Puts a value into a variable, a place of an array, or a whole array. Source: POSIX.1-2017, XCU 2.9.1; bash(1), Arrays. */
export function* assign(expander: Expander, shell: Shell, { name, index, append, value }: Assignment): Step<void> {
	const held = get(shell, name);
	if ('list' in value) {
		const list: string[] = append ? elements(held) : [];
		for (const word of value.list) list.push(...(yield* expander.fields(shell, word)));
		return set(shell, name, new Map(list.entries()));
	}
	const text = yield* expander.text(shell, value);
	if (index !== null) {
		const place = yield* expander.arithmetic(shell, index);
		const map = held instanceof Map ? held : new Map(held === undefined ? [] : [[0, held]]);
		map.set(place, append ? (map.get(place) ?? '') + text : text);
		return set(shell, name, map);
	}
	if (held instanceof Map && name !== 'BASH_SOURCE') {
		held.set(0, append ? (held.get(0) ?? '') + text : text);
		return;
	}
	set(shell, name, append ? (scalar(held) ?? '') + text : text);
}
