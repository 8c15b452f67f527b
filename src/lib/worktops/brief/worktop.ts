import type { Worktop } from '../worktop';
import BriefSettings from './BriefSettings.svelte';
import BoardChooser from './BoardChooser.svelte';

const worktop: Worktop = { list: true, settings: BriefSettings, drawing: BoardChooser };
export default worktop;
