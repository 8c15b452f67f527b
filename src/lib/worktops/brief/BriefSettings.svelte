<script lang="ts">
	import type { VideoShape } from '$core/parts/schema';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { WISH_WORDS } from '$lib/endpoint/wishes';
	import { ChoiceField, NumberField, SwitchField, TextField } from '$lib/fields';
	import { FILMS, filmId } from './films';

	const view = useEndpoint();
	const brief = $derived(view.plan.brief);
	const pick = (id: string): void => {
		const video: VideoShape | null = FILMS.find((film) => film.id === id)?.video ?? null;
		view.edit('hardest film', (plan) => ({ ...plan, brief: { ...plan.brief, video } }));
	};
</script>

<TextField path="brief.name" value={brief.name} />
<TextField path="brief.room" value={brief.room} />
<TextField path="brief.purpose" value={brief.purpose} />
<ChoiceField path="brief.kind" value={brief.kind} options={WISH_WORDS} />
<ChoiceField
	path="brief.video"
	value={filmId(brief.video)}
	options={[{ value: '', text: 'none, only sound' }, ...FILMS.map(({ id, text }) => ({ value: id, text }))]}
	onpick={pick}
	hint="What the file or the broadcast says: codec, lines, frames a second, bits."
/>
<NumberField path="brief.soundWithinSec" unit="s" step={5} value={brief.soundWithinSec} />
<SwitchField path="brief.comesBackAlone" value={brief.comesBackAlone} />
