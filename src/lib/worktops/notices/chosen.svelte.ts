import type { Page, Zone } from '$core/links/notices/settings';
import type { EndpointView } from '$lib/endpoint/view.svelte';

/** Which page and zone are being worked on; the first page until another is chosen. */
class Chosen {
	#page = $state('');
	#zone = $state('');

	page(view: EndpointView): Page | null {
		const { pages } = view.plan.notices;
		return pages.find(({ id }) => id === this.#page) ?? pages[0] ?? null;
	}
	zone(view: EndpointView): Zone | null {
		return this.page(view)?.zones.find(({ id }) => id === this.#zone) ?? null;
	}
	choosePage(id: string): void {
		this.#page = id;
		this.#zone = '';
	}
	chooseZone(id: string): void {
		this.#zone = id;
	}
}
export const chosen = new Chosen();

/** Puts other pages in the place of these, as one step that can be undone. */
export const editPages = (view: EndpointView, label: string, edit: (pages: readonly Page[]) => Page[]): string | null =>
	view.edit(label, (plan) => ({ ...plan, notices: { ...plan.notices, pages: edit(plan.notices.pages) } }));
