<script lang="ts">
	import { COUNTRY_CODES } from '$core/standards/countries';
	import { useEndpoint } from '$lib/endpoint/view.svelte';
	import { ChoiceField, GroupField, TextField } from '$lib/fields';
	import GuardSettings from './GuardSettings.svelte';
	import LoginSettings from './LoginSettings.svelte';

	const names = new Intl.DisplayNames([navigator.language, 'en'], { type: 'region' });
	const COUNTRIES = COUNTRY_CODES.map((code) => [code, names.of(code) ?? code] as const);
	/** A name typed in full, or letters as they are. */
	const codeOf = (text: string): string =>
		COUNTRIES.find(([, name]) => name.toLowerCase() === text.trim().toLowerCase())?.[0] ??
		(text.trim().length === 2 ? text.trim().toUpperCase() : text);
	const view = useEndpoint();
	const network = $derived(view.plan.network);
	const radio = $derived(network.radio);
	const putRadio = (change: Partial<typeof radio>): string | null => view.set('network.radio', { ...radio, ...change });
</script>

<TextField path="network.hostName" value={network.hostName} mono hint="What it is called on the network." />
<ChoiceField
	path="network.way"
	value={network.way}
	options={[
		{ value: 'wired', text: 'Ethernet' },
		{ value: 'radio', text: 'Wi-Fi' },
		{ value: 'none', text: 'None' }
	]}
	hint={network.way === 'radio'
		? 'Fine for one compressed stream. Its password is asked for when the set is written.'
		: network.way === 'wired'
			? 'Steady, and nothing to type. It costs a cable.'
			: 'Nothing can reach it, and it reaches nothing.'}
/>
{#if network.way === 'radio'}
	<TextField path="network.ssid" value={network.ssid} mono />
	<TextField
		path="network.countryCode"
		value={network.countryCode}
		mono
		placeholder="NO"
		choices={COUNTRIES}
		put={(text) => view.set('network.countryCode', codeOf(text))}
		hint="Type its name or its two letters; Wi-Fi follows that country's rules."
	/>
	<div class="two">
		<ChoiceField
			path="network.radio.bandGhz"
			label="Band"
			value={String(radio.bandGhz)}
			options={[
				{ value: '2.4', text: '2.4 GHz' },
				{ value: '5', text: '5 GHz' }
			]}
			onpick={(value) => putRadio({ bandGhz: value === '5' ? 5 : 2.4 })}
		/>
		<ChoiceField
			path="network.radio.widthMhz"
			label="Width"
			value={String(radio.widthMhz)}
			options={[20, 40, 80].map((width) => ({ value: String(width), text: `${width} MHz` }))}
			onpick={(value) => putRadio({ widthMhz: Number(value) as 20 | 40 | 80 })}
		/>
	</div>
	<div class="two">
		<GroupField path="network.radio" field="signalDbm" label="Level there" unit="dBm" hint="−60 is good, −75 poor." />
		<GroupField path="network.radio" field="othersPercent" label="Air that others take" unit="%" step={5} />
	</div>
{/if}
{#if network.way !== 'none'}
	<ChoiceField
		path="network.address"
		value={network.address.kind}
		options={[
			{ value: 'free', text: 'Whatever the router gives' },
			{ value: 'reserved', text: 'Always the same, reserved in the router' },
			{ value: 'fixed', text: 'Fixed on the endpoint' }
		]}
		onpick={(kind) => view.set('network.address', { ...network.address, kind })}
	/>
	{#if network.address.kind !== 'free'}
		<TextField
			path="network.address.ip"
			label="Which"
			value={network.address.ip}
			mono
			put={(ip) => view.set('network.address', { ...network.address, ip })}
			hint={view.context.venue.lan
				? `The venue has ${view.context.venue.lan.cidr}.`
				: 'Enter the venue’s range under Venue, and it is checked.'}
		/>
	{/if}
	<LoginSettings />
	<GuardSettings />
{:else}
	<TextField
		path="network.user"
		value={network.user}
		mono
		hint="Logs in at its own screen and keyboard, with a password that is asked for when the set is written. Empty: nobody is made."
	/>
{/if}
<div class="two">
	<TextField path="network.locale" value={network.locale} mono />
	<TextField path="network.keyboard" value={network.keyboard} mono />
</div>
