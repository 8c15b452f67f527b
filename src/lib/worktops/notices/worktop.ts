import type { Worktop } from '../worktop';
import Feeds from './Feeds.svelte';
import NoticesDrawing from './NoticesDrawing.svelte';
import NoticesSettings from './NoticesSettings.svelte';
import ReadFrom from './ReadFrom.svelte';

const worktop: Worktop = {
	settings: NoticesSettings,
	drawing: NoticesDrawing,
	beside: ReadFrom,
	list: true,
	below: Feeds
};
export default worktop;
