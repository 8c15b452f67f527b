import type { SettingPath } from '$core/link/setting';

/** The page on which a setting stands, and its place there. */
export const hrefOf = (endpointId: string, setting: SettingPath): string => {
	const [link] = setting.split('.');
	return `/endpoint/${endpointId}/plan/${link}${setting === link ? '' : `#setting-${setting}`}`;
};

const FIELDS = 'input, select, textarea, button, a[href]';

/**
 * The field behind a setting on the page as it stands: its own, one within it, or the nearest that holds it, such as the list for
 * one of its entries. Null when the page has none.
 */
export function fieldOf(setting: string): HTMLElement | null {
	for (let path = setting; path.includes('.'); path = path.slice(0, path.lastIndexOf('.'))) {
		const place =
			document.getElementById(`setting-${path}`) ??
			document.querySelector<HTMLElement>(`[id^="${CSS.escape(`setting-${path}.`)}"]`);
		const field = place?.matches(FIELDS) ? place : place?.querySelector<HTMLElement>(FIELDS);
		if (field) return field;
	}
	return null;
}

/** Brings it into view, ready to be changed. */
export function goToField(setting: string): void {
	const field = fieldOf(setting);
	// What is folded away cannot be reached.
	const folded = field?.closest('details');
	if (folded) folded.open = true;
	field?.scrollIntoView({ block: 'center' });
	field?.focus();
}
