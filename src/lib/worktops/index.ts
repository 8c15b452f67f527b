import type { Component } from 'svelte';
import type { LinkId } from '$core/plan/plan';
import BoardChooser from './BoardChooser.svelte';
import BriefSettings from './BriefSettings.svelte';
import CardDrawing from './CardDrawing.svelte';
import CardSettings from './CardSettings.svelte';
import HeaderDrawing from './HeaderDrawing.svelte';
import HeaderSettings from './HeaderSettings.svelte';
import HeatDrawing from './HeatDrawing.svelte';
import HeatSettings from './HeatSettings.svelte';
import KeepWhere from './KeepWhere.svelte';
import NetworkDrawing from './NetworkDrawing.svelte';
import NetworkSettings from './NetworkSettings.svelte';
import PartsDrawing from './PartsDrawing.svelte';
import PartsFound from './PartsFound.svelte';
import PartsSettings from './PartsSettings.svelte';
import PowerDrawing from './PowerDrawing.svelte';
import PowerSettings from './PowerSettings.svelte';
import ProgrammeDrawing from './ProgrammeDrawing.svelte';
import ProgrammeSettings from './ProgrammeSettings.svelte';
import SoundDevice from './SoundDevice.svelte';
import SoundDrawing from './SoundDrawing.svelte';
import SoundMeetings from './SoundMeetings.svelte';
import SoundSettings from './SoundSettings.svelte';
import SourcesDrawing from './SourcesDrawing.svelte';
import SourcesSettings from './SourcesSettings.svelte';

interface Worktop {
	readonly settings: Component;
	/** Where one would rather look than read: across the top. */
	readonly drawing?: Component;
	/** Beside the findings, in place of the figures, which then stand below. */
	readonly beside?: Component;
	/** It needs more than half of the width. */
	readonly wide?: true;
	/** Below: beside the figures where these stand there, else across. */
	readonly below?: Component;
}

/** For each link its settings, and what shows what follows from them. */
export const worktops: Readonly<Record<LinkId, Worktop>> = {
	brief: { settings: BriefSettings, drawing: BoardChooser },
	parts: { settings: PartsSettings, drawing: PartsDrawing, below: PartsFound },
	header: { settings: HeaderSettings, beside: HeaderDrawing, wide: true },
	heat: { settings: HeatSettings, drawing: HeatDrawing },
	power: { settings: PowerSettings, drawing: PowerDrawing },
	card: { settings: CardSettings, drawing: CardDrawing, below: KeepWhere },
	network: { settings: NetworkSettings, drawing: NetworkDrawing },
	sources: { settings: SourcesSettings, drawing: SourcesDrawing },
	sound: { settings: SoundSettings, drawing: SoundDrawing, beside: SoundMeetings, below: SoundDevice },
	programme: { settings: ProgrammeSettings, drawing: ProgrammeDrawing }
};
